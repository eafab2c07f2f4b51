import fc from 'fast-check';
import { answerLog } from '@/worker/gauge-log';
import { writeCsv, readCsv, delimiterOf } from '@/wire/csv';
import { guessMapping } from './guess';
import type { LogMapping } from './mapping';
import { readLog, readNumber } from './read-log';
import { wallToUtc } from '@/core/quantity/zone';
import { readClock, readElapsed, readTime } from './read-time';

const ask = (text: string, mapping: LogMapping | null = null, more: object = {}) =>
  answerLog({ text, mapping, zone: 'Europe/London', unit: 'mbar', ...more });

describe('three shapes of logs, guessed from their first rows', () => {
  test('comma, ISO time with a zone, header with units, temperature', () => {
    const { read, mapping } = ask(
      'Timestamp,Pressure (mbar),Temp °C\r\n2026-11-24T08:00:00Z,20.50,18.2\r\n2026-11-24T08:00:10Z,20.48,18.3\r\n',
    );
    expect(mapping).toMatchObject({
      delimiter: ',',
      decimal: '.',
      headerRows: 1,
      pressure: { column: 1, unit: 'mbar' },
      temperature: { column: 2, unit: 'C' },
    });
    expect([read.scale, read.points]).toEqual([
      2,
      [
        { at: Date.parse('2026-11-24T08:00:00Z'), digits: 2050, temperature: 18.2 },
        { at: Date.parse('2026-11-24T08:00:10Z'), digits: 2048, temperature: 18.3 },
      ],
    ]);
  });
  test('semicolon, decimal comma, day first, day and clock apart, words before the table', () => {
    const { read, mapping } = ask(
      'Logger 7;;;\nSerial;HT-2207;;\nNr;Datum;Uhrzeit;Druck [bar]\n1;24.11.2026;08:00:00;2,505\n2;24.11.2026;08:00:30;2,504\n3;24.11.2026;08:01:00;2,503\n',
    );
    expect(mapping).toMatchObject({
      delimiter: ';',
      decimal: ',',
      headerRows: 3,
      time: { column: 1, clock: 2, format: 'dmy' },
      pressure: { column: 3, unit: 'bar' },
    });
    expect(read.points.map((p) => p.digits)).toEqual([2505, 2504, 2503]);
    expect(new Date(read.points[0]!.at).toISOString()).toBe('2026-11-24T08:00:00.000Z');
  });
  test('tab, no header, time since the beginning: asks when it began', () => {
    const text = '0:00:00\t14.20\n0:00:05\t14.19\n0:00:10\t14.18\n';
    expect(ask(text).read.errors[0]!.text).toMatch(/say when it began/);
    const began = Date.parse('2026-11-24T09:00:00Z');
    const { read, mapping } = ask(text, null, { began });
    expect(mapping).toMatchObject({ delimiter: '\t', headerRows: 0, time: { format: 'elapsed' } });
    expect(read.points.map((p) => p.at - began)).toEqual([0, 5000, 10_000]);
  });
});
test('rows that cannot be read are listed with their number and what to do; the others come in', () => {
  const { read } = ask(
    'time,mbar\n2026-11-24 08:00:00,20.50\nyesterday,20.49\n2026-11-24 08:00:20,low\n2026-11-24 08:00:30,\n\n2026-11-24 08:00:40,20.47\n',
  );
  expect(read.points).toHaveLength(2);
  expect(read.errors.map((e) => [e.row, e.column])).toEqual([
    [3, 'time'],
    [4, 'mbar'],
    [5, 'mbar'],
  ]);
  for (const e of read.errors) expect(e.text).toMatch(/not a time|not a figure|missing/);
});
test('numbers as loggers write them, and what is none', () => {
  for (const [text, sign, value] of [
    ['20.35', '.', 20.35],
    ['20,35', ',', 20.35],
    ['1 013,25', ',', 1013.25],
    ['1,013.25', '.', 1013.25],
    ['1.013,25', ',', 1013.25],
    ['−0.02', '.', -0.02],
    ['2.035e1', '.', 20.35],
    ['.5', '.', 0.5],
    ['20.35', ',', null],
    ['1,2,3', '.', null],
    ['', '.', null],
    ['--', '.', null],
  ] as const)
    expect([text, readNumber(text, sign)]).toEqual([text, value]);
});
test('clocks, days and zones: the order of day and month is what was said; days that are not there are none', () => {
  expect([readClock('8:15:30 PM'), readClock('20:15:30'), readClock('24:00'), readClock('12:00 am')]).toEqual(
    [72_930_000, 72_930_000, null, 0],
  );
  expect([readElapsed('15:30'), readElapsed('930'), readElapsed('26:00:00'), readElapsed('0:75')]).toEqual([
    930_000,
    930_000,
    93_600_000,
    null,
  ]);
  expect(readTime('03/04/2026 10:00', 'dmy')!.ms).toBe(Date.UTC(2026, 3, 3, 10));
  expect(readTime('03/04/2026 10:00', 'mdy')!.ms).toBe(Date.UTC(2026, 2, 4, 10));
  expect(readTime('31.02.2026 10:00', 'dmy')).toBeNull();
  expect(readTime('2026-11-24 10:00:00+02:00', 'iso')).toEqual({
    kind: 'absolute',
    ms: Date.UTC(2026, 10, 24, 8),
  });
  // the hour that a clock goes through twice is taken the first time; the one it jumps over goes on
  expect(new Date(wallToUtc(Date.UTC(2026, 9, 25, 1, 30), 'Europe/London')).toISOString()).toBe(
    '2026-10-25T00:30:00.000Z',
  );
  expect(new Date(wallToUtc(Date.UTC(2026, 6, 1, 12), 'Europe/London')).toISOString()).toBe(
    '2026-07-01T11:00:00.000Z',
  );
});

