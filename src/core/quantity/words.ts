/** The first letter of words that go on a sentence, and of those that begin one. */
export const lower = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
/** Words closed by a full stop, where nothing closes them. */
export const full = (text: string): string => (/[.!?]$/.test(text) ? text : `${text}.`);
