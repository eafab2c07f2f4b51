import type { Broken } from '@/core/quantity/exact';
import type { GaugeClass } from '@/core/instrument/gauge';

/**
 * The shape of a rule pack. Figures are strings with their unit ("0.25 mbar") so that they stay exact; see
 * docs/rule-packs.md. A procedure is a list of stages and, per stage, a graph of what follows each outcome.
 */
export interface Pack {
  /** 2: every stage that waits for a pressure says what follows when it will not stand. */
  readonly format: 1 | 2;
  readonly id: string;
  readonly version: string;
  readonly title: string;
  readonly school: string;
  readonly edition: string;
  readonly author: string;
  readonly dated: string;
  readonly notice: string;
  readonly sources: readonly { readonly key: string; readonly title: string; readonly clause?: string }[];
  readonly procedures: readonly Procedure[];
  /** Procedures that belong together on one visit, in their order: one run, each with its own result. */
  readonly sequences?: readonly Sequence[];
  /** Procedures that run side by side on one visit: a run each, with its own clock and record. */
  readonly besides?: readonly Beside[];
  /** A house pack: what it was copied from, and every edit that permits more than the original, with its reason. */
  readonly basedOn?: { readonly id: string; readonly version: string; readonly title: string };
  readonly loosened?: readonly Loosening[];
}

/** An edit of a house pack that permits more than the pack it was copied from. Printed on every record it touches. */
export interface Loosening {
  readonly path: string;
  readonly what: string;
  readonly from: string;
  readonly to: string;
  readonly reason: string;
}

export interface PackLimit {
  readonly value: string;
  readonly broken: Broken;
  readonly source: string;
}

/** A named formula of the core with its arguments, all as text ("3 psi", "1.5"). See core/plan/formulas. */
export interface FormulaCall {
  readonly formula: string;
  readonly args?: Readonly<Record<string, string>>;
}

export type PressureSpec =
  | string
  | FormulaCall
  | {
      readonly value: string | FormulaCall;
      readonly unless: readonly { readonly when: Condition; readonly value: string | FormulaCall }[];
    };

/** When a line, an edge or an alternative applies: every part that is given must hold. */
export interface Condition {
  readonly case?: readonly string[];
  readonly choice?: Readonly<Record<string, readonly string[]>>;
}

export interface Sequence {
  readonly id: string;
  readonly title: string;
  readonly summary: string;
  /** What is being tested, once for the whole. */
  readonly cases: readonly { readonly key: string; readonly title: string; readonly hint: string }[];
  readonly parts: readonly SequencePart[];
}
export interface SequencePart {
  readonly procedure: string;
  readonly title: string;
  /** Which of the procedure's cases each case of the sequence means. */
  readonly case: Readonly<Record<string, string>>;
  /** Its drop may not be larger than the one measured in this earlier part (1 = the first). */
  readonly noWorseThan?: number;
}

/** Two procedures done at once, and what ties them together. */
export interface Beside {
  readonly id: string;
  readonly title: string;
  readonly summary: string;
  readonly runs: readonly { readonly procedure: string; readonly title: string }[];
  readonly couplings: readonly Coupling[];
}
/** A stage of one run that must wait until a stage of the other is past, and what goes wrong otherwise. */
export interface Coupling {
  readonly procedure: string;
  readonly stage: string;
  readonly waitsFor: string;
  readonly past: string;
  readonly text: string;
}

/** One part of a procedure that has its own result: the next begins only when this one ended well. */
export interface Part {
  readonly key: string;
  readonly title: string;
  readonly first: string;
  /** The procedure the part was taken from, in a sequence: its rules judge its stages. */
  readonly rule?: PartRule;
  readonly case?: string;
  /** Key of the earlier part whose drop bounds this one's. */
  readonly noWorseThan?: string;
}
/** A fact of the place that a procedure may ask for before it starts. */
export type NeededFact = 'setPressure' | 'designPressure' | 'testDial' | 'rimHeight';
export type PartRule = Omit<Procedure, 'stages' | 'first' | 'cautions' | 'debts' | 'parts'>;

