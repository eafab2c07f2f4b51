import type { RunState } from '@/core/run/state';
import { convert } from '@/core/quantity/unit';
import { toNumber } from '@/core/quantity/exact';
import { PLACES } from './entries';

/** A flow at the reference pressure, m3/s, and after what it was found. */
export interface GainStep {
  readonly what: string;
  readonly at: number;
  readonly flow: number;
}
/** From what was measured first, over what was read after each sealing, to what was measured last. In the order of time. */
export function gainsOf(state: RunState): GainStep[] {
  const judged = state.rooms.fan.visits.flatMap((v): GainStep[] =>
    v.of === 'system' && v.result?.at && !v.result.at.bound
      ? [{ what: '', at: v.result.judgedAt, flow: v.result.at.flow }]
      : [],
  );
  const measured = judged.map((s, i) => ({
    ...s,
    what: i === 0 ? 'measured first' : i === judged.length - 1 ? 'measured again, last' : 'measured again',
  }));
  const sealed = state.rooms.smoke.searches
    .flatMap((s) => s.findings)
    .flatMap((f): GainStep[] =>
      f.sealed?.flow
        ? [
            {
              what: `${PLACES[f.place]}, ${f.where}, sealed`,
              at: f.sealed.at,
              flow: convert(toNumber(f.sealed.flow), f.sealed.flow.unit, 'm3/s'),
            },
          ]
        : [],
    );
  return [...measured, ...sealed].sort((a, b) => a.at - b.at);
}
