import fc from 'fast-check';
import type { LedgerCells } from './ledger-cells';
import { columnsFrom, ledgerCsv } from './ledger-csv';
import { readCsv } from './csv';
import { compact, LEDGER_COLUMNS, queryText, searchTerms, searchWords, type LedgerColumn } from './ledger';
import { queryFrom } from './ledger-schema';

/** How the database looks a term up: as the beginning of a word. */
const finds = (typed: string, texts: string[], plates: string[] = []): boolean => {
  const words = searchWords(texts, plates);
  return searchTerms(typed).every((t) => words.some((w) => w.startsWith(t)));
};

describe('looking for a record as one remembers it', () => {
  test.each([
    ['VS-00012', true],
    ['vs 12', true],
    ['vs12', true],
    ['00012', true],
    ['dalbo', true],
    ['DALBØ', true],
    ['ngai boat', true],
    ['sh-0880', true],
    ['0880a', true],
    ['880a', true],
    ['80a', false], // less than the last four of a plate says too little
    ['sh0881', false],
    ['ngaire kiln', false],
    ['', true],
    ['  -- ', true], // nothing to look for narrows nothing
  ])('“%s”: %s', (typed, found) => {
    expect(finds(typed, ['VS-00012', 'Ngaire Dalbø', 'Boat shed'], ['SH-0880A'])).toBe(found);
  });
  const word = fc.stringMatching(/^[A-Za-zéØß0-9][A-Za-zéØß0-9.\-/]{0,18}[A-Za-z0-9]$/);
  test('any beginning of any word finds it, in capitals or not; so does the end of a plate', () => {
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 5 }),
        word,
        fc.nat(),
        fc.nat(),
        (texts, plate, i, n) => {
          const one = texts[i % texts.length]!;
          const beginning = one.slice(0, 1 + (n % one.length));
          expect(finds(beginning.toUpperCase(), [texts.join(' ')], [plate])).toBe(true);
          const end = compact(plate).slice(-4);
          if (end.length === 4) expect(finds(end, [], [plate])).toBe(true);
        },
      ),
    );
  });
});

test('filters stand in the address and come back; what is empty or unknown is left out, what is wrong is told', () => {
  const query = queryFrom(
    new URLSearchParams('find=boiler&word=not-tight&from=2026-01-02&to=&colour=red&standing=void'),
  );
  expect(query).toEqual({ find: 'boiler', word: 'not-tight', from: '2026-01-02', standing: 'void' });
  expect(queryFrom(new URLSearchParams(queryText(query)))).toEqual(query);
  for (const [wrong, words] of [
    ['from=2.1.2026', /is not a day, like/],
    ['system=bakery', /is not an id/],
    ['status=sealed', /one of/],
    [`find=${'x'.repeat(201)}`, /at most 200/],
  ] as const)
    expect(() => queryFrom(new URLSearchParams(wrong))).toThrow(words);
});

const line: LedgerCells = {
  number: 'VS-00036',
  sealedAt: '2026-11-05T12:00:59.000Z',
  status: 'not-a-certificate',
  source: 'outside',
  superseded: null,
  voided: null,
  summary: {
    site: '=River "lane"; weir',
    system: 'Main,\nburied',
    procedure: 'Buried main',
    by: 'Imre',
    label: 'Refer',
  },
  gauges: ['g1', 'g9'],
  figures: [
    { key: 'make-up', value: 0.124, unit: 'l/h' },
    { key: 'decay', value: 0.239, unit: 'l/h' },
  ],
};
test('the file of the ledger holds each cell whole, whatever stands in it, and none that a spreadsheet would run', () => {
  const all = Object.keys(LEDGER_COLUMNS) as LedgerColumn[];
  const marked = { ...line, superseded: 'VS-00040', voided: 'wrong branch' };
  const [head, first, second] = readCsv(ledgerCsv([line, marked], all, new Map([['g1', 'P-300']])), ',');
  const cell = (row: string[] | undefined, c: LedgerColumn) => row![all.indexOf(c)];
  expect(cell(head, 'sealed')).toBe('Sealed (UTC)');
  expect(cell(first, 'sealed')).toBe('2026-11-05 12:00');
  expect(cell(first, 'site')).toBe('\'=River "lane"; weir');
  expect(cell(first, 'system')).toBe('Main,\nburied');
  expect(cell(first, 'status')).toBe('not a certificate, from outside');
  expect(cell(first, 'gauges')).toBe('P-300; another gauge');
  expect(cell(first, 'figures')).toBe('make-up at test pressure 0.124 l/h; decay loss 0.239 l/h');
  // void says more than superseded: a record that was wrong does not stand in any form
  expect([cell(first, 'mark'), cell(second, 'mark')]).toEqual(['', 'void: wrong branch']);
});
test('columns come in their own order; unknown ones are passed over, none means the usual', () => {
  expect(columnsFrom('mark,zzz,number', ['site'])).toEqual(['number', 'mark']);
  expect(columnsFrom('zzz', ['site'])).toEqual(['site']);
  expect(columnsFrom(null, ['site'])).toEqual(['site']);
});