export interface Procedure {
  readonly id: string;
  readonly title: string;
  readonly summary: string;
  readonly trade: string;
  readonly duty: string;
  readonly testMedium: string;
  readonly proves: readonly string[];
  readonly cannotProve: readonly string[];
  /** What a sealer must hold for the record to be a certificate. */
  readonly certificate: {
    readonly title: string;
    readonly licence: boolean;
    /** The office may print another true title: by the answer to this choice. */
    readonly byChoice?: { readonly choice: string; readonly titles: Readonly<Record<string, string>> };
  };
  /** What was applied, in plain words: printed whatever the title says. */
  readonly applied?: string;
  /** What fills the section: decides how a movement is turned into a leak. Absent: gas. */
  readonly fills?: 'liquid' | 'level';
  /** Over what a level is counted. Absent: the slab. */
  readonly levelOver?: string;
  readonly pressure: PressureSpec;
  /** Only a part of a sequence: never offered alone. */
  readonly partOnly?: true;
  /** Which systems it is offered for. Absent: natural gas. */
  readonly media?: readonly string[];
  /** What the system is for, where its medium alone does not say. Absent: any. */
  readonly suits?: readonly string[];
  /**
   * What bounds the scope: a `live` valve needs its let-by proved before any Tight; `separated` says the section is
   * cut or capped, and its check list confirms it. Absent: live.
   */
  readonly boundary?: 'live' | 'separated';
  /** Facts that must be known before it starts: asked for, never defaulted, each with what to do where nobody knows it. */
  readonly needs?: readonly { readonly fact: NeededFact; readonly when?: Condition; readonly text: string }[];
  /** Procedures of which one must have ended well on this system, by an earlier record or earlier in a sequence. */
  readonly after?: { readonly procedures: readonly string[]; readonly text: string };
  readonly parts?: readonly Part[];
  /** Rules on the gauge beyond the general ones. */
  readonly gauge?: { readonly dialScaleMost: number; readonly source: string };
  /** What to look at and write down of what is present. Absent: nothing is asked. */
  readonly inventory?: readonly InventoryKind[];
  /** After a failing run the situation is classed in words before anyone signs. */
  readonly unsafe?: true;
  /** What a verdict says to a customer, instead of the general words. */
  readonly plain?: Partial<Record<string, string>>;
  /** Practice on a simulated installation is offered. */
  readonly practice?: true;
  /** How a measured rate is classed: see the `leak-rate` role. */
  readonly classes?: readonly RateClass[];
  readonly adequacy: {
    readonly binding: boolean;
    readonly leakThatMatters: string;
    /** At which pressure the leak that matters is meant. Absent: working pressure. */
    readonly at?: 'working' | 'test';
    readonly source: string;
  };
  /** Standard uncertainty of an unlogged gas temperature, by length of hold (house figures). */
  readonly temperatureDefault: {
    readonly perMinute: number;
    readonly shortHoldMinutes: number;
    readonly shortHoldMost: number;
    readonly most: number;
    readonly source: string;
  };
  readonly domain: {
    /** Absent: any meter, or none. */
    readonly meters?: readonly { readonly kind: string; readonly label: string }[];
    readonly largestSize?: string;
    readonly largestVolume?: string;
    readonly largestWorking?: string;
    readonly leastWorking?: string;
    readonly source: string;
    readonly outside: string;
  };
  readonly perceptible: Partial<Record<GaugeClass, PackLimit>>;
  readonly zeroTolerance: { readonly steps: number; readonly source: string };
  readonly choices: readonly Choice[];
  readonly cases: readonly Case[];
  /** Absent: no drop is permitted in any case. */
  readonly allowance?: {
    readonly source: string;
    readonly bands: readonly { readonly label: string; readonly upTo: string }[];
    readonly rows: readonly {
      readonly meter: string;
      readonly drops: readonly string[];
      readonly byChoice?: {
        readonly choice: string;
        readonly option: string;
        readonly drops: readonly string[];
      };
    }[];
    readonly conditions: readonly { readonly key: string; readonly text: string }[];
  };
  /** Why no drop is permitted, where there is no table. */
  readonly nilSource?: string;
  readonly first: string;
  readonly stages: Readonly<Record<string, Stage>>;
  readonly cautions: Readonly<Record<string, string>>;
  readonly debts: Readonly<Record<string, DebtRule>>;
}

export interface DebtRule {
  readonly text: string;
  /** Rings every so many minutes while it is owed and nothing is held: it must not be forgotten. */
  readonly urgent?: number;
  readonly proof?: readonly string[];
  readonly unsafe?: string;
  /** Opens only when these are done: a list is put back in its order. */
  readonly after?: readonly string[];
  /** One line per appliance, each with one of these answers; a `poor` answer is a fault that is told to the user. */
  readonly each?: 'appliance';
  readonly answers?: readonly { readonly key: string; readonly text: string; readonly poor?: true }[];
}

