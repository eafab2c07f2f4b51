/** Words as they stand in a sentence of their own: a capital first. */
export const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
/** Words closed by a full stop, where nothing closes them. */
export const full = (text: string): string => (/[.!?]$/.test(text) ? text : `${text}.`);
