/** What a run has done of the tasks that stand for it, so that the rest of a visit is planned again. */
import type { Plan } from '@/core/plan/plan';
import { holdEnds, runningHold } from '@/core/run/read';
import type { RunState } from '@/core/run/state';
import type { Progress, VisitTask } from './types';

export interface TestProgress {
  readonly tasks: Readonly<Record<string, Progress>>;
  /** Until when the hands are busy with it, minutes from the visit's start; 0 when they are free. */
  readonly busy: number;
  /** How often a stage was gone through again beyond the good path: the plan was lengthened by it. */
  readonly repeats: number;
}
/**
 * @param tasks the tasks of this test, in order  @param start ms of the visit's start  @param now ms
 * Times come out in minutes from the visit's start; what began before it counts from 0.
 */
export function progressOf(
  tasks: readonly VisitTask[],
  plan: Plan,
  state: RunState,
  start: number,
  now: number,
): TestProgress {
  const minute = (ms: number) => Math.max(0, (ms - start) / 60_000);
  const own = tasks.filter((t) => t.kind === 'test');
  const done = state.phase !== 'running';
  const current = state.visits[state.visits.length - 1];
  const chunkOf = (stage: string) => own.findIndex((t) => t.stages?.includes(stage));
  // a stage outside the good path belongs to where the run was last on it
  let at = -1;
  let repeats = 0;
  const seen = new Set<string>();
  for (const v of state.visits) {
    const chunk = chunkOf(v.stage);
    if (chunk >= 0) at = Math.max(chunk, 0);
    if (seen.has(v.stage)) repeats += 1;
    seen.add(v.stage);
  }
  if (at < 0) at = state.visits.length ? 0 : -1;
  const out: Record<string, Progress> = {};
  let busy = 0;
  own.forEach((task, i) => {
    if (!done && i > at) return;
    const visits = state.visits.filter((v) => chunkOf(v.stage) === i);
    const first = visits[0] ?? current;
    if (!first) return;
    const from = minute(first.entered);
    if (done || i < at) {
      const last = visits[visits.length - 1];
      const end = Math.max(
        from,
        minute(done && i === own.length - 1 ? state.lastAt : (last?.left ?? state.lastAt)),
      );
      out[task.id] = { state: 'done', start: from, end };
      return;
    }
    const hold = runningHold(state);
    const waiting =
      hold &&
      task.wait > 0 &&
      current &&
      chunkOf(current.stage) === i &&
      plan.procedure.stages[current.stage]?.title === task.waits;
    if (waiting) {
      const handsEnd = minute(hold.startedAt);
      out[task.id] = {
        state: 'waiting',
        start: Math.min(from, handsEnd),
        handsEnd,
        ready: minute(holdEnds(hold)),
      };
      return;
    }
    // hands are on it: what is left of the estimate, at least a minute
    const handsEnd = minute(now) + Math.max(1, task.hands - (minute(now) - from));
    busy = handsEnd;
    out[task.id] =
      task.wait > 0
        ? { state: 'waiting', start: from, handsEnd, ready: handsEnd + task.wait }
        : { state: 'done', start: from, end: handsEnd, running: true };
  });
  return { tasks: out, busy, repeats };
}