/** What is looked at on each thing of a kind that is present. */
export interface InventoryKind {
  readonly kind: 'meter' | 'appliance' | 'regulator' | 'tank' | 'connector' | 'other';
  readonly title: string;
  readonly required?: true;
  readonly points: readonly { readonly key: string; readonly text: string; readonly hint?: string }[];
}

/** A class of leak rate at working pressure. The last has no upper bound. `below` is broken at equality. */
export interface RateClass {
  readonly key: string;
  readonly title: string;
  readonly below?: string;
  readonly source: string;
}

/** A question on which schools differ: default, its reason and the alternatives, never silent. */
export interface Choice {
  readonly key: string;
  readonly question: string;
  readonly default: string;
  readonly reason: string;
  readonly options: readonly {
    readonly key: string;
    readonly label: string;
    /** Belongs to one answer of another question only, with the reason. */
    readonly onlyWith?: { readonly choice: string; readonly option: string; readonly text: string };
    /** Not offered where the system has this access, with the reason. */
    readonly unlessAccess?: { readonly access: string; readonly text: string };
  }[];
}
/** What is being tested: decides whether the allowance table can apply at all. */
export interface Case {
  readonly key: string;
  readonly title: string;
  readonly hint: string;
  readonly allowance: boolean;
  readonly appliances: boolean;
  readonly leakThatMatters?: string;
}

/** A verdict that an outcome claims; the general rules in core/verdict may refuse it, never improve it. */
export type Finding =
  'tight' | 'within-allowance' | 'not-tight' | 'void' | 'inconclusive' | 'refer' | 'pending';
/** What follows an outcome: another stage or the end, perhaps with a finding. The first edge whose conditions hold is taken. */
export interface Edge {
  readonly to?: string;
  readonly close?: true;
  readonly finds?: Finding;
  readonly because?: string;
  /** Taken only while this outcome has happened at most this many times. */
  readonly upTo?: number;
  /** Taken only while fewer repeats than this have been made since the count was last set to 0. */
  readonly whileRepeats?: number;
  /** Sets the count of failing holds to 0 (own kit leaked, gauge changed). */
  readonly resets?: true;
  /** Counts as one of the repeats of a failing hold. */
  readonly repeat?: true;
  /** Something was found that no good end survives: Inconclusive at best, with this text. */
  readonly spoils?: string;
  /** Taken only under this condition. */
  readonly when?: Condition;
  /** How the system may be left: in use, in limited use until a date, or shut off. Absent: by the verdict. */
  readonly use?: Use;
  /** What a customer is told of it, instead of the procedure's own words. */
  readonly plain?: string;
  /** The class of danger is asked for, whatever the finding. */
  readonly danger?: true;
  /** Somebody else owns the fault: addressed by role, never repaired by the tester. */
  readonly report?: { readonly to: string; readonly text: string };
  /** Something is due later. */
  readonly followUp?: { readonly days: number; readonly text: string };
}
export type Use = 'in-use' | 'limited' | 'shut-off';
export type StageKind =
  | 'checks'
  | 'zero'
  | 'fill'
  | 'hold'
  | 'observe'
  | 'isolate-and-repeat'
  | 'dial'
  | 'joints'
  | 'inventory'
  | 'volume'
  | 'pump'
  | 'draw-down';

