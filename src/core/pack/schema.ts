/**
 * The shape of a rule pack: what is checked here is what is published, and what its types are inferred from. Figures are
 * strings with their unit ("0.25 mbar") so that they stay exact; see docs/rule-packs.md. A procedure is a list of stages
 * and, per stage, a graph of what follows each outcome.
 */
import { FILLING_NAMES } from '@/core/fillings';
import { limit, pressureSpec } from '@/core/grammar/rule';
import {
  among,
  condition,
  figure,
  list,
  mark,
  maybe,
  maybeAmong,
  maybeList,
  maybeNumber,
  maybeObject,
  number,
  object,
  type Of,
  optionalFigure,
  record,
  plainName,
  text,
  textMap,
  words,
  yesNo,
} from '@/core/grammar/schema';
import { THING_KINDS } from '@/core/installation/parts';
import { stageSchema } from '@/core/kinds';
import * as yup from 'yup';
import { BROUGHT_GASES } from './brought';

/** A fact of the place that a procedure may ask for before it starts. */
const neededFacts = [
  'setPressure',
  'designPressure',
  'testDial',
  'rimHeight',
  'floorServed',
  'ductSurface',
  'ductPressure',
] as const;
export type NeededFact = (typeof neededFacts)[number];

/** What is looked at on each thing of a kind that is present. */
const inventoryKind = object({
  kind: among(THING_KINDS),
  title: text(80),
  required: mark(),
  points: list(object({ key: text(40), text: text(200), hint: maybe() })),
});
export type InventoryKind = Of<typeof inventoryKind>;

/** A class of leak rate at working pressure. The last has no upper bound. `below` is broken at equality. */
const rateClass = object({ key: text(40), title: text(80), below: optionalFigure(), source: text() });
export type RateClass = Of<typeof rateClass>;

/** A question on which schools differ: default, its reason and the alternatives, never silent. */
const choice = object({
  key: text(),
  question: text(),
  default: text(),
  reason: text(),
  options: list(
    object({
      key: text(),
      label: text(),
      /** Belongs to one answer of another question only, with the reason. */
      onlyWith: maybeObject({ choice: text(40), option: text(40), text: text() }),
      /** Not offered where the system has this access, with the reason. */
      unlessAccess: maybeObject({ access: text(40), text: text() }),
    }),
  ).min(2),
});
export type Choice = Of<typeof choice>;

/** What is being tested: decides whether the allowance table can apply at all. */
const testCase = object({
  key: text(),
  title: text(),
  hint: text(),
  allowance: yesNo(),
  appliances: yesNo(),
  leakThatMatters: figure().optional(),
});
export type Case = Of<typeof testCase>;

const debtRule = object({
  text: text(),
  /** Rings every so many minutes while it is owed and nothing is held: it must not be forgotten. */
  urgent: maybeNumber().integer().min(1).max(60),
  proof: maybeList(text(120)).min(1),
  unsafe: maybe(),
  /** Opens only when these are done: a list is put back in its order. */
  after: maybeList(text(60)),
  /** One line per appliance, each with one of these answers; a `poor` answer is a fault that is told to the user. */
  each: maybeAmong(['appliance']),
  answers: maybeList(object({ key: text(40), text: text(120), poor: mark() })).min(1),
});
export type DebtRule = Of<typeof debtRule>;

/** One part of a procedure that has its own result: the next begins only when this one ended well. */
const part = object({
  key: text(40),
  title: text(120),
  first: text(60),
  case: maybe(),
  /** Key of the earlier part whose drop bounds this one's. */
  noWorseThan: maybe(),
  /** The procedure the part was taken from, in a sequence: its rules judge its stages. */
  rule: yup.mixed().optional(),
});
export interface Part extends Omit<Of<typeof part>, 'rule'> {
  readonly rule?: PartRule;
}

