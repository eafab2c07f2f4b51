/** Kinds of follow-up. The first group comes from a record, the second from a date. */
export const FOLLOW_UPS = {
  repair: { words: 'repair', closes: 'Repaired' },
  unsafe: { words: 'unsafe situation', closes: 'Made safe' },
  report: { words: 'report', closes: 'Report made' },
  refer: { words: 'answer awaited', closes: 'Answer came' },
  retest: { words: 'repeat of the test', closes: 'Settled without a test' },
  swapped: { words: 'changed part', closes: 'Looked at, no test needed' },
  yearly: { words: 'regular test', closes: 'Not wanted any more' },
  calibration: { words: 'calibration', closes: null },
  licence: { words: 'licence', closes: null },
  watch: { words: 'watch', closes: null },
} as const satisfies Record<string, { readonly words: string; readonly closes: string | null }>;
export type FollowUpKind = keyof typeof FOLLOW_UPS;
/** Those that are seen to by a test on the installation. */
export const TESTS_DUE: readonly FollowUpKind[] = ['retest', 'yearly', 'swapped', 'repair'];