interface StageBase {
  readonly kind: StageKind;
  /** The part it belongs to, where the procedure has parts. Absent: the whole run. */
  readonly part?: string;
  /** Tools and consumables, for the kit list. */
  readonly kit?: readonly string[];
  /** May be left out, with a reason that prints: outcome `skipped`. */
  readonly optional?: true;
  readonly title: string;
  readonly instruction: string;
  readonly cautions?: readonly string[];
  readonly opens?: readonly string[];
  readonly why?: string;
  readonly on: Readonly<Record<string, Edge | readonly Edge[]>>;
}
export interface CheckItem {
  readonly key: string;
  readonly text: string;
  readonly hint?: string;
  /** `confirm` is done or not; `ask` is answered yes or no. */
  readonly ask?: true;
  /** An answer that leads to an outcome of its own instead of "done". */
  readonly yes?: string;
  /** Repeats the item per appliance: all, those with a pilot, those with a lid; or per valve of the kinds named. */
  readonly each?: 'appliance' | 'pilot' | 'lid' | 'valve' | 'loop';
  readonly valves?: readonly ValveKind[];
  /** The position this line puts its valves in: the position table of the facts follows it. */
  readonly position?: 'open' | 'closed';
  readonly when?: Condition;
  /** A question with only one acceptable answer; the other is refused with this text. */
  readonly must?: { readonly answer: 'yes' | 'no'; readonly text: string };
  /** A timed sequence: an item is offered only when those before it are answered. */
  readonly ordered?: true;
  readonly opens?: readonly string[];
  readonly settles?: readonly string[];
  /** A condition of the allowance that a "yes" takes away. */
  readonly denies?: string;
}
export interface ChecksStage extends StageBase {
  readonly kind: 'checks';
  readonly items: readonly CheckItem[];
}
export interface ZeroStage extends StageBase {
  readonly kind: 'zero';
  readonly when: 'before' | 'after';
}
export type ValveKind = 'supply' | 'meter' | 'appliance' | 'drop' | 'selector' | 'container' | 'hidden';
export interface Band {
  readonly low: string;
  readonly high: string;
}
/** A band: two figures, or a named formula; `unless` gives another under a condition (a school's alternative). */
export type BandSpec = (Band | FormulaCall) & {
  readonly unless?: readonly { readonly when: Condition; readonly band: Band | FormulaCall }[];
};
/**
 * Length of a hold. A plain number is the rule's own minutes. Otherwise: the rule (figure or formula), the firm's own
 * standard beside it, and whether the longest of rule, house and need is planned or the rule alone.
 */
export type MinutesSpec =
  | number
  | {
      readonly rule: number | FormulaCall;
      readonly unless?: readonly { readonly when: Condition; readonly rule: number | FormulaCall }[];
      readonly house?: number;
      readonly houseSource?: string;
      readonly plans: 'rule' | 'longest';
    };
export interface FillStage extends StageBase {
  readonly kind: 'fill';
  readonly band: BandSpec;
  /** Remembers the reading under this name: later bands refer to it. */
  readonly keeps?: string;
  readonly source: string;
  /** What to do when the reading lies above, or below, the band. */
  readonly over?: string;
  readonly under?: string;
  readonly confirms: string;
  /** Read against a level mark, as a height over the slab, instead of a gauge. */
  readonly by?: 'level';
  /** To be reached within so many minutes of entering the stage; later is the outcome `late`. */
  readonly within?: { readonly minutes: number; readonly source: string };
  /** Said as a finding of the record when the reading lies above this. */
  readonly finding?: { readonly above: string; readonly text: string };
  /** The source stays open here: a pressure that stays low is the supply's matter. */
  readonly live?: true;
  /** Let down to the band, not raised: it cannot fail to stand. */
  readonly falling?: true;
  /** The section is left at this pressure with its gauge on: a watch begins from this reading. */
  readonly leaves?: 'watch';
}
/**
 * Raised in stages, each with a pause and a look at every joint; what the pump delivered gives the trapped air. The last
 * step reaches the band.
 */
