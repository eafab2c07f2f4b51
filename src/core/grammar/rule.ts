/** What a stage's rule is made of: limits, bands, lengths of time, and the graph of what follows an outcome. */
import * as yup from 'yup';
import { either } from './one-of';
import {
  among,
  condition,
  figure,
  figureOrFormula,
  formulaCall,
  hasFormula,
  list,
  mark,
  maybe,
  maybeAmong,
  maybeList,
  maybeNumber,
  maybeObject,
  number,
  object,
  record,
  text,
  type Of,
} from './schema';

/** `broken` at equality or above: a limit says which. */
export const limit = object({ value: figure(), broken: among(['at', 'above']), source: text() });
export type PackLimit = Of<typeof limit>;
/** A limit for each class of gauge. */
export const limits = record(limit, 'limits').optional();

const plainBand = object({ low: figure(), high: figure() });
export type Band = Of<typeof plainBand>;
const bandOrFormula = either((v) => (hasFormula(v) ? formulaCall : plainBand), [
  plainBand,
  formulaCall,
] as const);
const alternatives = maybeList(object({ when: condition.required(), band: bandOrFormula }));
const bandWith = object({ low: figure(), high: figure(), unless: alternatives });
const bandFormula = formulaCall.shape({ unless: alternatives }).noUnknown().strict(true);
/** A band: two figures, or a named formula; `unless` gives another under a condition (a school's alternative). */
export const band = either((v) => (hasFormula(v) ? bandFormula : bandWith), [bandWith, bandFormula] as const);
export const optionalBand = either(
  (v) => (v === undefined ? null : hasFormula(v) ? bandFormula : bandWith),
  [bandWith, bandFormula] as const,
  true,
);
export type BandSpec = Of<typeof band>;

export const plainMinutes = () => number().min(0.5).max(10080);
const rule = either((v) => (hasFormula(v) ? formulaCall : plainMinutes()), [
  plainMinutes(),
  formulaCall,
] as const);
const minutesSpec = object({
  rule,
  unless: maybeList(object({ when: condition.required(), rule })),
  house: maybeNumber().min(0.5).max(10080),
  houseSource: maybe(),
  plans: among(['rule', 'longest', 'apart']),
});
/**
 * Length of a hold. A plain number is the rule's own minutes. Otherwise: the rule (figure or formula), the firm's own
 * standard beside it, and what is planned: the longest of rule, house and need, the rule alone, or as long as two slopes need to
 * tell valve and leak apart.
 */
export const minutes = either((v) => (typeof v === 'object' && v !== null ? minutesSpec : plainMinutes()), [
  plainMinutes(),
  minutesSpec,
] as const);
export type MinutesSpec = Of<typeof minutes>;

const pressureByCase = object({
  value: figureOrFormula,
  unless: list(object({ when: condition.required(), value: figureOrFormula })),
});
export const pressureSpec = either(
  (v) => (typeof v === 'string' ? figure() : hasFormula(v) ? formulaCall : pressureByCase),
  [figure(), formulaCall, pressureByCase] as const,
);
export type PressureSpec = Of<typeof pressureSpec>;

/** A bound that a reading must keep: met at equality. */
export const accept = maybeObject({
  value: figureOrFormula,
  unless: maybeList(object({ when: condition.required(), value: figureOrFormula })),
  source: text(),
});
export type AcceptLimit = NonNullable<Of<typeof accept>>;
/** Water that may be added or drawn: the last without a condition, none: for the engineer. */
export const permitted = maybeList(object({ when: condition, volume: formulaCall, source: text() }));

/** A verdict that an outcome claims; the general rules in core/verdict may refuse it, never improve it. */
const findings = [
  'tight',
  'within-allowance',
  'not-tight',
  'void',
  'inconclusive',
  'refer',
  'pending',
] as const;
export type Finding = (typeof findings)[number];
const uses = ['in-use', 'limited', 'shut-off'] as const;
export type Use = (typeof uses)[number];
/** What follows an outcome: another stage or the end, perhaps with a finding. The first edge whose conditions hold is taken. */
const edge = object({
  to: maybe(),
  close: mark(),
  finds: maybeAmong(findings),
  because: maybe(),
  /** Taken only while this outcome has happened at most this many times. */
  upTo: maybeNumber().integer().min(1),
  /** Taken only while fewer repeats than this have been made since the count was last set to 0. */
  whileRepeats: maybeNumber().integer().min(1),
  /** Sets the count of failing holds to 0 (own kit leaked, gauge changed). */
  resets: mark(),
  /** Counts as one of the repeats of a failing hold. */
  repeat: mark(),
  /** Taken only where a valve that passes could hide a leak that matters, and two slopes could tell them apart. */
  mayHide: mark(),
  when: condition,
  /** How the system may be left: in use, in limited use until a date, or shut off. Absent: by the verdict. */
  use: maybeAmong(uses),
  /** Something was found that no good end survives: Inconclusive at best, with this text. */
  spoils: maybe().max(400),
  /** What a customer is told of it, instead of the procedure's own words. */
  plain: maybe().max(400),
  /** The class of danger is asked for, whatever the finding. */
  danger: mark(),
  /** Somebody else owns the fault: addressed by role, never repaired by the tester. */
  report: maybeObject({ to: text(80), text: text() }),
  /** Something is due later. */
  followUp: maybeObject({ days: number().integer().min(0).max(3660), text: text() }),
});
export type Edge = Of<typeof edge>;
const edges = either((v) => (Array.isArray(v) ? list(edge) : edge), [edge, list(edge)] as const);

/** What every stage has. */
export const stageBase = {
  title: text(80),
  /** The part it belongs to, where the procedure has parts. Absent: the whole run. */
  part: maybe(),
  /** Tools and consumables, for the kit list. */
  kit: yup.array().of(text(120)).strict(true).optional(),
  /** May be left out, with a reason that prints: outcome `skipped`. */
  optional: mark(),
  instruction: text(300),
  cautions: yup.array().of(text(60)).optional(),
  opens: yup.array().of(text(60)).optional(),
  why: maybe(),
  on: record(edges, 'edges'),
};
export type StageBase = Of<ReturnType<typeof object<typeof stageBase>>>;
