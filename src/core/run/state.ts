import type { Exact } from '@/core/quantity/exact';
import type { Finding, StageKind } from '@/core/pack/types';
import type { Judgement } from '@/core/verdict/judge';

export interface Answer {
  readonly answer: 'done' | 'yes' | 'no' | 'undone';
  readonly at: number;
  readonly byName: string;
}
/** One accepted reading. `at` is when it was entered, `readMoment` when the gauge was looked at; both server-line ms. */
export interface Reading {
  readonly id: string;
  readonly at: number;
  readonly readMoment: number;
  readonly figure: Exact;
  readonly byName: string;
  readonly late: boolean;
  readonly same: boolean;
  readonly streamed: boolean;
  corrected?: {
    readonly figure: Exact;
    readonly reason: string;
    readonly byName: string;
    readonly at: number;
  };
}
export interface TopUp {
  readonly before: Exact;
  readonly after: Exact;
  readonly at: number;
  readonly byName: string;
}
/** The act of holding: from its start reading to its end reading, or to what broke it. */
export interface Hold {
  readonly role: 'let-by' | 'settle' | 'tightness';
  readonly minutes: number;
  readonly start: Reading;
  readonly startedAt: number;
  readonly startClock: { readonly mono: number; readonly pageLoad: string; readonly offset: number };
  readonly topUps: TopUp[];
  readonly temperature: { start?: Exact; end?: Exact };
  end?: Reading;
  endedAt?: number;
  judgement?: Judgement;
  broken?: { readonly reason: string; readonly at: number };
  clockMark?: string;
}
/** One subject of an isolate-and-repeat stage: its valve positions, fill, settling and hold. */
export interface Cycle {
  readonly subject: string;
  readonly name: string;
  positions: boolean;
  fill?: Reading;
  settle?: Hold;
  hold?: Hold;
  outcome?: string;
}
/** One course of the wall: a stage as it was gone through once. */
export interface Visit {
  readonly stage: string;
  readonly kind: StageKind;
  readonly title: string;
  readonly ordinal: number;
  readonly entered: number;
  left?: number;
  outcome?: string;
  readonly answers: Record<string, Answer>;
  readonly zeros: {
    readonly gauge: string;
    readonly figure: Exact;
    readonly at: number;
    readonly good: boolean;
  }[];
  readonly fills: Reading[];
  readonly holds: Hold[];
  readonly cycles: Cycle[];
  readonly readings: Reading[];
  /** Streamed display values: server-line ms and digits of the gauge's scale. */
  readonly trace: (readonly [number, number])[];
  skipped?: { readonly reason: string; readonly text: string; readonly sound: boolean };
  split?: string;
}
export interface Debt {
  readonly key: string;
  readonly openedAt: number;
  cleared?: { readonly at: number; readonly byName: string; readonly text: string };
}
export interface Signature {
  readonly role: 'tester' | 'customer';
  readonly name: string;
  readonly at: number;
  readonly by: string;
  readonly strokes?: string;
  readonly refused?: string;
}
export interface FoundClaim {
  readonly finding: Finding;
  readonly because?: string;
  readonly stage: string;
  readonly outcome: string;
  readonly visit: number;
}
/** Everything derived from the log. Never stored as truth: only the events are. */
export interface RunState {
  phase: 'running' | 'put-back' | 'signing' | 'signed';
  visits: Visit[];
  gauge: string | null;
  debts: Debt[];
  finding: FoundClaim | null;
  ending: {
    readonly at: number;
    readonly by: 'graph' | 'stop';
    reason?: 'smell' | 'voltage' | 'movement' | 'abandoned' | 'mistake';
    text?: string;
  } | null;
  denied: string[];
  repeats: number;
  fails: number;
  passes: number;
  /** Unexplained rises of judged holds: the repeat after one needs its temperatures. */
  rises: number;
  taken: Record<string, number>;
  notes: {
    readonly at: number;
    readonly byName: string;
    readonly text: string;
    readonly kind: 'note' | 'disturbance';
  }[];
  signatures: Signature[];
  /** Events that had no effect, with the reason: overtaken transitions and refusals. They stay in the log. */
  withoutEffect: { readonly id: string; readonly code: string; readonly text: string }[];
  clockMarks: string[];
  events: number;
  lastAt: number;
}