export interface PumpStage extends StageBase {
  readonly kind: 'pump';
  readonly band: BandSpec;
  readonly steps: readonly { readonly percent: number; readonly minutes: number }[];
  readonly keeps?: string;
  readonly source: string;
  readonly confirms: string;
  /** A faster rise than this per minute is warned of. */
  readonly fastest?: { readonly value: string; readonly source: string };
  /**
   * Too much air, bleed again: more than this part of the volume (at atmospheric pressure), or more water taken than
   * so many times what water and wall alone would take.
   */
  readonly airMost?: { readonly percent?: number; readonly times?: string; readonly source: string };
}
/** Drained into a measured vessel from one kept reading down to another: the decay loss as a volume. */
export interface DrawDownStage extends StageBase {
  readonly kind: 'draw-down';
  readonly from: string;
  readonly to: string;
  readonly source: string;
  /** Schools that compare what was drawn off with their limit: outcomes within and beyond. Else it is only measured. */
  readonly permitted?: HoldStage['permitted'];
}
export interface HoldStage extends StageBase {
  readonly kind: 'hold';
  readonly role: HoldRole;
  /** Where the hold may start. A lock-up starts wherever the regulator stands: it may have none. */
  readonly band?: BandSpec;
  readonly minutes: MinutesSpec;
  readonly minutesSource: string;
  /** How long warmth or stretch could explain a fall at most: after it a fall is a leak. Absent: a house figure by medium. */
  readonly explained?: { readonly minutes: number; readonly source: string };
  /** Settling: `fixed` (absent) or until steady, no top-up in the last window. */
  readonly until?: 'steady';
  /** Lock-up and flow: where the pressure may stand. Outcomes too-low and too-high. */
  readonly accept?: {
    readonly low?: AcceptLimit;
    readonly high?: AcceptLimit;
    /** Reaching this is an outcome of its own, `vents`; asked only where the system's vent setting is known. */
    readonly vent?: AcceptLimit;
  };
  /** Remembers the end reading under this name. */
  readonly keeps?: string;
  /** A reading is asked for every so many minutes. */
  readonly rhythm?: number;
  /** Longer holds than this, min, need the barometer at start and end. */
  readonly barometerOver?: number;
  readonly limit?: Partial<Record<GaugeClass, PackLimit>>;
  /** Choice key that flips the limit's comparator: options "at" and "above". */
  readonly comparatorChoice?: string;
  readonly allowance?: true;
  /** How far past the minutes a permitted drop may be judged, s. */
  readonly lateAfter?: number;
  /** Read against a level mark, as a height over the slab, instead of a gauge. */
  readonly by?: 'level';
  /** A second place at which the level is seen, at start and end. */
  readonly witness?: string;
  /** Starts at the moment and with the figure of this kept reading: no pause lies between. */
  readonly since?: string;
  /** Remembers the start reading under this name. */
  readonly keepsStart?: string;
  /** Where a broken hold goes back to. Absent: the last fill of the part. */
  readonly restart?: string;
  /** Stretch: the fall that the rule permits from the start reading. */
  readonly fall?: PackLimit;
  /** Stretch: it must slow down too, the last third falling less than the first. Outcomes slowing, running-on, unread. */
  readonly slowing?: { readonly source: string };
  /** Make-up: the water that may be added over the hold; the last without a condition, none: for the engineer. */
  readonly permitted?: readonly {
    readonly when?: Condition;
    readonly volume: FormulaCall;
    readonly source: string;
  }[];
  /** Passes needed in a row after a failing hold. */
  readonly confirmPasses?: number;
  readonly skip?: {
    readonly reasons: readonly { readonly key: string; readonly text: string; readonly sound: boolean }[];
    readonly to: string;
  };
}
export type HoldRole =
  | 'let-by'
  | 'settle'
  | 'tightness'
  | 'strength'
  | 'lock-up'
  | 'flow'
  | 'leak-rate'
  | 'floor'
  | 'stretch'
  | 'make-up'
  | 'decay';
/** A bound that a reading must keep: met at equality. */
export interface AcceptLimit {
  readonly value: string | FormulaCall;
  readonly unless?: readonly { readonly when: Condition; readonly value: string | FormulaCall }[];
  readonly source: string;
}
/** The meter's own dial watched: no gauge. Role `leak`: any movement is a leak; `input`: what an appliance takes. */
export interface DialStage extends StageBase {
  readonly kind: 'dial';
  readonly role: 'leak' | 'input';
  readonly minutes: MinutesSpec;
  readonly minutesSource: string;
  /** Smallest part of a turn an eye sees against its mark, like "0.02", and where the figure comes from. */
  readonly visible: string;
  readonly visibleSource: string;
}
/** The joints touched today, each cleared by leak fluid. */
export interface JointsStage extends StageBase {
  readonly kind: 'joints';
  /** Which joints must stand in the list besides those disturbed today. */
  readonly always?: readonly string[];
}
/** What is present on the day, looked at and written down. */
export interface InventoryStage extends StageBase {
  readonly kind: 'inventory';
}
/** The volume under test: calculated from the pipe list, or measured by a metered draw. */
export interface VolumeStage extends StageBase {
  readonly kind: 'volume';
  readonly source: string;
}
export interface ObserveStage extends StageBase {
  readonly kind: 'observe';
  readonly question: string;
  readonly results: readonly {
    readonly key: string;
    readonly text: string;
    readonly note?: string;
    /** Before so many repeats of the failing hold this answer needs a reason, which prints. */
    readonly reasonBefore?: number;
  }[];
}
export interface IsolateStage extends StageBase {
  readonly kind: 'isolate-and-repeat';
  readonly subjects: 'pipework' | 'each-appliance';
  readonly band: BandSpec;
  readonly settleMinutes: number;
  readonly minutes: number;
  readonly minutesSource: string;
}
export type Stage =
  | ChecksStage
  | ZeroStage
  | FillStage
  | HoldStage
  | ObserveStage
  | IsolateStage
  | DialStage
  | JointsStage
  | InventoryStage
  | VolumeStage
  | PumpStage
  | DrawDownStage;

