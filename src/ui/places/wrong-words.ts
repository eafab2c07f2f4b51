export interface Wrong {
  readonly path?: string;
  readonly message: string;
}
/** What each field is called, in the order of the form. */
const FIELD_WORDS: readonly (readonly [RegExp, string])[] = [
  [/facts\.meterKind/, 'Meter'],
  [/facts\.meterVolume/, 'Volume inside the meter'],
  [/^(facts\.)?length$/, 'Length of all pipe'],
  [/facts\.asked/, 'What is asked of the whole'],
  [/newGauge\.name/, 'Name of the gauge'],
  [/newGauge\.greatest/, 'The gauge shows up to'],
  [/newGauge\.resolution/, 'In steps of'],
];
/** What is wrong with what was entered, one thing for each field, in the order of the form. */
export function wrongWords(all: readonly Wrong[]): string {
  const place = ({ path = '' }: Wrong) => {
    const n = FIELD_WORDS.findIndex(([p]) => p.test(path));
    return n < 0 ? FIELD_WORDS.length : n;
  };
  // one word for each field: the first thing that is wrong with it
  const said = [...all]
    .sort((a, b) => place(a) - place(b))
    .filter((w, n, sorted) => sorted.findIndex((o) => place(o) === place(w)) === n)
    .map((w) => {
      const words = FIELD_WORDS[place(w)]?.[1];
      return words ? `${words}: ${w.message.replace(/^[\w.[\]]+:? /, '')}` : w.message;
    });
  return `${said.join('; ')}.`;
}
