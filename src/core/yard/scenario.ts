/**
 * A scenario of practice as data: what a person is told, what stands there, what is hidden, what comes in between, what a good conduct
 * does and what would be dangerous. Its schema is published; see docs/scenarios.md.
 */
import {
  among,
  figure,
  list,
  mark,
  maybe,
  maybeList,
  maybeNumber,
  maybeObject,
  number,
  object,
  type Of,
  optionalFigure,
  plainName,
  text,
  textMap,
  words,
} from '@/core/grammar/schema';
import { either, jsonSchema, oneOf, written } from '@/core/grammar/one-of';
import { TRADES } from '@/core/trades';
import { WORDS } from '@/core/verdict/words';
import * as yup from 'yup';
import { ABOUT, CAUSES, type About, type Cause, TRAPS, type Trap } from './words';
import { type Condition, conditionSchema } from './condition';
import { type Hidden, hiddenSchema } from './hidden';

const keys = <T extends object>(o: T) => Object.keys(o) as (keyof T & string)[];
const anyObject = (name: string) =>
  yup
    .mixed<Record<string, unknown>>()
    .meta(written(() => ({ type: 'object' })))
    .test(
      name,
      `\${path} must be an object: ${name}.`,
      (v) => v === undefined || (typeof v === 'object' && v !== null && !Array.isArray(v)),
    );

/** One thing that is asked of a conduct. */
export const criterionSchema = object({
  id: plainName(),
  about: among(keys(ABOUT)),
  /** As it is told where it was done. */ text: text(200),
  must: conditionSchema,
  /** Only where this is so: otherwise it is not asked. */ only: conditionSchema
    .optional()
    .default(undefined) as unknown as yup.ObjectSchema<Condition | undefined>,
  /** Why it matters. */ why: text(600),
  /** What would have happened: not to do it ends the practice. */ danger: maybe(),
});
export type Criterion = Of<typeof criterionSchema>;

/** Something that comes in between. */
const happeningSchema = object({
  id: plainName(),
  when: object({
    /** This stage was reached, or a hold of it was begun. */
    stage: maybe(),
    holding: mark(),
    /** So long after that; without a stage: after the beginning. */
    after: optionalFigure(),
    /** The gauge shows so much, or more. */
    over: optionalFigure(),
    /** Another one came about and was answered so. */
    answered: maybeObject({ happening: text(60), is: text(60) }),
  }),
  says: text(600),
  /** Who says it, where somebody does. */ who: maybe(),
  changes: anyObject('what is hidden from now on').optional(),
  answers: maybeList(
    object({ key: plainName(), text: text(200), good: mark(), danger: maybe(), then: maybe() }),
  ),
});
export type Happening = Of<typeof happeningSchema>;

/** One thing done besides at a stage of a conduct, in the order given. */
const stepSchema = oneOf('do', {
  hand: object({ act: text(20), value: maybe(), id: maybe() }),
  entry: object({ entry: anyObject('an entry as the log has it').required() }),
  wait: object({ for: figure() }),
  /** The stage is done by what stands before this. */ done: object({}),
  stop: object({ reason: text(40), text: maybe() }),
});
/** How somebody conducts it: by the bench, but for what is said here. */
export const conductSchema = object({
  name: text(120),
  good: mark(),
  /** Criteria that catch it, by id. */ caught: words(),
  /** Answers to lines, results of looks, pressures raised to, by stage or line. */
  answers: textMap(),
  says: textMap(),
  raises: textMap(),
  skips: textMap(),
  steps: yup
    .mixed<Record<string, Of<typeof stepSchema>[]>>()
    .optional()
    .meta(
      written(() => ({
        type: 'object',
        additionalProperties: { type: 'array', items: jsonSchema(stepSchema) },
      })),
    )
    .test('steps', '', function (v) {
      if (v === undefined) return true;
      try {
        for (const [key, value] of Object.entries(v))
          list(stepSchema).label(key).validateSync(value, { strict: true });
        return true;
      } catch (error) {
        return this.createError({ message: `${this.path}: ${(error as Error).message}` });
      }
    }),
  tells: textMap(),
  concludes: maybeObject({ cause: among(keys(CAUSES)), place: maybe() }),
  /** The gauge is tapped before each reading. */ taps: mark(),
  /** The ring that is on the fan is never changed. */ leavesRing: mark(),
  leavesOwed: mark(),
});
export type Conduct = Of<typeof conductSchema>;

const installation = either(
  (v) => (typeof v === 'string' ? text(60) : anyObject('an installation as it is written')),
  [text(60), anyObject('an installation as it is written')] as const,
);
const shape = {
  format: number().oneOf([1]),
  id: plainName(),
  title: text(80),
  trade: among(TRADES.map((t) => t.name)),
  /** 1 for whoever begins, 3 for an old hand. */ level: number().integer().min(1).max(3),
  /** How long it takes, about, min. */ minutes: number().integer().min(1).max(600),
  traps: list(among(keys(TRAPS))).min(1),
  briefing: text(2000),
  installation,
  pack: text(60),
  procedure: text(60),
  case: text(60),
  choices: textMap(),
  section: maybe(),
  seed: maybeNumber().integer().min(0),
  /** Steps of the gauge that lies there, where it is not the usual stand-in. */
  gauge: maybeObject({
    name: text(60),
    kind: among(['digital', 'dial', 'liquid']),
    least: figure(),
    greatest: figure(),
    resolution: figure(),
    calibrationDue: maybe(),
  }),
  /** By the kind of installation: its own schema checks it when it is set up. */
  hidden: yup
    .mixed<Record<string, unknown>>()
    .required()
    .meta(written(() => ({ anyOf: Object.values(hiddenSchema).map(jsonSchema) })))
    .test(
      'hidden',
      '${path} must be an object: what is hidden.',
      (v) => typeof v === 'object' && v !== null && !Array.isArray(v),
    ),
  happenings: maybeList(happeningSchema),
  /** What is true, and what follows from it. */
  truth: object({
    result: list(among(keys(WORDS))).min(1),
    cause: list(among(keys(CAUSES))).min(1),
    place: words(),
    tells: text(1500),
  }),
  /** Criteria by their name in the common rubric, or written out. */
  criteria: list(
    either((v) => (typeof v === 'string' ? text(60) : criterionSchema), [text(60), criterionSchema] as const),
  ).min(1),
  /** Criteria without which a right result was luck. */
  proof: list(text(60)),
  conducts: list(conductSchema),
};
export const scenarioSchema = object(shape);
export type Scenario = Omit<
  Of<typeof scenarioSchema>,
  'hidden' | 'criteria' | 'installation' | 'traps' | 'truth'
> & {
  readonly hidden: Hidden;
  readonly criteria: readonly (string | Criterion)[];
  readonly installation: string | Readonly<Record<string, unknown>>;
  readonly traps: readonly Trap[];
  readonly truth: {
    readonly result: readonly (keyof typeof WORDS)[];
    readonly cause: readonly Cause[];
    readonly place?: readonly string[];
    readonly tells: string;
  };
};
export type { About };
/** Checks what somebody wrote. @throws yup.ValidationError with the path of what is wrong */
export const parseScenario = (value: unknown): Scenario =>
  scenarioSchema.validateSync(value, { strict: true, abortEarly: true }) as unknown as Scenario;
