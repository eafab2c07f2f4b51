/** Compressed gases that may be brought along for a test. */
export const BROUGHT_GASES = ['air', 'nitrogen', 'inert gas'] as const;
export type BroughtGas = (typeof BROUGHT_GASES)[number];
