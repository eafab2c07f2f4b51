/** A visit as the planner sees it. All times in minutes from its start. */
export interface VisitTask {
  readonly id: string;
  readonly title: string;
  readonly kind: 'test' | 'filler' | 'meeting' | 'other';
  /** Hands on at the start, waiting, hands at the end (reading and noting). A late end reading is allowed. */
  readonly hands: number;
  readonly wait: number;
  readonly close: number;
  /** Begins only when these have ended. */
  readonly after: readonly string[];
  /** Done while this one waits: begins after its hands, ends before its close. */
  readonly during?: string;
  /** Things it takes when it begins and gives back when it ends: a gauge, a section, the water. */
  readonly takes: readonly string[];
  readonly frees: readonly string[];
  readonly notBefore?: number;
  /** A promise: ended by then. */
  readonly finishBy?: number;
  /** The test it belongs to. */
  readonly test?: string;
  /** The stages of the run it stands for, and the one that waits. */
  readonly stages?: readonly string[];
  readonly waits?: string;
}
/** What has happened of a task when the rest is planned again. */
export type Progress =
  /** `running`: hands are on it; the end is an estimate. */
  | { readonly state: 'done'; readonly start: number; readonly end: number; readonly running?: true }
  | { readonly state: 'waiting'; readonly start: number; readonly handsEnd: number; readonly ready: number };

/** One task laid in time. */
export interface Slot {
  readonly task: string;
  readonly start: number;
  readonly handsEnd: number;
  readonly closeStart: number;
  readonly end: number;
  readonly person: number;
  readonly closer: number;
}
export interface VisitPlan {
  readonly slots: readonly Slot[];
  /** When the last task ends. */
  readonly length: number;
  /** No plan can be shorter than this. */
  readonly bound: number;
  /** Whether the length equals what is possible: the search was finished, or the bound is met. */
  readonly proved: boolean;
  /** Tasks whose promise cannot be kept; empty when all are. */
  readonly late: readonly string[];
  /** Steps of the search, for the benchmark. */
  readonly nodes: number;
}
/** Why a visit cannot be planned, and what to do. */
export class VisitError extends Error {
  constructor(
    readonly task: string,
    text: string,
  ) {
    super(text);
    this.name = 'VisitError';
  }
}
