/** What is told when it is over: what a perfect gauge would have shown, what was lost, and when one could have known. */
import { momentOf } from '@/core/run/events';
import { asked } from '@/core/simulation/simulation';
import { CAUSES } from './words';
import { type Grade, grade } from './grade';
import type { Criterion } from './scenario';
import { accountOfSession, actionsOf, readingOf, type Session } from './session';

export interface TruthPoint {
  /** ms */ readonly at: number;
  /** What a perfect gauge would have shown, and what the gauge showed, in the gauge's unit. */
  readonly perfect: number;
  readonly shown: number;
  /** K above the beginning, and l/h that leaves; null where no such figure is kept. */
  readonly warmth: number;
  readonly leaking: number | null;
}
export interface Debrief {
  readonly grade: Grade;
  readonly tells: string;
  readonly causes: readonly string[];
  readonly places: readonly string[];
  readonly truth: readonly TruthPoint[];
  readonly unit: string;
  readonly decimals: number;
  /** Stages as they were reached: where what stands on the trace. */
  readonly stages: readonly { readonly at: number; readonly title: string }[];
  readonly from: number;
  readonly until: number;
  /** What it cost besides its minutes: min that it takes about, and l that leaked meanwhile (null: no such figure is kept). */
  readonly cost: { readonly about: number; readonly lost: number | null };
}
/** Points of the curve. */
const POINTS = 400;
/** The end of a practice run: what was done last in it, ms. */
export const endOf = (s: Session): number =>
  Math.max(
    Date.parse(s.plan.made.at) + 1000,
    ...s.acts.map((a) => a.at),
    ...s.events.filter((e) => e.kind !== 'stream').map(momentOf),
  );
/** Litres that leaked, by the mean of neighbouring moments; null where no such figure is kept. */
function lostOver(truth: readonly TruthPoint[]): number | null {
  let sum = 0;
  let known = false;
  for (let i = 1; i < truth.length; i += 1) {
    const [a, b] = [truth[i - 1]!, truth[i]!];
    if (a.leaking === null || b.leaking === null) continue;
    known = true;
    sum += (((a.leaking + b.leaking) / 2) * (b.at - a.at)) / 3_600_000;
  }
  return known ? sum : null;
}
export function debriefOf(s: Session, rubric: readonly Criterion[]): Debrief {
  const until = endOf(s);
  const from = Date.parse(s.plan.made.at);
  const account = accountOfSession(s, until);
  const reading = readingOf(s);
  const every = Math.max(1000, (until - from) / POINTS);
  const moments = Array.from({ length: Math.floor((until - from) / every) + 1 }, (_, i) => from + i * every);
  const truth = asked(s.world, actionsOf(s), moments, (w, at): TruthPoint => ({
    at: Math.round(at),
    ...reading.of(w),
  }));
  const graded = grade(s, rubric, until);
  return {
    grade: graded,
    cost: { about: s.scenario.minutes, lost: lostOver(truth) },
    tells: s.scenario.truth.tells,
    causes: s.scenario.truth.cause.map((c) => CAUSES[c]),
    places: s.scenario.truth.place ?? [],
    truth,
    unit: reading.unit,
    decimals: reading.decimals,
    stages: account.told.flatMap((t) =>
      t.reached === undefined
        ? []
        : [{ at: t.at, title: s.plan.procedure.stages[t.reached]?.title ?? t.reached }],
    ),
    from,
    until,
  };
}
