/** Short questions of the Yard: what is asked, what counts as right, and what is told afterwards. All follow from a seed. */
import type { Trap } from '../words';

export const QUESTIONS = {
  verdict: 'Which verdict, and why',
  trace: 'Read this trace',
  figure: 'Figures and units',
} as const;
export type About = keyof typeof QUESTIONS;

export interface Choice {
  readonly key: string;
  readonly text: string;
}
/** What the one who is asked sees: nothing of the answer. */
export interface Question {
  readonly about: About;
  readonly trade: string;
  readonly title: string;
  readonly ask: string;
  readonly facts: readonly { readonly name: string; readonly value: string; readonly source?: string }[];
  /** What was done and read, in its order. */
  readonly lines?: readonly { readonly title: string; readonly text: string }[];
  /** A trace as a gauge showed it: ms and the gauge's unit. */
  readonly trace?: {
    readonly points: readonly { readonly t: number; readonly p: number }[];
    readonly unit: string;
    readonly decimals: number;
    readonly from: number;
    readonly to: number;
  };
  readonly choices?: readonly Choice[];
  /** The second half of it: why. */
  readonly reasons?: readonly Choice[];
  /** A figure is asked, in this unit. */
  readonly unit?: string;
}
export interface Solution {
  readonly choice?: readonly string[];
  readonly reason?: readonly string[];
  readonly figure?: { readonly value: number; readonly text: string };
  readonly tells: readonly string[];
  readonly source: string;
  /** What the analysis made of the same readings; `right` null: it said that it cannot tell. */
  readonly opponent?: { readonly says: string; readonly right: boolean | null };
}
export interface Posed {
  readonly question: Question;
  readonly solution: Solution;
  readonly traps: readonly Trap[];
}
export interface Answer {
  readonly choice?: string;
  readonly reason?: string;
  readonly figure?: number;
}
/** A figure worked out by hand may be off by so much of it. House figure. */
export const WITHIN = 0.03;

/** Which parts of an answer count; all of them, and it is right. A part that was not asked is not looked at. */
export function marked({ solution: s }: Pick<Posed, 'solution'>, a: Answer) {
  const choice = s.choice ? s.choice.includes(a.choice ?? '') : true;
  const reason = s.reason ? s.reason.includes(a.reason ?? '') : true;
  const figure = s.figure
    ? a.figure !== undefined &&
      Math.abs(a.figure - s.figure.value) <= WITHIN * Math.abs(s.figure.value) + 1e-12
    : true;
  return { choice, reason, figure, right: choice && reason && figure };
}
