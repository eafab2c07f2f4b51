import type { Broken } from '@/core/quantity/exact';
import type { GaugeClass } from '@/core/instrument/gauge';

/**
 * The shape of a rule pack. Figures are strings with their unit ("0.25 mbar") so that they stay exact; see
 * docs/rule-packs.md. A procedure is a list of stages and, per stage, a graph of what follows each outcome.
 */
export interface Pack {
  readonly format: 1;
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
}

export interface PackLimit {
  readonly value: string;
  readonly broken: Broken;
  readonly source: string;
}

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
  readonly certificate: { readonly title: string; readonly licence: boolean };
  readonly pressure: string;
  readonly adequacy: { readonly binding: boolean; readonly leakThatMatters: string; readonly source: string };
  /** Standard uncertainty of an unlogged gas temperature, by length of hold (house figures). */
  readonly temperatureDefault: {
    readonly perMinute: number;
    readonly shortHoldMinutes: number;
    readonly shortHoldMost: number;
    readonly most: number;
    readonly source: string;
  };
  readonly domain: {
    readonly meters: readonly { readonly kind: string; readonly label: string }[];
    readonly largestSize: string;
    readonly largestVolume: string;
    readonly source: string;
    readonly outside: string;
  };
  readonly perceptible: Partial<Record<GaugeClass, PackLimit>>;
  readonly zeroTolerance: { readonly steps: number; readonly source: string };
  readonly choices: readonly Choice[];
  readonly cases: readonly Case[];
  readonly allowance: {
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
  readonly first: string;
  readonly stages: Readonly<Record<string, Stage>>;
  readonly cautions: Readonly<Record<string, string>>;
  readonly debts: Readonly<
    Record<string, { readonly text: string; readonly proof?: readonly string[]; readonly unsafe?: string }>
  >;
}

/** A question on which schools differ: default, its reason and the alternatives, never silent. */
export interface Choice {
  readonly key: string;
  readonly question: string;
  readonly default: string;
  readonly reason: string;
  readonly options: readonly { readonly key: string; readonly label: string }[];
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
export type Finding = 'tight' | 'within-allowance' | 'not-tight' | 'void' | 'inconclusive' | 'pending';
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
}
export type StageKind = 'checks' | 'zero' | 'fill' | 'hold' | 'observe' | 'isolate-and-repeat';

interface StageBase {
  readonly kind: StageKind;
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
  /** Repeats the item per appliance: all, those with a pilot, those with a lid. */
  readonly each?: 'appliance' | 'pilot' | 'lid';
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
export interface Band {
  readonly low: string;
  readonly high: string;
}
export interface FillStage extends StageBase {
  readonly kind: 'fill';
  readonly band: Band;
  readonly source: string;
  readonly over?: string;
  readonly confirms: string;
}
export interface HoldStage extends StageBase {
  readonly kind: 'hold';
  readonly role: 'let-by' | 'settle' | 'tightness';
  readonly band: Band;
  readonly minutes: number;
  readonly minutesSource: string;
  readonly limit?: Partial<Record<GaugeClass, PackLimit>>;
  /** Choice key that flips the limit's comparator: options "at" and "above". */
  readonly comparatorChoice?: string;
  readonly allowance?: true;
  /** How far past the minutes a permitted drop may be judged, s. */
  readonly lateAfter?: number;
  /** Passes needed in a row after a failing hold. */
  readonly confirmPasses?: number;
  readonly skip?: {
    readonly reasons: readonly { readonly key: string; readonly text: string; readonly sound: boolean }[];
    readonly to: string;
  };
}
export interface ObserveStage extends StageBase {
  readonly kind: 'observe';
  readonly question: string;
  readonly results: readonly { readonly key: string; readonly text: string; readonly note?: string }[];
}
export interface IsolateStage extends StageBase {
  readonly kind: 'isolate-and-repeat';
  readonly subjects: 'pipework' | 'each-appliance';
  readonly band: Band;
  readonly settleMinutes: number;
  readonly minutes: number;
  readonly minutesSource: string;
  readonly optional?: true;
}
export type Stage = ChecksStage | ZeroStage | FillStage | HoldStage | ObserveStage | IsolateStage;

/** The outcomes each kind can have: every stage of a pack must say what follows each of them. */
export function outcomesOf(stage: Stage): string[] {
  switch (stage.kind) {
    case 'checks':
      return ['done', ...new Set(stage.items.flatMap((i) => (i.yes ? [i.yes] : [])))];
    case 'zero':
      return stage.when === 'before' ? ['zeroed'] : ['zeroed', 'off-zero'];
    case 'fill':
      return ['in-band'];
    case 'hold':
      if (stage.role === 'settle') return ['settled'];
      if (stage.role === 'let-by') return ['proved', 'suspected', 'fell', ...(stage.skip ? ['skipped'] : [])];
      return [
        'nil',
        'beyond',
        'rose',
        'disagree',
        'confirm',
        ...(stage.allowance ? ['allowance', 'late'] : []),
      ];
    case 'observe':
      return stage.results.map((r) => r.key);
    case 'isolate-and-repeat':
      return stage.subjects === 'pipework'
        ? ['nil', 'moved', 'rose', 'disagree']
        : ['done', ...(stage.optional ? ['skipped'] : [])];
  }
}

/** The edges of an outcome, in order. */
export const edgesOf = (on: Edge | readonly Edge[] | undefined): readonly Edge[] =>
  on === undefined ? [] : Array.isArray(on) ? on : [on as Edge];
