/** What a hold of water is judged against, and what it came to: the lowest reading, the water added, the limits of both. */
import type { Gauge } from '@/core/instrument/gauge';
import type { HoldStage } from '@/core/kinds';
import { applies, type Plan } from '@/core/plan/plan';
import { volumeOfCall, wanted, type Working } from '@/core/formula';
import {
  add,
  compare,
  exact,
  inUnit,
  parseWithUnit,
  toNumber,
  trimmed,
  type Exact,
  type Limit,
} from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import type { HoldFacts } from '@/core/verdict/judge';
import { contextOf } from './read';
import type { Hold, RunState } from './state';

/** The lowest accepted reading of a running hold, its end and what stood before each top-up included. */
export function lowestOf(state: RunState, hold: Hold, end: Exact): Exact {
  const unit = end.unit;
  const scale = Math.max(end.scale, hold.start.figure.scale);
  // a reading belongs to the hold by when it was made and by what it was read on: moments are claims of a device
  const read = state.visits
    .flatMap((v) => v.readings)
    .filter((r) => !r.late && r.readMoment >= hold.start.readMoment)
    .map((r) => (r.corrected ?? r).figure)
    .filter((f) => f.unit === unit);
  const streamed = state.visits
    .flatMap((v) => v.trace)
    .filter(([t]) => t >= hold.start.readMoment)
    .map(([, digits]) => exact(digits, scale, unit));
  return [...read, ...streamed, ...hold.topUps.map((t) => t.before), end].reduce((least, x) =>
    compare(x, least) < 0 ? x : least,
  );
}
/** The limit of a make-up under this plan's choices; null where none applies: the figure is for the engineer. */
export function makeUpLimit(
  plan: Plan,
  state: RunState,
  stage: HoldStage,
  facts: Pick<HoldFacts, 'start' | 'end' | 'elapsedMs'>,
): { value: Exact; source: string; working: Working } | null {
  const rule = stage.permitted?.find((p) => applies(plan, stage.part, p.when));
  if (!rule) return null;
  const pa = (e: Exact) => convert(toNumber(e), e.unit, 'Pa');
  const context = {
    ...contextOf(plan, state, stage.part),
    hold: { mean: (pa(facts.start) + pa(facts.end)) / 2, minutes: facts.elapsedMs / 60_000 },
  };
  const found = volumeOfCall(rule.volume, context);
  // rounded down to a millilitre: what is measured is no finer
  return {
    value: exact(Math.floor(found.litres * 1000 + 1e-9), 3, 'l'),
    source: rule.source,
    working: found.working,
  };
}
/** All water added during a hold, in litres. */
export const madeUp = (hold: Hold): Exact =>
  trimmed(
    hold.topUps.reduce<Exact>(
      (sum, t) => (t.added ? add(sum, inUnit(t.added, 'l', 4, 'up')) : sum),
      exact(0, 4, 'l'),
    ),
    2,
  );
/** The fall that a stretch hold permits, in the gauge's unit, rounded towards the stricter side. */
export const fallLimit = (stage: HoldStage, gauge: Gauge): Limit => {
  const { value, broken, source } = stage.fall!;
  return { value: wanted(parseWithUnit(value), gauge.resolution.unit, 'down'), broken, source };
};
