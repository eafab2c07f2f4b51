import * as fc from 'fast-check';
import { firstFactsSchema } from '../first-facts-schema';
import { delimiterOf, readCsv, writeCsv } from '../csv';
import { CellError, dayCell, figureCell, headingUnit, rangeCell, yesNoCell } from './cells';
import { guessTable, shapeOfTable } from './guess';
import { readTable } from './read-table';
import { bringInSchema, tableMappingSchema } from './schema';
import { columnsOf, emptyTable, TABLE_KEYS, type TableKey } from './tables';

const METERS = [
  { kind: 'diaphragm-U6-G4', label: 'diaphragm U6 / G4' },
  { kind: 'none', label: 'no meter in the section' },
  { kind: 'other', label: 'another meter' },
  { kind: 'unknown', label: 'not looked at yet' },
];
const read = (text: string, table?: TableKey) => {
  const rows = readCsv(text, delimiterOf(text));
  const mapping = guessTable(rows, delimiterOf(text), table);
  return { mapping, ...readTable(rows, mapping, METERS) };
};
const said = ({ errors }: ReturnType<typeof read>) => errors.map((e) => `${e.row} ${e.column}: ${e.text}`);

describe('cells', () => {
  test.each([
    ['20.35 mbar', '.', '', '20.35 mbar'],
    ['1.234,50 mbar', ',', '', '1234.50 mbar'],
    ['1 013,2', ',', 'mbar', '1013.2 mbar'],
    ['1,013.2', '.', 'mbar', '1013.2 mbar'],
    ['−5', '.', 'Pa', '-5 Pa'],
    ['+5', '.', 'Pa', '5 Pa'],
    ['14 inH2O', '.', '', '14 inWC'],
    ['.5', '.', 'bar', null],
  ] as const)('%s with a decimal %s', (text, decimal, unit, is) =>
    is === null
      ? expect(() => figureCell(text, 'pressure', decimal, unit)).not.toThrow()
      : expect(figureCell(text, 'pressure', decimal, unit)).toBe(is),
  );
  test.each([
    ['twelve', /not a figure/],
    ['12', /unit is not said/],
    ['12 furlongs', /not a unit of pressure/],
    ['12 m', /not a unit of pressure/],
    ['1.2.3 mbar', /not a figure/],
    ['', /not a figure/],
  ])('%s is refused, with what to do', (text, words) =>
    expect(() => figureCell(text, 'pressure', '.', '')).toThrow(words),
  );
  test.each([
    ['0 to 130 mbar', '0 mbar', '130 mbar'],
    ['-10…10 mbar', '-10 mbar', '10 mbar'],
    ['0-25 bar', '0 bar', '25 bar'],
    ['0 mbar – 1 bar', '0 mbar', '1 bar'],
    ['130 mbar', null, '130 mbar'],
  ])('range %s', (text, least, greatest) =>
    expect(rangeCell(text, 'pressure', '.', '')).toEqual({ least, greatest }),
  );
  test('days are read in the order that was said, never guessed', () => {
    expect(dayCell('3.6.2026', 'dmy')).toBe('2026-06-03');
    expect(dayCell('3/6/2026', 'mdy')).toBe('2026-03-06');
    expect(dayCell('2026-06-03 00:00:00', 'iso')).toBe('2026-06-03');
    expect(dayCell(' ', 'iso')).toBe('');
    expect(() => dayCell('31.6.2026', 'dmy')).toThrow(CellError);
  });
  test('yes, no, and what nobody said', () => {
    expect(['x', 'Yes', 'no', '0', '', '?'].map(yesNoCell)).toEqual([true, true, false, false, null, null]);
    expect(() => yesNoCell('perhaps')).toThrow(/neither yes nor no/);
  });
  test('units in headings', () => {
    expect(headingUnit('Length (ft)', 'length')).toBe('ft');
    expect(headingUnit('Volume [litres]', 'volume')).toBe('l');
    expect(headingUnit('Range mbar', 'pressure')).toBe('mbar');
    expect(headingUnit('Length', 'length')).toBeNull();
  });
  test('whatever stands in a cell: a figure the house takes, or words', () =>
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.double().map(String)),
        fc.constantFrom('.', ','),
        (text, decimal) => {
          try {
            expect(figureCell(text, 'pressure', decimal as '.', 'mbar')).toMatch(/^-?\d*(\.\d*)? \S+$/);
          } catch (error) {
            expect(error).toBeInstanceOf(CellError);
          }
        },
      ),
    ));
});

