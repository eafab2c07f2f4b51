/** What is asked of the Yard: begin a scenario, answer, conclude, pass time; and what it tells of itself. */
import { zone } from '@/core/run/field';
import { BEGUN, CAUSES, type End, type Trap, type Way } from '@/core/yard/words';
import type { Debrief } from '@/core/yard/debrief';
import type { Live } from '@/core/yard/live';
import { oneOf } from '@/core/grammar/one-of';
import { object, text as words } from '@/core/grammar/schema';
import type { Score } from '@/core/yard/progress';
import { type About, type Question, QUESTIONS, type Solution } from '@/core/yard/questions/question';
import * as yup from 'yup';
import { shape, text, uuid } from './figure';

export const beginYardSchema = shape({
  run: uuid(),
  scenario: text(60),
  way: text(10).oneOf(BEGUN),
  /** What was set to somebody. */ task: yup.string().strict(true).max(40).optional(),
  zone: zone(),
});
export type BeginYard = yup.InferType<typeof beginYardSchema>;

const free = (most: number) => yup.string().strict(true).max(most).defined();
export const againSchema = shape({ run: uuid() });
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

export const setTaskSchema = shape({
  id: uuid(),
  person: uuid(),
  scenario: text(60),
  way: text(10).oneOf(BEGUN),
  /** Something else than the scenario hides, by name. */ fault: yup.string().strict(true).max(40).optional(),
  minutes: yup.number().strict(true).integer().min(1).max(600).optional(),
  due: text(10).matches(/^\d{4}-\d{2}-\d{2}$/, 'Say until which day, like 2026-12-04.'),
  note: free(300),
});
export type SetTask = yup.InferType<typeof setTaskSchema>;
export const trainSchema = oneOf('kind', {
  hidden: object({ fault: words(40) }),
  note: object({ text: words(1000) }),
  paused: object({ paused: yup.boolean().strict(true).required() }),
  signed: object({ text: free(1000) }),
});
export type TrainRequest = yup.InferType<typeof trainSchema>;

/** A task as it stands on a board: nothing of what it hides. */
export interface TaskRow {
  readonly id: string;
  readonly person: string;
  readonly name: string;
  readonly title: string;
  readonly trade: string;
  readonly way: Way;
  readonly minutes: number | null;
  readonly due: string;
  readonly note: string;
  readonly run: string | null;
  readonly stands: 'set' | 'running' | 'to sign' | 'done';
}
export interface Board {
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly mastered: number;
    readonly met: number;
    readonly due: number;
    readonly of: number;
    /** ms */ readonly last: number | null;
  }[];
  readonly tasks: readonly TaskRow[];
  /** Persons by the name of their group. */
  readonly groups: Readonly<Record<string, readonly string[]>>;
  readonly running: readonly {
    readonly run: string;
    readonly title: string;
    readonly name: string;
    readonly way: Way;
    readonly made: number;
  }[];
}
/** A practice run as the one who trains sees it. */
export interface Watched {
  readonly live: YardNow;
  readonly name: string;
  readonly stage: string;
  /** ms */ readonly holdEnds: number | null;
  readonly shown: number;
  readonly perfect: number;
  /** l/h */ readonly leaking: number | null;
  readonly unit: string;
  readonly decimals: number;
  readonly said: readonly string[];
  readonly hidden: string;
  readonly faults: Readonly<Record<string, string>>;
  readonly result: string | null;
  readonly end: End;
  readonly signed: boolean;
}

export const statementSchema = shape({ id: uuid(), person: uuid() });
export type StatementRequest = yup.InferType<typeof statementSchema>;
export const groupSchema = shape({
  id: uuid(),
  person: uuid(),
  name: text(60),
  within: yup.boolean().strict(true).required(),
});
export type GroupRequest = yup.InferType<typeof groupSchema>;

/** What came of one conduct of a scenario that was tried. */
export interface TriedConduct {
  readonly name: string;
  readonly good: boolean | undefined;
  readonly end: End;
  readonly result: string | null;
  /** Criteria that it missed, by id. */ readonly missed: readonly string[];
  /** Why the scenario cannot be brought in so. */ readonly trouble: string | null;
}
export const importScenarioSchema = shape({ text: text(400_000) });

export const askSchema = shape({ about: text(10).oneOf(Object.keys(QUESTIONS)) });
export const answerSchema = shape({
  about: text(10).oneOf(Object.keys(QUESTIONS)),
  /** The place in the row of one's questions of this kind. */ n: yup
    .number()
    .strict(true)
    .integer()
    .min(0)
    .required(),
  /** A fingerprint of what was asked. */ mark: text(16),
  choice: yup.string().strict(true).max(60).optional(),
  reason: yup.string().strict(true).max(120).optional(),
  figure: yup.number().strict(true).optional(),
});
export type AnswerRequest = yup.InferType<typeof answerSchema>;
/** A question as it was put to somebody. */
export interface Asked {
  readonly about: About;
  readonly n: number;
  readonly mark: string;
  readonly question: Question;
  readonly score: Score;
}
export interface Told {
  readonly right: boolean;
  readonly parts: { readonly choice: boolean; readonly reason: boolean; readonly figure: boolean };
  readonly solution: Solution;
  readonly score: Score;
}
