/** A hold again with parts shut off: valve positions, and what a cycle of it came to. */
import { type IsolateStage } from '@/core/kinds';
import { confirmed } from '@/core/kinds/hold/judged';
import { holdText } from '@/core/kinds/hold/text';
import { type Plan } from '@/core/plan/plan';
import type { Course } from '@/core/run/course';
import { currentCycle, positionLines } from '@/core/run/read';
import { type Cycle, type RunState, type Visit } from '@/core/run/state';
import { follow, no, openDebts, type Refusal } from '@/core/run/transition';

export function positions(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: IsolateStage,
  id: string,
  answer: Visit['answers'][string],
): Refusal | null {
  const cycle = currentCycle(visit)!;
  const lines = positionLines(plan, stage, cycle);
  if (!lines.some((l) => l.id === id)) return no('unknown-line', 'This line is not in the list.');
  visit.answers[id] = answer;
  openDebts(plan, state, stage.opens, answer.at);
  cycle.positions = lines.every((l) => visit.answers[l.id]?.answer === 'done');
  return null;
}

export function endCycle(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: IsolateStage,
  judged: string,
  at: number,
): void {
  const cycle = currentCycle(visit)!;
  const outcome = judged === 'beyond' || judged === 'allowance' ? 'moved' : judged;
  cycle.outcome = outcome;
  const again = (subject: Pick<Cycle, 'subject' | 'name' | 'positions'>) => visit.cycles.push({ ...subject });
  if (stage.subjects === 'pipework') {
    if (confirmed(state, outcome, 2) === 'confirm')
      again({ subject: cycle.subject, name: cycle.name, positions: true });
    else follow(plan, state, outcome, at);
    return;
  }
  const index = plan.system.appliances.findIndex((a) => a.id === cycle.subject);
  const next = plan.system.appliances[index + 1];
  if (next) again({ subject: next.id, name: next.name, positions: false });
  else follow(plan, state, 'done', at);
}

const WORDS: Readonly<Record<string, string>> = {
  nil: 'no movement',
  moved: 'moved',
  rose: 'rose',
  disagree: 'readings disagree',
  done: 'done',
};
export const isolateCourse: Course = (visit) => ({
  word: WORDS[visit.outcome ?? ''] ?? visit.outcome ?? 'open',
  text: visit.cycles
    .filter((c) => c.hold)
    .map((c) => `${c.name}: ${holdText(c.hold!)}`)
    .join('; '),
});