test.each(TABLE_KEYS)('the empty table of %s, filled as its example is, is read whole', (table) => {
  const all = read(writeCsv(emptyTable(table)));
  expect([all.mapping.table, said(all), all[table].length]).toEqual([table, [], 1]);
  expect(Object.keys(all.mapping.at)).toEqual(columnsOf(table).map((c) => c.key));
  expect(tableMappingSchema.isValidSync(all.mapping, { strict: true })).toBe(true);
});

describe('places', () => {
  const head = 'Site;Street;Client;Installation;Type;Meter;Size;Length (m);Appliances\n';
  const row = (over: Partial<Record<string, string>> = {}) =>
    Object.values({
      site: 'Tenter Row 1',
      street: '1 Tenter Row',
      client: 'Tenants',
      name: 'Gas 1',
      type: 'gas',
      meter: 'diaphragm U6 / G4',
      size: '22 x 0,9',
      length: '12,5',
      things: '"boiler, 2 hob"',
      ...over,
    }).join(';');
  test('a spreadsheet with its own words, decimal commas and a title above', () => {
    const all = read(`Our places;;;;;;;;\n${head}${row()}\n;;;;;;;;\n`);
    expect(said(all)).toEqual([]);
    expect(all.mapping).toMatchObject({
      table: 'places',
      decimal: ',',
      headerRows: 2,
      units: { length: 'm' },
    });
    expect(all.places).toEqual([
      expect.objectContaining({
        row: 3,
        name: 'Tenter Row 1',
        facts: expect.objectContaining({
          medium: 'natural gas',
          meterKind: 'diaphragm-U6-G4',
          meterVolume: '8 l',
          nominal: '22 × 0.9',
          length: '12.5 m',
          counted: [
            { word: 'boiler', count: 1 },
            { word: 'hob', count: 2 },
          ],
        }),
      }),
    ]);
  });
  test.each<[Partial<Record<string, string>>, RegExp]>([
    [{ type: 'steam' }, /What it is: “steam” is nothing that is tested here. Write one of: gas/],
    [{ meter: 'big one' }, /Meter: .*Write one of: diaphragm U6/],
    [{ meter: 'another meter' }, /Meter volume: is needed for this class/],
    [{ size: '22', length: '' }, /Length of all pipe: is needed: the volume/],
    [{ size: '23' }, /Largest size: “23” is no one size of .*22 × 0.9/],
    [{ length: 'twelve' }, /Length of all pipe: “twelve” is not a figure with a decimal comma/],
    [{ length: '-3' }, /length.*/i],
    [{ things: 'robot' }, /What stands on it: “robot” is none of what is counted here: boiler/],
    [{ things: '99 hob' }, /./],
    [{ type: '' }, /What it is: is needed to enter the installation/],
  ])('%j: the place is kept, and why its installation is not is said', (over, words) => {
    const all = read(`${head}${row()}\n${row(over)}\n`);
    expect(said(all).join(' ')).toMatch(words);
    expect(all.places.map((p) => Boolean(p.facts))).toEqual([true, false]);
  });
  test('a row without a place is refused; a gas meter that nobody named was not looked at', () => {
    const all = read(`${head}${row({ site: '' })}\n${row({ meter: '' })}\n`);
    expect(said(all)).toEqual(['2 Place: is empty, and needed']);
    expect(all.places[0]!.facts).toMatchObject({ meterKind: 'unknown', meterVolume: '0 l' });
  });
  test('places alone are enough', () => {
    const all = read('Place,Address\nKiln,3 Kiln Lane\n');
    expect([said(all), all.places]).toEqual([
      [],
      [{ row: 2, name: 'Kiln', address: '3 Kiln Lane', customer: '', facts: undefined }].map(
        ({ facts: _f, ...p }) => p,
      ),
    ]);
  });
  test('ducts ask for the floor they serve, drains for no pressure', () => {
    const ducts =
      'Place,What it is,Floor served (m2),Appliances\nHall,air ducts,,"4 supply register, 2 return grille"\n';
    const all = read(ducts.replace(',,"', ',120,"'));
    expect(said(all)).toEqual([]);
    expect(all.places[0]!.facts!.asked).toEqual([{ key: 'floorServed', value: '120 m2' }]);
    const drain = read('Place,What it is,Largest size,Length (ft)\nHall,drain,4 in,30\n');
    expect([said(drain), drain.places[0]!.facts!.workingPressure]).toEqual([[], '0 mbar']);
  });
});

