import { standingOf, type DatedEntry, type LogEntry } from '@/core/instrument/kit';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { bakery } from '@/core/testing/bakery';
import { boreOf, PIPE_TABLES, pipeFigures, pipeWall } from './pipes';
import { sectionVolume, systemStiffness, volumeUncertainty } from './section';

describe('pipe tables', () => {
  test('known sizes: bore = outside less two walls (and linings)', () => {
    const bore = (t: string, s: string) => pipeFigures(t, s).bore;
    expect(bore('copper-thin', '28 × 0.9')).toEqual(q('26.20 mm'));
    expect(bore('steel-en10255', 'DN 25 (1)')).toEqual(q('27.30 mm'));
    expect(bore('steel-sch40', '1 in')).toEqual(q('1.0490 in'));
    expect(bore('copper-l', '½ in')).toEqual(q('0.5450 in'));
    expect(bore('pe-sdr11', '63 × 5.8')).toEqual(q('51.40 mm'));
    expect(bore('pex-cts', '¾ in')).toEqual(q('0.6810 in'));
    expect(bore('iron-en545', 'DN 100')).toEqual(q('101.20 mm')); // 118 - 2 x (4.4 + 4)
  });
  test('the nominal size is what tables go by: DN for steel, inches by name, else the outside diameter', () => {
    const nominal = (t: string, k: string) => pipeFigures(t, k).nominal;
    expect(nominal('steel-en10255', 'DN 32 (1¼)')).toEqual(q('32 mm')); // outside 42.4: still a 32 mm pipe
    expect(nominal('steel-sch40', '1¼ in')).toEqual(q('1.250 in'));
    expect(nominal('copper-l', '3/8 in')).toEqual(q('0.375 in'));
    expect(nominal('copper-thin', '35 × 1.2')).toEqual(q('35.00 mm'));
  });
  test('every size is pipe: walls thinner than the radius, sizes named once, plastic by its ratio', () => {
    for (const t of PIPE_TABLES) {
      expect(new Set(t.sizes.map((s) => s.key)).size).toBe(t.sizes.length);
      for (const s of t.sizes) {
        expect([t.key, s.key, boreOf(s) > 0.5 * s.outside]).toEqual([t.key, s.key, true]);
        expect(pipeWall(t.key, s.key).wall).toBeGreaterThan(0);
      }
    }
    for (const s of PIPE_TABLES.find((t) => t.key === 'pe-sdr11')!.sizes)
      expect(Math.abs(s.outside / s.wall - 11)).toBeLessThan(1.01);
    for (const s of PIPE_TABLES.find((t) => t.key === 'pex-cts')!.sizes)
      expect(Math.abs(s.outside / s.wall - 9)).toBeLessThan(1.9);
    expect(() => pipeFigures('copper-thin', '29 × 1.0')).toThrow(/has no size/);
    expect(() => pipeFigures('wood', 'x')).toThrow(/no pipe table/);
  });
});

describe('volume and stiffness of a system', () => {
  const wet = bakery({
    medium: 'water',
    pipes: [
      {
        id: 'a',
        name: 'Riser',
        material: 'copper',
        table: 'copper-standard',
        nominal: '22 × 1.0',
        bore: pipeFigures('copper-standard', '22 × 1.0').bore,
        size: q('22 mm'),
        length: q('100 m'),
      },
    ],
    appliances: [],
  });
  test('a hundred metres of 22 mm copper: 31.4 l, 2.0 ml a bar, and what a kelvin does', () => {
    const s = systemStiffness(wet, 600_000)!;
    // pi/4 x .02^2 x 100 = 31.416 l; x (1/2.2e9 + .022/(120e9 x .001)) = 2.0041e-11 m3/Pa
    expect(s.c * 1e11).toBeCloseTo(2.0041, 3);
    expect(s.perKelvin / 1e5).toBeCloseTo((0.031416 * (1.5075e-4 - 5.1e-5)) / 2.0041e-11 / 1e5, 1);
  });
  test('five litres of gas make it far softer; a pipe in no table gives no stiffness', () => {
    const soft = systemStiffness({ ...wet, gasInside: q('5 l') }, 600_000)!;
    expect(soft.c / systemStiffness(wet, 600_000)!.c).toBeGreaterThan(100);
    expect(systemStiffness(bakery(), 2000)).toBeNull();
  });
  test('a measured volume stands in place of the lengths with its own uncertainty; a table knows a bore better than a hand', () => {
    const by = bakery({
      measured: { by: 'draw', volume: q('24.5 l'), uncertainty: q('3 %'), said: '0.1 l drawn' },
    });
    expect(sectionVolume(by).value).toBeCloseTo(0.0245, 9);
    expect(volumeUncertainty(by)).toBe(0.03);
    expect(sectionVolume(by, false).value).toBe(sectionVolume(by, true).value);
    const handed = { ...wet, pipes: wet.pipes.map(({ table: _t, nominal: _n, ...p }) => p) };
    expect(volumeUncertainty(wet)).toBeLessThan(volumeUncertainty(handed));
  });
});

describe('what a log says of a thing', () => {
  const at = (day: number, entry: LogEntry): DatedEntry => ({
    id: String(day),
    at: new Date(Date.UTC(2026, 10, day)).toISOString(),
    by: 'x',
    entry,
  });
  const now = Date.UTC(2026, 10, 24);
  const zero = (good: boolean): LogEntry => ({ what: 'zero', figure: q('0.02 mbar'), good });
  test('dropped: must zero until a later good zero; off zero: until a good one', () => {
    const drop: LogEntry = { what: 'dropped', text: '' };
    expect(standingOf([at(1, zero(true)), at(2, drop)], now).mustZero).toMatch(/dropped, 2026-11-02/);
    expect(standingOf([at(3, zero(true)), at(2, drop)], now).mustZero).toBe(''); // in any order
    expect(standingOf([at(3, zero(false)), at(2, zero(true))], now).mustZero).toMatch(/off zero/);
    expect(standingOf([], now).mustZero).toBe('');
  });
  test('out of use until returned; the age of a blank in whole days', () => {
    expect(standingOf([at(1, { what: 'rejected', text: 'flickers' })], now).withdrawn).toBe('flickers');
    expect(
      standingOf(
        [at(1, { what: 'rejected', text: 'flickers' }), at(2, { what: 'returned', text: 'mended' })],
        now,
      ).withdrawn,
    ).toBe('');
    const blank = standingOf(
      [at(4, { what: 'blank', pressure: q('25 mbar'), loss: q('0 mbar'), minutes: 10 })],
      now,
    ).lastBlank!;
    expect(blank.days).toBe(20);
  });
});
