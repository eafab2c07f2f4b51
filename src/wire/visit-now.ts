import type { TestProgress } from '@/core/visit/progress';
import type { VisitFacts } from '@/core/visit/facts';
import type { VisitNow } from '@/core/visit/current';
import { momentIn } from './visit-time';

/** What a visit is planned again from: its promise in minutes, and what its runs have done. @param begin ms of its start */
export function visitNow(
  view: { readonly facts: VisitFacts; readonly runs: readonly { readonly progress: TestProgress }[] },
  begin: number,
  at?: number,
): { promise: number | null; now: VisitNow } {
  const { facts, runs } = view;
  const promise = facts.promise
    ? Math.max(0, (momentIn(facts.day, facts.promise, facts.zone) - begin) / 60_000)
    : null;
  const progress = Object.fromEntries(runs.flatMap((r) => Object.entries(r.progress.tasks)));
  const busy = Math.max(0, ...runs.map((r) => r.progress.busy));
  const started = runs.length > 0 || Object.keys(facts.done).length > 0;
  // once something has begun, nothing new can begin in the past
  const clock = started && at !== undefined ? Math.max(0, (at - begin) / 60_000) : 0;
  return { promise, now: { progress, now: Math.max(busy, clock) } };
}
