/** What a stage is. Each kind is a room of its own; this is what all of them say of themselves. */
import type * as yup from 'yup';
import type { LineWriter } from '@/core/grammar/lines';
import type { MinutesSpec, StageBase } from '@/core/grammar/rule';
import type { Of } from '@/core/grammar/schema';
import type { UnheldWay } from '@/core/run/general-entries';
import type { Visit } from '@/core/run/state';

/** The procedure as the loader sees it from one of its stages. */
export interface Surroundings {
  readonly has: (stage: string) => boolean;
  /** Names under which any stage keeps a reading. */
  readonly kept: ReadonlySet<string>;
  readonly classed: boolean;
  readonly hasAllowance: boolean;
  readonly hasChoice: (key: string) => boolean;
  readonly fail: (where: string, message: string) => never;
}
/** What a step asks of hands and clock, minutes. House estimates, shown as such; own last times stand beside them. */
export interface Work {
  readonly hands: number;
  /** For each line of the list, joint or appliance there is, so many more. */
  readonly each?: { readonly of: 'line' | 'joint' | 'appliance'; readonly minutes: number };
  readonly wait?: number | { readonly spec: MinutesSpec; readonly source: string; readonly sees: boolean };
  readonly close?: number;
}
/** What a stage waits for. */
export type Step = 'answer' | 'zero' | 'fill' | 'start' | 'run' | 'choose' | 'positions' | 'over';
export interface KindRule<S> {
  /** What it waits for now. @param running whether a hold of it is being timed */
  readonly step: (visit: Visit, running: boolean) => Step;
  /**
   * The outcomes it can have: a pack must say what follows each of them.
   * @param classes keys of the procedure's leak-rate classes, from best to worst
   */
  readonly outcomes: (stage: S, classes: readonly string[]) => readonly string[];
  /** The outcome that leads on when nothing is wrong. */
  readonly good: (stage: S, classes: readonly string[]) => string | null;
  readonly work: (stage: S) => Work;
  /** It times holds. */
  readonly holds?: true;
  /** The section itself is pressed, read or judged in it: nothing of it may be shut off for a search meanwhile. */
  readonly presses?: true;
  /** A gauge's own log, and what is said about it, are enough for it where a test was held elsewhere. */
  readonly outside?: (stage: S) => boolean;
  /** Whom it is shown to, of those who ask for a part of the test only. */
  readonly paper?: (stage: S) => 'inspector' | 'utility' | undefined;
  /** In which ways it can be ended by saying that the pressure will not stand. @param running whether a hold is timed */
  readonly unheld?: (stage: S, running: boolean) => readonly UnheldWay[];
  /** What the rules page says of it, beyond what every stage says. */
  readonly lines?: (stage: S, write: LineWriter, titleOf: (stage: string) => string | undefined) => void;
  /** What kind of stage it is, in a word. Absent: the name of the kind. */
  readonly named?: (stage: S) => string;
  /** Where the band comes from. */
  readonly bandSource?: (stage: S) => string;
  /**
   * Outcomes by which it says that its pressure will not stand. A pack of format 2 says what follows each of them; `must`
   * are those without which a leak could have no way on, `may` a rule that it can take up.
   */
  readonly waysOn?: (stage: S) => { readonly must: readonly string[]; readonly may: readonly string[] };
  /** The outcomes by which it may claim Tight, and Tight within allowance. */
  readonly claims?: (
    stage: S,
    classes: readonly string[],
  ) => {
    readonly tight?: string | undefined;
    readonly within?: string | undefined;
    /** Where the procedure calls a good end by another name than Tight. */
    readonly named?: string | undefined;
  };
  /** It proves that the valve which bounds the scope does not let by. */
  readonly provesBoundary?: (stage: S) => boolean;
  /** Names under which it keeps readings. */
  readonly keeps?: (stage: S) => readonly (string | undefined)[];
  /** What it puts on the put-back list or takes off it. */
  readonly debts?: (stage: S) => readonly string[];
  /** Where else than by an outcome a run can go from it. */
  readonly goesTo?: (stage: S) => string | undefined;
  /** What must hold of it in its procedure. */
  readonly check?: (stage: S, around: Surroundings) => void;
}
export interface Kind<N extends string, S extends yup.AnyObjectSchema> extends KindRule<StageOf<N, S>> {
  readonly name: N;
  readonly schema: S;
}
export type StageOf<N extends string, S extends yup.AnyObjectSchema> = Of<S> & {
  readonly kind: N;
} & StageBase;
export const kind = <const N extends string, S extends yup.AnyObjectSchema>(
  name: N,
  schema: S,
  rule: KindRule<StageOf<N, S>>,
): Kind<N, S> => ({ name, schema, ...rule });
/** The outcome of a stage that may be left out. */
export const optional = (stage: { readonly optional?: true | undefined }): readonly string[] =>
  stage.optional ? ['skipped'] : [];
