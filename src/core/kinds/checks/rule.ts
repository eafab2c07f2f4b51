import * as yup from 'yup';
import { stageBase } from '@/core/grammar/rule';
import {
  among,
  condition,
  list,
  mark,
  maybe,
  maybeAmong,
  maybeList,
  maybeObject,
  object,
  text,
  type Of,
} from '@/core/grammar/schema';
import { VALVE_KINDS } from '@/core/installation/parts';
import { kind, optional } from '../kind';

const item = object({
  key: text(40),
  text: text(300),
  /** The same in a word or two, for the sentence by which a thing is settled as a whole. */
  short: maybe(),
  /** Where a line that asks about no part is seen to: lines that follow each other there are settled together. */
  at: maybe(),
  hint: maybe(),
  /** Answered yes or no. Absent: done or not. */
  ask: mark(),
  /** An answer that leads to an outcome of its own instead of "done". */
  yes: maybe(),
  /** Repeats the item per appliance: all, those with a pilot, those with a lid; or per valve of the kinds named. */
  each: maybeAmong(['appliance', 'pilot', 'lid', 'valve', 'loop', 'register', 'intake', 'handler']),
  valves: maybeList(among(VALVE_KINDS)),
  /** The position this line puts its valves in: the position table of the facts follows it. */
  position: maybeAmong(['open', 'closed']),
  when: condition,
  /** A question with only one acceptable answer; the other is refused with this text. */
  must: maybeObject({ answer: among(['yes', 'no']), text: text() }),
  /** A timed sequence: an item is offered only when those before it are answered. */
  ordered: mark(),
  opens: yup.array().of(text(60)).optional(),
  settles: yup.array().of(text(60)).optional(),
  /** A condition of the allowance that a "yes" takes away. */
  denies: maybe(),
});
export type CheckItem = Of<typeof item>;

/** A list that is answered line by line before the way leads on. */
export const checks = kind('checks', object({ ...stageBase, items: list(item).min(1) }), {
  outcomes: (stage) => [
    'done',
    ...new Set(stage.items.flatMap((i) => (i.yes ? [i.yes] : []))),
    ...optional(stage),
  ],
  step: () => 'answer',
  outside: () => true,
  good: () => 'done',
  work: () => ({ hands: 1, each: { of: 'line', minutes: 0.5 } }),
  debts: (stage) => stage.items.flatMap((i) => [...(i.opens ?? []), ...(i.settles ?? [])]),
  lines: (stage, write) => {
    for (const i of stage.items)
      write.add(
        ['items', i.key],
        i.position ? 'Valve position' : 'Check',
        `${i.text}${i.each ? ` (each ${i.valves?.join(', ') ?? i.each})` : ''}${i.must ? ` (must be ${i.must.answer})` : ''}`,
        'removed',
        '',
        'remove',
      );
  },
});