const HOLD_OUTCOMES: Record<HoldRole, readonly string[]> = {
  settle: ['settled'],
  'let-by': ['proved', 'suspected', 'fell'],
  tightness: ['nil', 'beyond', 'rose', 'disagree', 'confirm'],
  strength: ['withstood', 'fell', 'rose'],
  'lock-up': ['holds', 'creeps', 'fell', 'too-low', 'too-high'],
  flow: ['holds', 'too-low', 'too-high'],
  'leak-rate': [],
  floor: ['kept', 'below', 'above'],
  stretch: ['within', 'beyond', 'rose'],
  'make-up': ['nil', 'within', 'beyond', 'no-limit', 'too-far', 'rose'],
  decay: ['held', 'fell', 'rose'],
};

/**
 * The outcomes each kind can have: every stage of a pack must say what follows each of them.
 * @param classes keys of the procedure's leak-rate classes, from best to worst
 */
export function outcomesOf(stage: Stage, classes: readonly string[] = []): string[] {
  const optional = stage.optional ? ['skipped'] : [];
  switch (stage.kind) {
    case 'checks':
      return ['done', ...new Set(stage.items.flatMap((i) => (i.yes ? [i.yes] : []))), ...optional];
    case 'zero':
      return stage.when === 'before' ? ['zeroed'] : ['zeroed', 'off-zero'];
    case 'fill':
      return ['in-band', ...(stage.within ? ['late'] : []), ...optional];
    case 'hold':
      return [
        ...(stage.role === 'leak-rate' ? [...classes, 'rose'] : HOLD_OUTCOMES[stage.role]),
        ...(stage.slowing ? ['slowing', 'unread'] : []),
        ...(stage.allowance ? ['allowance', 'late'] : []),
        ...(stage.accept?.vent ? ['vents'] : []),
        ...(stage.witness && stage.role === 'tightness' ? ['witness'] : []),
        ...(stage.skip || stage.optional ? ['skipped'] : []),
      ];
    case 'observe':
      return stage.results.map((r) => r.key);
    case 'isolate-and-repeat':
      return [
        ...(stage.subjects === 'pipework' ? ['nil', 'moved', 'rose', 'disagree'] : ['done']),
        ...optional,
      ];
    case 'dial':
      return [...(stage.role === 'leak' ? ['still', 'moved'] : ['done']), ...optional];
    case 'joints':
      return ['clear', 'bubbles'];
    case 'inventory':
      return ['done'];
    case 'volume':
      return ['known'];
    case 'pump':
      return ['raised', 'drips', 'not-reached', ...(stage.airMost ? ['air'] : []), ...optional];
    case 'draw-down':
      return ['measured', ...(stage.permitted ? ['within', 'beyond'] : []), ...optional];
  }
}

/**
 * Outcomes by which a stage says that its pressure will not stand. A pack of format 2 says what follows each of them; `must`
 * are those without which a leak could have no way on, `may` a rule that a stage can take up.
 */
export function waysOn(stage: Stage): { readonly must: readonly string[]; readonly may: readonly string[] } {
  if (stage.kind === 'fill')
    return {
      must: stage.falling ? [] : ['falls', ...(stage.live ? ['low'] : [])],
      may: stage.falling ? ['falls'] : [],
    };
  if (stage.kind !== 'hold') return { must: [], may: [] };
  const inBand = !stage.since && stage.role !== 'lock-up' && stage.role !== 'flow';
  return {
    must: [...(inBand ? ['falls'] : []), ...(stage.role === 'settle' ? ['falls-early', 'rises'] : [])],
    may: stage.role === 'tightness' ? ['small-fall'] : [],
  };
}

/** The edges of an outcome, in order. */
export const edgesOf = (on: Edge | readonly Edge[] | undefined): readonly Edge[] =>
  on === undefined ? [] : Array.isArray(on) ? on : [on as Edge];
