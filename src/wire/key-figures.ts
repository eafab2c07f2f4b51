/** So many first figures of a key tell it from another. Apart from the check itself, so that a page asks without loading it. */
export const KEY_FIGURES = /^[0-9a-f]{8,64}$/;
/** The first figures of a key as they are compared; spaces and capitals do not matter. */
export const keyFigures = (typed: string): string => typed.replace(/[\s:-]/g, '').toLowerCase();
