/** Entries of check lists. */
import { type Stage } from '@/core/kinds';
import { positions } from '@/core/kinds/isolate-and-repeat/fold';
import { type Plan } from '@/core/plan/plan';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import { type Fold, type OnStage } from '@/core/run/fold';
import { checkLines, openLines, UNKNOWN } from '@/core/run/read';
import { type RunState, type Visit } from '@/core/run/state';
import { follow, no, openDebts, type Refusal } from '@/core/run/transition';

export const checksFold: Fold<'check'> = {
  check: {
    transition: true,
    apply: (event, on) => check(on.plan, on.state, on.visit, on.stage, event, on.at),
    words: (event, { plan }) => {
      const item = Object.values(plan.procedure.stages)
        .flatMap((s) => (s.kind === 'checks' ? s.items : []))
        .find((i) => i.key === event.item);
      const subject = plan.system.appliances.find((a) => a.id === event.subject)?.name;
      return `${subject ? `${subject}: ` : ''}${item?.text ?? event.item}: ${event.answer}`;
    },
  },
};
/** Ends a list: every line answered. */
export function confirmChecks({ plan, state, visit, stage, at }: OnStage): Refusal | null {
  if (openLines(plan, visit).length) return no('unanswered', 'Answer every line first.');
  openDebts(plan, state, stage.opens, at);
  follow(plan, state, 'done', at);
  return null;
}

function check(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'check'>,
  at: number,
): Refusal | null {
  const id = event.subject ? `${event.item}/${event.subject}` : event.item;
  const answer = { answer: event.answer, at, byName: event.byName };
  if (stage.kind === 'isolate-and-repeat') return positions(plan, state, visit, stage, id, answer);
  if (stage.kind !== 'checks') return no('wrong-step', 'This stage has no check list.');
  const lines = checkLines(plan, stage);
  const line = lines.find((l) => l.id === id);
  if (!line) return no('unknown-line', 'This line is not in the list.');
  if (event.answer !== 'undone' && (event.answer === 'done') === (line.item.ask === true))
    return no(
      'answer',
      line.item.ask ? 'Answer this line with yes or no.' : 'This line is done or not done.',
    );
  if (line.item.ordered) {
    const before = lines.filter((l) => l.item.ordered);
    const open = before.find((l) => !visit.answers[l.id] || visit.answers[l.id]!.answer === 'undone');
    if (open && before.indexOf(open) < before.indexOf(line) && event.answer !== 'undone')
      return no('order', `First: ${open.item.text}.`);
  }
  if (line.item.must && ['yes', 'no'].includes(event.answer) && event.answer !== line.item.must.answer)
    return no('must', line.item.must.text);
  visit.answers[id] = answer;
  if (line.item.position && line.subject && line.subject.id !== UNKNOWN) {
    if (event.answer === 'undone') delete state.valves[line.subject.id];
    else state.valves[line.subject.id] = line.item.position;
  }
  if (line.item.denies) {
    state.denied = state.denied.filter((d) => d !== line.item.denies);
    if (event.answer === 'yes') state.denied.push(line.item.denies);
  }
  if (event.answer !== 'undone' && !line.item.ask) {
    openDebts(plan, state, line.item.opens, at);
    if (
      line.item.settles &&
      lines.every((l) => l.item !== line.item || visit.answers[l.id]?.answer === 'done')
    )
      for (const debt of state.debts)
        if (line.item.settles.includes(debt.key) && !debt.cleared)
          debt.cleared = { at, byName: event.byName, text: line.item.text };
  }
  if (line.item.yes && event.answer === 'yes') {
    visit.split = line.item.text;
    follow(plan, state, line.item.yes, at);
  }
  return null;
}

export const checksCourse: Course = (visit) => ({
  word: visit.outcome === 'done' ? 'complete' : (visit.outcome ?? 'open'),
  text: `${Object.values(visit.answers).filter((a) => a.answer !== 'undone').length} lines answered`,
});
