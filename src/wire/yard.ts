/** What is asked of the Yard: begin a scenario, answer, conclude, pass time; and what it tells of itself. */
import { zone } from '@/core/run/field';
import { CAUSES, type End, type Trap, type Way, WAYS } from '@/core/yard/words';
import type { Debrief } from '@/core/yard/debrief';
import type { Live } from '@/core/yard/live';
import { oneOf } from '@/core/grammar/one-of';
import { object, text as words } from '@/core/grammar/schema';
import * as yup from 'yup';
import { shape, text, uuid } from './figure';

export const beginYardSchema = shape({
  run: uuid(),
  scenario: text(60),
  way: text(10).oneOf(Object.keys(WAYS)),
  /** What was set to somebody. */ task: yup.string().strict(true).max(40).optional(),
  zone: zone(),
});
export type BeginYard = yup.InferType<typeof beginYardSchema>;

const free = (most: number) => yup.string().strict(true).max(most).defined();
export const yardActSchema = oneOf('kind', {
  answered: object({ happening: words(60), answer: words(60) }),
  concluded: object({ cause: words(60).oneOf(Object.keys(CAUSES)), place: free(60), because: free(1000) }),
  /** Passes the time in which nothing is asked. */ pass: object({}),
  /** Ends it without an end. */ 'give-up': object({}),
});
export type YardRequest = yup.InferType<typeof yardActSchema>;

/** A scenario as it stands in a list: nothing of what it hides. */
export interface ScenarioCard {
  readonly id: string;
  readonly title: string;
  readonly trade: string;
  readonly level: number;
  readonly minutes: number;
  readonly traps: readonly Trap[];
  readonly briefing: string;
  readonly own: boolean;
  /** How it ended last for this person. */ readonly last: End | null;
  readonly times: number;
}
/** What the bench of a practice run asks again and again. */
export interface YardNow extends Live {
  readonly way: Way;
  /** ms on the line of the run */ readonly at: number;
}
export type { Debrief };
