import type { Plan } from '@/core/plan/plan';
import type { Meaning } from '@/core/analysis/meaning';
import { toNumber } from '@/core/quantity/exact';
import { holdLimits } from '@/core/run/hold-limits';
import { unwitnessed } from '@/core/run/long-hold';
import { gaugeOf, gaugeOfHold } from '@/core/run/read';
import type { Hold, RunState, Visit } from '@/core/run/state';
import type { TraceMark, TracePoint, TraceRequest } from './trace';

/**
 * What to draw for one hold: the streamed display, the readings by hand, the permitted band and the events.
 * @param until right edge, ms; the hold's own end where it has one  @param meaning what the analysis makes of it
 */
export function holdTrace(
  plan: Plan,
  state: RunState,
  visit: Visit,
  hold: Hold,
  until: number,
  meaning?: Meaning | null,
): Omit<TraceRequest, 'width' | 'height'> | null {
  const gauge = gaugeOfHold(plan, hold) ?? gaugeOf(plan, state);
  if (!gauge) return null;
  const scale = 10 ** gauge.resolution.scale;
  const from = hold.startedAt;
  const to = Math.max(hold.end ? hold.end.readMoment : from + hold.minutes * 60000, hold.end ? 0 : until);
  const inside = (t: number) => t >= from - 500 && t <= to + 500;
  const start = toNumber(hold.start.figure);
  const marks: TraceMark[] = [
    { kind: 'start', t: from, p: start, label: 'start reading' },
    ...visit.readings
      .filter((r) => inside(r.readMoment))
      .map((r): TraceMark => ({
        kind: r.late ? 'late' : 'reading',
        t: r.readMoment,
        p: toNumber((r.corrected ?? r).figure),
        label: r.late ? 'late entry' : 'reading',
      })),
    // fell to here, brought back to there
    ...hold.topUps.flatMap((u): TraceMark[] => [
      { kind: 'reading', t: u.at - 1, p: toNumber(u.before), label: 'before re-adjusting' },
      { kind: 'top-up', t: u.at, p: toNumber(u.after), label: 're-adjusted' },
    ]),
    ...(hold.end
      ? [
          {
            kind: 'end',
            t: hold.end.readMoment,
            p: toNumber(hold.end.figure),
            label: 'end reading',
          } as TraceMark,
        ]
      : []),
  ];
  const streamed: TracePoint[] = visit.trace
    .filter(([t]) => inside(t))
    .map(([t, digits]) => ({ t, p: digits / scale }));
  const points =
    streamed.length > 1
      ? streamed
      : marks
          .filter((m) => m.kind !== 'late')
          .map(({ t, p }) => ({ t, p }))
          .sort((a, b) => a.t - b.t);
  const limits = holdLimits(plan, state, plan.procedure.stages[visit.stage]!, gauge, hold);
  const permitted: [number, number] | undefined =
    hold.role === 'settle' || hold.role === 'decay'
      ? undefined
      : [start - toNumber(limits.fall.value), start + toNumber(limits.rise.value)];
  const unread = unwitnessed(visit, hold, Math.min(until, to));
  return {
    points,
    marks,
    from,
    to,
    streamed: streamed.length > 1,
    decimals: gauge.resolution.scale,
    ...(permitted ? { permitted } : {}),
    ...(unread.length ? { unread } : {}),
    ...(meaning ? { model: meaning } : {}),
  };
}
