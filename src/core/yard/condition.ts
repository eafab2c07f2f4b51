/** When something that a scenario asks of its conduct is so: written as data, answered from the account of the run. */
import {
  figure,
  maybe,
  maybeList,
  maybeNumber,
  maybeObject,
  object,
  type Of,
  optionalFigure,
  text,
  words,
} from '@/core/grammar/schema';
import { written } from '@/core/grammar/one-of';
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { convert, type Unit } from '@/core/quantity/unit';
import * as yup from 'yup';
import type { Account, Told } from './account';

/** Fields with the values they may have. */
function oneOfEach() {
  return yup
    .mixed<Record<string, (string | boolean | number)[]>>()
    .optional()
    .meta(written(() => ({ type: 'object', additionalProperties: { type: 'array' } })))
    .test(
      'one-of-each',
      ({ path }) => `${path} must map fields to lists of values.`,
      (v) =>
        v === undefined || (typeof v === 'object' && v !== null && Object.values(v).every(Array.isArray)),
    );
}
/** One thing in the account: an entry at the bench, a hand's work, something that happened, a stage that was reached. */
export const matchSchema = object({
  entry: maybe(),
  hand: maybe(),
  happened: maybe(),
  stage: maybe(),
  /** Fields that it must have: one of these values each. */ is: oneOfEach(),
  /** How the installation must have stood then. */ seen: oneOfEach(),
});
export type Match = Of<typeof matchSchema>;
const maybeMatch = () => matchSchema.optional().default(undefined);

const shape = {
  /** It is in the account, in the window. */ did: maybeMatch(),
  /** It is not in it, in the window. */ never: maybeMatch(),
  /** The window: before the first of this, after the first of that, and so long after it. */
  before: maybeMatch(),
  after: maybeMatch(),
  within: optionalFigure(),
  /** How often it must be there. */ times: maybeNumber(),
  /** The result of the run. */ result: words(),
  /** How a stage ended at last. */
  outcome: maybeObject({ stage: text(60), is: yup.array().of(text(60)).required() }),
  /** What a hold of a stage began or ended with, at the last time. */
  reading: maybeObject({ stage: text(60), at: text(10), below: optionalFigure(), above: optionalFigure() }),
  /** A stage was held for so long, at the longest. */
  held: maybeObject({ stage: text(60), atLeast: figure() }),
  cause: words(),
  place: words(),
  answered: maybeObject({ happening: text(60), is: yup.array().of(text(60)).required() }),
  /** Nothing is owed when it ends. */ owes: maybeAmongNothing(),
};
function maybeAmongNothing() {
  return yup.string().strict(true).oneOf(['nothing']).optional();
}
export interface Condition {
  readonly did?: Match | undefined;
  readonly never?: Match | undefined;
  readonly before?: Match | undefined;
  readonly after?: Match | undefined;
  readonly within?: string | undefined;
  readonly times?: number | undefined;
  readonly result?: readonly string[] | undefined;
  readonly outcome?: { readonly stage: string; readonly is: readonly string[] } | undefined;
  readonly reading?:
    | {
        readonly stage: string;
        readonly at: string;
        readonly below?: string | undefined;
        readonly above?: string | undefined;
      }
    | undefined;
  readonly held?: { readonly stage: string; readonly atLeast: string } | undefined;
  readonly cause?: readonly string[] | undefined;
  readonly place?: readonly string[] | undefined;
  readonly answered?: { readonly happening: string; readonly is: readonly string[] } | undefined;
  readonly owes?: 'nothing' | undefined;
  readonly all?: readonly Condition[] | undefined;
  readonly any?: readonly Condition[] | undefined;
}
export const conditionSchema: yup.ObjectSchema<Condition> = object({
  ...shape,
  all: maybeList(yup.lazy(() => conditionSchema) as unknown as yup.AnySchema).meta(
    written(() => ({ type: 'array', items: { type: 'object' } })),
  ),
  any: maybeList(yup.lazy(() => conditionSchema) as unknown as yup.AnySchema).meta(
    written(() => ({ type: 'array', items: { type: 'object' } })),
  ),
}) as unknown as yup.ObjectSchema<Condition>;

/** Whether it is so, and the moment that decided it, ms; null where nothing did. */
export interface Answered {
  readonly met: boolean;
  readonly at: number | null;
}
const same = (value: unknown, known: readonly unknown[]): boolean =>
  Array.isArray(value) ? value.some((v) => known.includes(v)) : known.includes(value);
