/** A question answered: where the way leads. */
import { type Stage } from '@/core/kinds';
import { type Plan } from '@/core/plan/plan';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import { type Fold } from '@/core/run/fold';
import { type RunState } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const observeFold: Fold<'observe'> = {
  observe: {
    transition: true,
    sign: () => true,
    apply: (event, { plan, state, stage, at }) => observe(plan, state, stage, event, at),
    words: (event, { plan }) => {
      const found = Object.values(plan.procedure.stages)
        .flatMap((s) => (s.kind === 'observe' ? s.results : []))
        .find((r) => r.key === event.result);
      return `seen: ${found?.text || event.result}${event.text ? `; reason: ${event.text}` : ''}`;
    },
    said: (event) => !!event.text,
  },
};

function observe(
  plan: Plan,
  state: RunState,
  stage: Stage,
  event: EventOf<'observe'>,
  at: number,
): Refusal | null {
  const result = stage.kind === 'observe' ? stage.results.find((r) => r.key === event.result) : undefined;
  if (!result) return no('wrong-step', 'That is not one of the answers.');
  const owed = (result.reasonBefore ?? 0) - state.repeats;
  if (owed > 0 && !event.text?.trim())
    return no(
      'reason',
      `The rule asks for ${owed} more ${owed === 1 ? 'repeat' : 'repeats'} first. To let the result stand now, say why: the reason is printed.`,
    );
  if (event.text?.trim())
    state.notes.push({
      at,
      byName: event.byName,
      text: `${result.text}: ${event.text.trim()}`,
      kind: 'note',
    });
  follow(plan, state, event.result, at);
  return null;
}

export const observeCourse: Course = (visit, plan) => {
  const stage = plan.procedure.stages[visit.stage]!;
  const result = stage.kind === 'observe' ? stage.results.find((r) => r.key === visit.outcome) : undefined;
  return { word: result ? 'seen' : 'open', text: result?.text ?? '' };
};
