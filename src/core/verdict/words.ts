/** The six verdicts of a run, and only these. */
export const WORDS = {
  tight: 'Tight',
  'within-allowance': 'Tight within allowance',
  'not-tight': 'Not tight',
  void: 'Void',
  inconclusive: 'Inconclusive',
  refer: 'Refer',
} as const;
export type VerdictWord = keyof typeof WORDS;
export interface Reason {
  readonly code: string;
  readonly text: string;
  readonly source: string;
}
/** From what decides most to what decides least, when parts of one run have different results. */
export const GRAVITY: readonly VerdictWord[] = [
  'not-tight',
  'void',
  'refer',
  'inconclusive',
  'within-allowance',
  'tight',
];
export const isGood = (word: VerdictWord | null): boolean => word === 'tight' || word === 'within-allowance';
export const GENERAL = 'General rules of judging';