const cell = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.constantFrom('a;b', 'a,b', 'say "so"', 'two\nlines', '  spaced ', 'é', '-1.5', '=1+1', '@x'),
);
test('any table we write we read back, cell by cell (formulas with the apostrophe that keeps them from running)', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 8 }),
      (rows) => {
        const clean = rows.map((r) => r.map((c) => c.replace(/\r/g, '')));
        const back = readCsv(writeCsv(clean), ',').slice(0, clean.length);
        const number = /^[+-]?\d+([.,]\d+)?$/;
        expect(back.map((r) => r.length)).toEqual(clean.map((r) => r.length));
        clean.forEach((r, y) =>
          r.forEach((c, x) => {
            const kept = back[y]![x];
            if (number.test(c)) expect(kept).toBe(c);
            else if (/^\s*[=+\-@]/.test(c)) expect(kept).toBe(`'${c}`);
            // whatever else is guarded, nothing of the cell is lost
            else expect([c, `'${c}`]).toContain(kept);
          }),
        );
      },
    ),
  );
});
test('any log, however it is written, comes back with every moment and every figure', () => {
  const log = fc.array(fc.tuple(fc.integer({ min: 1, max: 600 }), fc.integer({ min: -500, max: 99_999 })), {
    minLength: 3,
    maxLength: 40,
  });
  fc.assert(
    fc.property(
      log,
      fc.constantFrom(',', ';', '\t', '|'),
      fc.constantFrom('.', ','),
      fc.constantFrom('iso', 'dmy', 'mdy', 'unix'),
      fc.boolean(),
      (steps, delimiter, sign, format, header) => {
        const decimal = delimiter === ',' ? '.' : sign;
        let at = Date.UTC(2026, 10, 24, 6);
        const points = steps.map(([s, digits]) => ({ at: (at += s * 1000), digits }));
        const two = (n: number) => String(n).padStart(2, '0');
        const time = (ms: number) => {
          const d = new Date(ms);
          const clock = `${two(d.getUTCHours())}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())}`;
          const [y, m, day] = [d.getUTCFullYear(), two(d.getUTCMonth() + 1), two(d.getUTCDate())];
          return {
            iso: `${y}-${m}-${day} ${clock}`,
            dmy: `${day}.${m}.${y} ${clock}`,
            mdy: `${m}/${day}/${y} ${clock}`,
            unix: String(ms / 1000),
          }[format];
        };
        const figure = (digits: number) => (digits / 100).toFixed(2).replace('.', decimal);
        const rows = points.map((p) => [time(p.at), figure(p.digits)].join(delimiter));
        const text = [...(header ? [['time', 'mbar'].join(delimiter)] : []), ...rows].join('\n');
        expect(delimiterOf(text)).toBe(delimiter);
        const mapping: LogMapping = {
          delimiter,
          decimal,
          headerRows: header ? 1 : 0,
          time: { column: 0, format },
          pressure: { column: 1, unit: 'mbar' },
          aheadSeconds: 0,
        };
        const read = readLog(readCsv(text, delimiter), mapping, {
          zone: 'UTC',
          to: { unit: 'mbar', scale: 2 },
        });
        expect([read.errors, read.points]).toEqual([[], points]);
        // what is guessed reads at least as many rows, except that 3/4 may be taken for 4/3: a person says it
        if (format !== 'mdy')
          expect(guessMapping(readCsv(text, delimiter), delimiter).time).toEqual({ column: 0, format });
      },
    ),
    { numRuns: 150 },
  );
});
test('another unit is turned into that of the gauge; the gauge’s clock is put right', () => {
  const mapping: LogMapping = {
    delimiter: ',',
    decimal: '.',
    headerRows: 0,
    time: { column: 0, format: 'iso' },
    pressure: { column: 1, unit: 'kPa' },
    aheadSeconds: 90,
  };
  const { points } = readLog([['2026-11-24 08:01:30Z', '2.05']], mapping, {
    zone: 'UTC',
    to: { unit: 'mbar', scale: 2 },
  });
  expect(points).toEqual([{ at: Date.parse('2026-11-24T08:00:00Z'), digits: 2050 }]);
});
