import fc from 'fast-check';
import { meaningOf } from './meaning';
import { type TableFacts, tableRequest } from './of-table';

const gas: TableFacts = {
  filling: 'gas',
  give: 0.02,
  perKelvin: 0,
  stretches: false,
  supply: null,
  matters: 1e-3 / 3600,
};
/** 20 l at 20.5 mbar that lose so much an hour; a reading every 20 s. */
const leaking = (litres: number, celsius?: (i: number) => number) =>
  Array.from({ length: 40 }, (_, i) => {
    const rate = (litres / 3600) * (1013.25 / 20);
    return {
      at: i * 20_000,
      p: Math.round(2050 * Math.exp((-rate * i * 20) / 20.5)) / 100,
      ...(celsius ? { celsius: celsius(i) } : {}),
    };
  });

test('a pasted leak is told with its rate; a still table stands still', () => {
  const leak = meaningOf(tableRequest(leaking(2), 'mbar', 2, gas))!;
  expect(leak.headline).toMatch(/leak of 2(\.0)? l\/h/);
  expect(leak.rate!.low).toBeLessThan(2.1);
  expect(leak.rate!.high).toBeGreaterThan(1.9);
  const still = leaking(0).map((p) => ({ ...p, p: 20.5 }));
  expect(meaningOf(tableRequest(still, 'mbar', 2, gas))!.headline).toMatch(/^Stands still/);
});
test('a column of temperatures counts as read: what they explain is warmth', () => {
  // a kelvin down in 13 min moves 20 mbar by 3.5 mbar: nothing else is left
  const cooling = leaking(0).map((p, i) => ({
    ...p,
    p: Math.round(2050 - (i * 352.4) / 39) / 100,
    celsius: 19 - i / 39,
  }));
  const read = meaningOf(tableRequest(cooling, 'mbar', 2, gas))!;
  expect(read.headline).toBe('Moves as warmth moves it.');
  const bare = cooling.map(({ at, p }) => ({ at, p }));
  expect(meaningOf(tableRequest(bare, 'mbar', 2, gas))!.told).not.toBe('temperature');
});
test('says what is missing, and what does not go together', () => {
  const table = leaking(1);
  const wrong =
    (over: Partial<TableFacts>, unit: 'mbar' | 'mm' = 'mbar', points = table) =>
    () =>
      tableRequest(points, unit, 2, { ...gas, ...over });
  expect(wrong({ give: 0 })).toThrow('Enter the volume of the section.');
  expect(wrong({ give: 0, filling: 'liquid' })).toThrow(/stiffness/);
  expect(wrong({ filling: 'level' })).toThrow(/read as a height/);
  expect(wrong({}, 'mm')).toThrow(/heights is a level/);
  expect(wrong({}, 'mbar', table.slice(0, 2))).toThrow(/Three readings/);
  expect(
    wrong(
      {},
      'mbar',
      table.map((p) => ({ ...p, at: 5 })),
    ),
  ).toThrow(/one time/);
  expect(
    wrong(
      {},
      'mbar',
      table.map((p) => ({ ...p, p: -2000 })),
    ),
  ).toThrow(/below a vacuum/);
});
test('any table is answered or refused with a reason', () => {
  const number = fc.double({ min: -1e4, max: 1e4, noNaN: true });
  fc.assert(
    fc.property(
      fc.array(fc.record({ at: fc.integer({ min: 0, max: 1e9 }), p: number }), { maxLength: 30 }),
      fc.constantFrom('gas' as const, 'liquid' as const, 'vacuum' as const),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (points, filling, give) => {
        try {
          const meaning = meaningOf(tableRequest(points, 'mbar', 2, { ...gas, filling, give }));
          for (const c of meaning?.causes ?? []) expect(Number.isFinite(c.percent)).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(RangeError);
          expect((error as Error).message.length).toBeGreaterThan(20);
        }
      },
    ),
    { numRuns: 60 },
  );
});
