import type { Exact } from '@/core/quantity/exact';
import type { TrendKey } from '@/core/record/trend';
import type { VerdictWord } from '@/core/verdict/words';

/** Figures by year come from so many of the newest records. House figure. */
export const MOST_FIGURES = 20_000;
/** How many records ended so. */
export interface Count {
  readonly word: VerdictWord;
  readonly n: number;
}
export const totalOf = (counts: readonly Count[]): number => counts.reduce((n, c) => n + c.n, 0);
/** What the records of a house say together. */
export interface Trends {
  /** Own records counted, practice and void ones aside, from this day on. */
  readonly records: number;
  readonly from: string;
  readonly months: readonly {
    /** YYYY-MM */ readonly month: string;
    readonly counts: readonly Count[];
    /** Tested again at the same place by the same procedure within the days of `againDays`. */
    readonly again: number;
  }[];
  readonly againDays: number;
  readonly procedures: readonly {
    readonly id: string;
    readonly title: string;
    readonly counts: readonly Count[];
    readonly again: number;
  }[];
  /** Minutes of each step over the newest records of one procedure. */
  readonly steps: {
    readonly procedure: string;
    readonly records: number;
    readonly steps: readonly {
      readonly title: string;
      /** Half of the records lie between low and high. */
      readonly low: number;
      readonly middle: number;
      readonly high: number;
      readonly records: number;
    }[];
  } | null;
  /** Figures measured, by year. */
  readonly figures: readonly {
    readonly key: TrendKey;
    readonly unit: string;
    readonly years: readonly {
      readonly year: number;
      readonly low: number;
      readonly middle: number;
      readonly high: number;
      readonly n: number;
    }[];
  }[];
  /** What gauges showed open to the air, the newest last. */
  readonly zeros: readonly {
    readonly gauge: string;
    readonly name: string;
    readonly points: readonly { readonly at: number; readonly figure: Exact }[];
  }[];
}
