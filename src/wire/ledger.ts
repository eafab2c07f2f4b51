import type { LedgerQuery } from './ledger-schema';

/** Where a record of the ledger came from: sealed here, or brought in from another Vast Stone. */
export type LedgerSource = 'own' | 'outside';
/** What a line of the ledger says in words. */
export interface LedgerSummary {
  readonly site: string;
  readonly system: string;
  readonly procedure: string;
  readonly by: string;
  readonly label: string;
  /** ISO day on which it came with a whole organisation; absent for what was sealed here. */
  readonly broughtIn?: string;
}

/** Letters that are not one letter and an accent, as they are typed where a keyboard lacks them. */
const SPELT: Readonly<Record<string, string>> = {
  ø: 'o',
  æ: 'ae',
  œ: 'oe',
  ß: 'ss',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  ı: 'i',
};
const fold = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[øæœßłđðþı]/g, (c) => SPELT[c]!);
/** A word as it is looked for: accents, capitals and punctuation do not count. */
export const compact = (text: string): string => fold(text).replace(/[^\p{L}\p{N}]/gu, '');
const LONGEST_TOKEN = 60;
const LEAST_TAIL = 4;

/**
 * The words under which a record is found. Each text gives its words, its pieces without punctuation ("VS-00012" is also
 * "vs00012" and "vs12"), and numbers without leading zeros; what people read off plates also gives its ends, so that the
 * last four figures of a serial are enough.
 */
export function searchWords(texts: readonly string[], plates: readonly string[] = []): string[] {
  const found = new Set<string>();
  const add = (word: string) => {
    if (word) found.add(word.slice(0, LONGEST_TOKEN));
  };
  for (const t of [...texts, ...plates])
    for (const piece of fold(t).split(/\s+/)) {
      const words = piece.split(/[^\p{L}\p{N}]+/u).filter(Boolean);
      for (const word of words) {
        add(word);
        add(word.replace(/^0+(?=\d)/, ''));
      }
      if (words.length > 1) {
        add(words.join(''));
        add(words.map((w) => w.replace(/^0+(?=\d)/, '')).join(''));
      }
    }
  for (const plate of plates) {
    const whole = compact(plate).slice(0, LONGEST_TOKEN);
    for (let i = 1; i <= whole.length - LEAST_TAIL; i++) add(whole.slice(i));
  }
  return [...found];
}
/** What was typed into the search field, as the beginnings of words that must all occur. */
export const searchTerms = (typed: string): string[] =>
  [...new Set(typed.split(/\s+/).map(compact).filter(Boolean))]
    .slice(0, 8)
    .map((t) => t.slice(0, LONGEST_TOKEN));

/** Columns a person may choose for the table and the CSV, in this order. */
export const LEDGER_COLUMNS = {
  number: 'Number',
  sealed: 'Sealed',
  result: 'Result',
  site: 'Place',
  system: 'System',
  procedure: 'Procedure',
  tester: 'Tester',
  status: 'Status',
  gauges: 'Gauges',
  figures: 'Measured',
  mark: 'Marked',
} as const;
export type LedgerColumn = keyof typeof LEDGER_COLUMNS;
/** What a file may have beside them. */
export const FACT_COLUMNS = {
  begun: 'Begun (UTC)',
  ended: 'Ended (UTC)',
  customer: 'Customer',
  address: 'Address',
  pressure: 'Test pressure',
  change: 'Change',
  held: 'Held',
  limits: 'Limits',
  leak: 'Leak rate',
  gaugeSerials: 'Serials of gauges',
  serials: 'Serials at the place',
} as const;
export type FactColumn = keyof typeof FACT_COLUMNS;
export const FILE_COLUMNS = { ...LEDGER_COLUMNS, ...FACT_COLUMNS } as const;
export type FileColumn = keyof typeof FILE_COLUMNS;
export const USUAL_COLUMNS: readonly LedgerColumn[] = [
  'number',
  'sealed',
  'result',
  'site',
  'system',
  'procedure',
  'tester',
];

/** Lines shown at once; more are asked for. */
export const LEDGER_PAGE = 60;
/** Names of the filters, as they stand in the address of the page. */
export const FILTERS = [
  'find',
  'word',
  'status',
  'source',
  'standing',
  'procedure',
  'system',
  'tester',
  'gauge',
  'from',
  'to',
] as const;

/** What of an address narrows the ledger; what is empty or not one of ours is left out. Not checked: the server does that. */
export const chosenFilters = (params: URLSearchParams): Record<string, string> =>
  Object.fromEntries(
    FILTERS.flatMap((name) => {
      const value = params.get(name)?.trim();
      return value ? [[name, value]] : [];
    }),
  );
/** The same back as a query string without the question mark, in a fixed order. */
export const queryText = (query: LedgerQuery): string =>
  new URLSearchParams(FILTERS.flatMap((n) => (query[n] ? [[n, query[n]]] : []))).toString();
