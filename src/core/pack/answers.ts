import type { Condition } from '@/core/grammar/schema';
import type { Choice } from './schema';

/** Whether a condition holds for a case and the answers given. */
export const answersHold = (
  when: Condition | undefined,
  caseKey: string,
  answers: Readonly<Record<string, string>>,
): boolean =>
  !when ||
  ((!when.case || when.case.includes(caseKey)) &&
    Object.entries(when.choice ?? {}).every(([key, options]) => options.includes(answers[key] ?? '')));

/** The options of a question that go with the answers given to the others. */
export const fittingOptions = (
  question: Choice,
  answers: Readonly<Record<string, string>>,
): Choice['options'] =>
  question.options.filter((o) => !o.onlyWith || answers[o.onlyWith.choice] === o.onlyWith.option);
