import { asTold } from './telling';

/** Signs that the shipped faces lack, said with ones they have. A test walks every glyph of a certificate. */
const INSTEAD: Record<string, string> = {
  Δ: 'd',
  µ: 'u',
  μ: 'u',
  '√': 'sqrt',
  Σ: 'sum',
  π: 'pi',
  α: 'alpha',
  '≤': 'at most ',
  '≥': 'at least ',
  '→': 'to',
  '\u00a0': ' ',
  '\u202f': ' ',
};
/** Words as they are printed: told as the house is used to, every sign one that the faces have. */
export const printable = (text: string): string =>
  asTold(text).replace(
    /[\u00a0\u202f\u0370-\u03ff\u2190-\u22ffµ]/g,
    (c) => INSTEAD[c] ?? (c === '−' ? '−' : c),
  );