export function matches(told: Told, m: Match): boolean {
  if (m.stage !== undefined && told.stage !== m.stage) return false;
  if (m.entry !== undefined && told.entry?.kind !== m.entry) return false;
  if (m.hand !== undefined && !(told.act?.kind === 'hand' && told.act.work.act === m.hand)) return false;
  if (m.happened !== undefined && !(told.act?.kind === 'happened' && told.act.happening === m.happened))
    return false;
  // a stage alone is the reaching of it
  if (m.entry === undefined && m.hand === undefined && m.happened === undefined && told.reached !== m.stage)
    return false;
  const fields = (told.entry ?? (told.act?.kind === 'hand' ? told.act.work : {})) as Record<string, unknown>;
  const stood = (told.seen ?? {}) as unknown as Record<string, unknown>;
  return (
    Object.entries(m.is ?? {}).every(([key, known]) => same(fields[key], known)) &&
    Object.entries(m.seen ?? {}).every(([key, known]) => same(stood[key], known))
  );
}
const inUnit = (words: string, unit: Unit): number => {
  const e = parseWithUnit(words);
  return convert(toNumber(e), e.unit, unit);
};
const first = (told: readonly Told[], m: Match): Told | undefined => told.find((t) => matches(t, m));
const yes = (at: number | null = null): Answered => ({ met: true, at });
const not = (at: number | null = null): Answered => ({ met: false, at });

/** The window of a condition, and the moment that closed it. */
function windowOf(account: Account, c: Condition): { told: readonly Told[]; closed: number | null } {
  let { told } = account;
  if (c.after) {
    const from = first(told, c.after);
    if (!from) return { told: [], closed: null };
    told = told.slice(told.indexOf(from) + 1);
    if (c.within) {
      const until = from.at + inUnit(c.within, 's') * 1000;
      const inside = told.filter((t) => t.at <= until);
      return { told: inside, closed: account.until > until ? until : null };
    }
  }
  const end = c.before && first(told, c.before);
  return end ? { told: told.slice(0, told.indexOf(end)), closed: end.at } : { told, closed: null };
}
/** Whether a condition is met by a run as it went. */
export function answerOf(account: Account, c: Condition): Answered {
  const parts: Answered[] = [];
  const { told, closed } = windowOf(account, c);
  if (c.did) {
    const found = told.filter((t) => matches(t, c.did!));
    parts.push(found.length >= (c.times ?? 1) ? yes(found[(c.times ?? 1) - 1]?.at ?? null) : not(closed));
  }
  if (c.never) {
    const found = first(told, c.never);
    parts.push(found ? not(found.at) : yes());
  }
  if (c.result)
    parts.push({ met: account.result !== null && c.result.includes(account.result), at: account.ended });
  if (c.outcome) {
    const stage = c.outcome.stage;
    const left = account.left.filter((l) => l.stage === stage).at(-1);
    parts.push({ met: left !== undefined && c.outcome.is.includes(left.outcome), at: left?.at ?? null });
  }
  if (c.reading) parts.push(readingOf(account, c.reading));
  if (c.held) {
    const { stage, atLeast } = c.held;
    const longest = Math.max(0, ...account.holds.filter((h) => h.stage === stage).map((h) => h.ms));
    const hold = account.holds.find((h) => h.stage === stage && h.ms === longest);
    parts.push({ met: longest >= inUnit(atLeast, 's') * 1000, at: hold ? hold.from + hold.ms : null });
  }
  if (c.cause) parts.push({ met: account.cause !== null && c.cause.includes(account.cause), at: null });
  if (c.place) parts.push({ met: account.place !== null && c.place.includes(account.place), at: null });
  if (c.answered) {
    const { happening, is } = c.answered;
    const said = account.told.find((t) => t.act?.kind === 'answered' && t.act.happening === happening);
    const key = said?.act?.kind === 'answered' ? said.act.answer : null;
    parts.push({ met: key !== null && is.includes(key), at: said?.at ?? null });
  }
  if (c.owes) parts.push({ met: account.owes === 0, at: account.ended });
  if (c.all) parts.push(...c.all.map((x) => answerOf(account, x)));
  if (c.any) {
    const each = c.any.map((x) => answerOf(account, x));
    parts.push(each.find((x) => x.met) ?? each.find((x) => x.at !== null) ?? not());
  }
  const wrong = parts.filter((p) => !p.met);
  if (!wrong.length) return yes(parts.at(-1)?.at ?? null);
  const moments = wrong.flatMap((p) => (p.at === null ? [] : [p.at]));
  return not(moments.length ? Math.min(...moments) : null);
}
function readingOf(account: Account, c: NonNullable<Condition['reading']>): Answered {
  const hold = account.holds.filter((h) => h.stage === c.stage).at(-1);
  const figureOf = c.at === 'end' ? hold?.end : hold?.start;
  if (!hold || !figureOf) return not();
  const value = toNumber(figureOf);
  const at = c.at === 'end' ? hold.from + hold.ms : hold.from;
  const low = c.above === undefined || value > inUnit(c.above, figureOf.unit);
  const high = c.below === undefined || value < inUnit(c.below, figureOf.unit);
  return { met: low && high, at };
}