export const procedureSchema = object({
  id: plainName(),
  title: text(120),
  summary: text(),
  trade: text(40),
  /** Said nothing; house packs of before carry it. */
  duty: maybe(),
  testMedium: text(80),
  /** Compressed gases brought along: their cautions stand before the work. */
  gases: maybeList(among(BROUGHT_GASES)),
  proves: list(text()),
  cannotProve: list(text()),
  /** What a sealer must hold for the record to be a certificate. */
  certificate: object({
    title: text(),
    licence: yesNo(),
    /** The office may print another true title: by the answer to this choice. */
    byChoice: maybeObject({ choice: text(40), titles: textMap().required() }),
  }),
  /** What was applied, in plain words: printed whatever the title says. */
  applied: maybe().max(300),
  /** Over what a level is counted. Absent: the slab. */
  levelOver: maybe().max(40),
  /** What fills the section: decides how a movement is turned into a leak. Absent: gas. */
  fills: maybeAmong(FILLING_NAMES),
  pressure: pressureSpec,
  /** Presses nothing that a pipe must bear: looked at, listened to, compared, blown through. No pipe need be known. */
  unpressed: mark(),
  /** For one section of a place, as its trade tells them apart. Absent: for the whole. */
  oneSection: mark(),
  /** Tests the tester's own kit: nothing is said of the installation. */
  ofKit: mark(),
  /** Only a part of a sequence: never offered alone. */
  partOnly: mark(),
  /** Which systems it is offered for. Absent: natural gas. */
  media: words(40),
  /** What the system is for, where its medium alone does not say. Absent: any. */
  suits: words(40),
  /**
   * What bounds the scope: a `live` valve needs its let-by proved before any Tight; `separated` says the section is
   * cut or capped, and its check list confirms it. Absent: live.
   */
  boundary: maybeAmong(['live', 'separated']),
  /** Facts that must be known before it starts: asked for, never defaulted, each with what to do where nobody knows it. */
  needs: maybeList(object({ fact: among(neededFacts), when: condition, text: text() })),
  /** Procedures of which one must have ended well on this system, by an earlier record or earlier in a sequence. */
  after: maybeObject({ procedures: list(text(60)).min(1), text: text() }),
  parts: maybeList(part),
  /** Rules on the gauge beyond the general ones. */
  gauge: maybeObject({ dialScaleMost: number().integer().min(1), source: text() }),
  /** What to look at and write down of what is present. Absent: nothing is asked. */
  inventory: maybeList(inventoryKind),
  /** After a failing run the situation is classed in words before anyone signs. */
  unsafe: mark(),
  /** What a verdict says to a customer, instead of the general words. */
  plain: textMap(),
  /** Practice on a simulated installation is offered. */
  practice: mark(),
  /** What a first practice opens: short, whole, and shows what the others are made of. */
  begins: mark(),
  /** How a measured rate is classed. */
  classes: maybeList(rateClass).min(2),
  adequacy: object({
    binding: yesNo(),
    leakThatMatters: figure(),
    /** At which pressure the leak that matters is meant. Absent: working pressure. */
    at: maybeAmong(['working', 'test']),
    source: text(),
  }),
  /** Standard uncertainty of an unlogged gas temperature, by length of hold (house figures). */
  temperatureDefault: object({
    perMinute: number().min(0),
    shortHoldMinutes: number(),
    shortHoldMost: number(),
    most: number(),
    source: text(),
  }),
  domain: object({
    /** Absent: any meter, or none. */
    meters: maybeList(object({ kind: text(40), label: text(120) })).min(1),
    largestSize: optionalFigure(),
    largestVolume: optionalFigure(),
    largestWorking: optionalFigure(),
    leastWorking: optionalFigure(),
    source: text(),
    outside: text(),
  }),
  perceptible: record(limit, 'limits'),
  zeroTolerance: object({ steps: number().integer().min(0), source: text() }),
  choices: list(choice),
  cases: list(testCase).min(1),
  /** Absent: no drop is permitted in any case. */
  allowance: maybeObject({
    source: text(),
    bands: list(object({ label: text(), upTo: figure() })),
    rows: list(
      object({
        meter: text(),
        drops: list(figure()),
        byChoice: maybeObject({ choice: text(), option: text(), drops: list(figure()) }),
      }),
    ),
    conditions: list(object({ key: text(), text: text() })),
  }),
  /** A good end of it makes a circuit ready for its charge: when it is to be looked over for leaks follows from that. */
  leakChecks: mark(),
  /** What a result is called where it proves something else than tightness: withstood, vacuum held. */
  called: maybeObject({ tight: maybe().max(40), 'not-tight': maybe().max(40) }),
  /** Why no drop is permitted, where there is no table. */
  nilSource: maybe(),
  first: text(40),
  stages: record(stageSchema, 'stages'),
  cautions: record(text(2000), 'cautions'),
  debts: record(debtRule, 'debts'),
});
type ProcedureFields = Omit<Of<typeof procedureSchema>, 'parts'>;
export interface Procedure extends ProcedureFields {
  readonly parts?: readonly Part[] | undefined;
}
export type PartRule = Omit<ProcedureFields, 'stages' | 'first' | 'cautions' | 'debts'>;

const sequence = object({
  id: plainName(),
  title: text(120),
  summary: text(),
  /** What is being tested, once for the whole. */
  cases: list(object({ key: text(40), title: text(), hint: text() })).min(1),
  parts: list(
    object({
      procedure: text(60),
      title: text(80),
      /** Which of the procedure's cases each case of the sequence means. */
      case: textMap().required(),
      /** Its drop may not be larger than the one measured in this earlier part (1 = the first). */
      noWorseThan: maybeNumber().integer().min(1),
    }),
  ).min(2),
});
export type Sequence = Of<typeof sequence>;

/** A stage of one run that must wait until a stage of the other is past, and what goes wrong otherwise. */
const coupling = object({
  procedure: text(60),
  stage: text(60),
  waitsFor: text(60),
  past: text(60),
  text: text(300),
});
export type Coupling = Of<typeof coupling>;
/** Two procedures done at once, and what ties them together. */
const beside = object({
  id: plainName(),
  title: text(120),
  summary: text(),
  runs: list(object({ procedure: text(60), title: text(80) })).length(2),
  couplings: list(coupling),
});
export type Beside = Of<typeof beside>;

/** An edit of a house pack that permits more than the pack it was copied from. Printed on every record it touches. */
const loosening = object({
  path: text(300),
  what: text(300),
  from: text(300),
  to: text(300),
  reason: text(500),
});
export type Loosening = Of<typeof loosening>;

export const packSchema = object({
  /** 2: every stage that waits for a pressure says what follows when it will not stand. */
  format: yup.number().strict(true).oneOf([1, 2]).required(),
  id: plainName(),
  version: text(20),
  title: text(),
  school: text(),
  edition: text(),
  author: text(),
  dated: text(10),
  notice: text(),
  sources: list(object({ key: text(), title: text(), clause: maybe() })).min(1),
  procedures: list(procedureSchema).min(1),
  /** Procedures that belong together on one visit, in their order: one run, each with its own result. */
  sequences: maybeList(sequence),
  /** Procedures that run side by side on one visit: a run each, with its own clock and record. */
  besides: maybeList(beside),
  /** A house pack: what it was copied from, and every edit that permits more than the original, with its reason. */
  basedOn: maybeObject({ id: plainName(), version: text(20), title: text() }),
  loosened: maybeList(loosening),
});
type PackFields = Omit<Of<typeof packSchema>, 'procedures' | 'format'>;
export interface Pack extends PackFields {
  readonly format: 1 | 2;
  readonly procedures: readonly Procedure[];
}
