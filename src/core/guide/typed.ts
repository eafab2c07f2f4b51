/** What was typed, as words that must all occur. */
export const wordsOf = (typed: string): readonly string[] => typed.toLowerCase().split(/\s+/).filter(Boolean);
