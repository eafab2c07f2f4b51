/** The wall of a run as it is drawn: its courses and their measures, apart from how they are derived. */
export type CourseState = 'waiting' | 'running' | 'set' | 'split' | 'skipped';
/** One course of the wall: what is needed to draw it, in words and in measures. */
export interface Course {
  readonly key: string;
  readonly title: string;
  readonly state: CourseState;
  readonly minutes: number;
  /** Movement over limit, signed: a fall stands to the left, a rise to the right; beyond 1 it is out of plumb. */
  readonly plumb: number;
  readonly out: boolean;
  /** Part of the running hold that has passed, 0 to 1. */
  readonly filled: number;
  /** Thin joint lines: one per re-adjustment. */
  readonly topUps: number;
  readonly repeated: boolean;
  readonly word: string;
  readonly footing: boolean;
  readonly visit: number | null;
}

/** Height of a course by its minutes: clamp(8, 8 + 5 log2(1 + minutes), 64), px at scale 1. */
export const courseHeight = (minutes: number): number =>
  Math.min(64, Math.max(8, 8 + 5 * Math.log2(1 + minutes)));

/** A course of the small wall in lists: state letter and plumb in hundredths (an integer, so that it stores exactly). */
export interface GlyphCourse {
  readonly s: 'set' | 'running' | 'out' | 'split' | 'waiting' | 'skipped';
  readonly p: number;
}

/** Horizontal shift of a course, px: `reach` px is the limit; held within one and a half of it. */
export const plumbShift = (plumb: number, reach: number): number =>
  Math.max(-1.5, Math.min(1.5, plumb)) * reach;
