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
export const printable = (text: string): string =>
  text.replace(/[\u00a0\u202f\u0370-\u03ff\u2190-\u22ffµ]/g, (c) => INSTEAD[c] ?? (c === '−' ? '−' : c));
