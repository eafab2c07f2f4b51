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
/** The two verdicts that show a system tight. */
export const GOOD: readonly VerdictWord[] = ['tight', 'within-allowance'];
export const isGood = (word: string | null): boolean => GOOD.some((good) => good === word);
export const GENERAL = 'General rules of judging';