describe('appliances and gauges', () => {
  test('what nobody said of pilot and lid stays unsaid', () => {
    const all = read(
      'Place,Appliance,Room,Has a pilot,Volume (l)\nKiln,Oven,loft,,0.4\nKiln,Hob,shop,no,x\n',
    );
    expect(said(all)).toEqual(['3 Volume inside its valve: “x” is not a figure with a decimal point.']);
    expect(all.appliances).toEqual([
      expect.objectContaining({ name: 'Oven', where: 'loft', hasPilot: null, hasLid: null, volume: '0.4 l' }),
    ]);
  });
  test('gauges: ranges, steps in the unit of the range, vacuum, and what the form would refuse', () => {
    const all = read(
      [
        'Gauge,Serial number,Kind,Range,Step it shows,Calibrated on,Calibration due',
        'G-07,40071,digital,0 to 130 mbar,0.01,2026-06-02,2027-06-02',
        'V-01,,Digital,0 to 20000 micron,1 micron,,',
        'G-08,2,digital,0 to 130 mbar,200,,',
        'G-09,3,clockwork,0 to 130 mbar,1,,',
        'G-10,4,dial,0 to 130 mbar,1,2026-06-02,',
        'G-11,5,dial,0 to 130 mbar,1,2.6.2026,2.6.2027',
      ].join('\n'),
    );
    expect(all.gauges.map(({ gauge: g }) => [g.name, g.serial, g.least, g.greatest, g.resolution])).toEqual([
      ['G-07', '40071', '0.00 mbar', '130 mbar', '0.01 mbar'].map((x) => (x === '0.00 mbar' ? '0 mbar' : x)),
      ['V-01', 'not entered', '0 micron', '20000 micron', '1 micron'],
    ]);
    expect(said(all).map((s) => s.slice(0, 20))).toHaveLength(4 + 1);
  });
});

test('hostile tables: every row is read or listed, and what was read can be sent', () => {
  const cell = fc.oneof(
    fc.string({ maxLength: 20 }),
    fc.constantFrom(
      'gas',
      'drain',
      '12 m',
      '22 × 0.9',
      'boiler',
      '-1 m',
      '1e9 m',
      'no',
      '\u0000',
      '0 to 1 bar',
    ),
  );
  fc.assert(
    fc.property(
      fc.constantFrom(...TABLE_KEYS),
      fc.array(fc.array(cell, { maxLength: 14 }), { maxLength: 12 }),
      (table, body) => {
        const rows = [columnsOf(table).map((c) => c.title), ...body];
        const mapping = guessTable(rows, ',', table);
        const all = readTable(rows, mapping, METERS);
        const bad = new Set(all.errors.map((e) => e.row));
        const good = all[table].map((r) => r.row);
        expect(new Set([...bad, ...good]).size).toBe(all.rows);
        const { places, appliances, gauges } = all;
        expect(bringInSchema.isValidSync({ places, appliances, gauges }, { strict: true })).toBe(true);
        for (const p of places) if (p.facts) firstFactsSchema.validateSync(p.facts, { strict: true });
      },
    ),
    { numRuns: 150 },
  );
});
test('a table is known again by its headings', () => {
  const rows = [['Our places'], ['Site', ' Street ']];
  expect(shapeOfTable(rows, 2)).toBe('table|site|street');
});
