// @further plastic pipe of three kinds conducted by two schools, each for hours of its own time
import fc from 'fast-check';
import type { Parted } from './parted';
import { stretchFadesAt, trappedAir } from '@/core/medium/liquid';
import { planOf, dyeHouse, gauges } from '@/core/testing/quarter';
import { scribe } from '@/core/testing/bakery';
import { exact, formatExact } from '@/core/quantity/exact';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { playScript, type ScriptLine } from '@/core/run/script';
import { reduce } from '@/core/run/reduce';
import { liquidAt } from '@/core/testing/worlds';
import type { LiquidAction } from './liquid';
import { type LiquidFault, type LiquidTruth, liquidTruth, type SimulatedLiquid } from './liquid-truth';

const began = Date.parse('2026-11-20T08:00:00.000Z');
const s = (seconds: number) => began + seconds * 1000;
const section = (
  fault: LiquidFault,
  { stretch = 0, ...over }: Partial<SimulatedLiquid> & { stretch?: number } = {},
): SimulatedLiquid => {
  const made = {
    kind: 'liquid' as const,
    seed: 11,
    volume: 0.02,
    stiffness: 2e-11,
    perKelvin: 250_000,
    supply: 0,
    stroke: 5e-6,
    surface: 0,
    step: 1000,
    noise: 0,
    began,
    ...over,
  };
  return { truth: liquidTruth(fault, { ...made, stretch }), ...made };
};
/** Strokes, one a second from `from` on, until the gauge shows the pressure. */
function pumpTo(i: SimulatedLiquid, actions: LiquidAction[], from: number, bar: number, stroke = 1): number {
  let at = from;
  while (liquidAt(i, actions, s(at)).pressure < bar * 1e5) {
    actions.push({ at: s(at), act: 'pump', strokes: stroke });
    at += 1;
    if (at > from + 4000) throw new Error('never reached');
  }
  return at;
}

test('law: asked often or once, the state at a moment is the same within the gauge', () => {
  fc.assert(
    fc.property(
      fc.constantFrom<LiquidFault>('none', 'leak', 'stretch', 'stretch-leak', 'cooling', 'air'),
      fc.integer({ min: 200, max: 1500 }),
      fc.integer({ min: 200, max: 1500 }),
      (fault, a, b) => {
        const i = section(fault, { stretch: 0.1 });
        const actions: LiquidAction[] = [{ at: s(1), act: 'pump', strokes: 3 }];
        const [early, late] = [Math.min(a, b), Math.max(a, b)];
        const idle: LiquidAction = { at: s(early), act: 'gauge', connected: true };
        const direct = liquidAt(i, actions, s(late)).pressure;
        expect(Math.abs(liquidAt(i, [...actions, idle], s(late)).pressure - direct)).toBeLessThan(300);
      },
    ),
    { numRuns: 40 },
  );
});
test('rigid and sound it holds; its strokes say how much air there is', () => {
  const i = section('none');
  const actions: LiquidAction[] = [];
  const at = pumpTo(i, actions, 1, 6);
  const up = liquidAt(i, actions, s(at)).pressure;
  expect(liquidAt(i, actions, s(at + 3600)).pressure).toBeCloseTo(up, -1);
  const airy = section('air');
  const strokes: LiquidAction[] = [];
  const there = pumpTo(airy, strokes, 1, 2);
  const p = liquidAt(airy, strokes, s(there)).pressure;
  const taken = strokes.length * airy.stroke;
  const found = trappedAir(
    taken,
    STANDARD_ATMOSPHERE,
    STANDARD_ATMOSPHERE + p,
    airy.stiffness,
    STANDARD_ATMOSPHERE,
  );
  expect(found.atmospheric / liquidAt(airy, strokes, s(there)).air).toBeCloseTo(1, 2);
  strokes.push({ at: s(there + 1), act: 'air-out' });
  expect(liquidAt(airy, strokes, s(there + 2)).air).toBeLessThan(airy.volume * 0.025);
});
test('a leak falls as Q = k p: by the exponential of a stiff section', () => {
  const i = section('leak', { volume: 0 });
  const actions: LiquidAction[] = [];
  const at = pumpTo(i, actions, 1, 6);
  const [a, b, c] = [0, 1800, 3600].map((t) => liquidAt(i, actions, s(at + t)).pressure);
  expect(a! / b!).toBeCloseTo(b! / c!, 2);
  expect(a! - b!).toBeGreaterThan(1e5);
});
test('cooling takes dp/dT with it; a draw is a step; a passing valve refills', () => {
  const cool = section('cooling', { volume: 0 });
  const up: LiquidAction[] = [];
  const at = pumpTo(cool, up, 1, 6);
  const later = liquidAt(cool, up, s(at + 3000));
  expect(later.pressure - liquidAt(cool, up, s(at)).pressure).toBeCloseTo(
    cool.perKelvin * (later.warmth - liquidAt(cool, up, s(at)).warmth),
    -3,
  );
  const house = section('user', { supply: 400_000 });
  const shut: LiquidAction[] = [{ at: s(5), act: 'supply', open: 'shut' }];
  expect(liquidAt(house, shut, s(890)).pressure).toBeCloseTo(400_000, -2);
  expect(liquidAt(house, shut, s(1900)).pressure).toBeLessThan(300_000);
  const passing = section('let-by', { supply: 400_000 });
  const drawn: LiquidAction[] = [
    ...shut,
    { at: s(10), act: 'tap', open: true },
    { at: s(11), act: 'tap', open: false },
  ];
  expect(liquidAt(passing, drawn, s(300)).pressure).toBeGreaterThan(
    liquidAt(passing, drawn, s(20)).pressure + 5000,
  );
});
test('a drain falls by its loss over all surfaces, and rises when somebody flushes', () => {
  const drain = section('leak', { surface: 0.03 });
  const fill: LiquidAction[] = [{ at: s(1), act: 'fill', millimetres: 60 }];
  const fell = liquidAt(drain, fill, s(2000)).level - liquidAt(drain, fill, s(3800)).level;
  expect(fell).toBeGreaterThan(5);
  const used = section('user', { surface: 0.03 });
  expect(liquidAt(used, fill, s(3600)).level).toBeGreaterThan(62);
});

/* Schools A and B, judged on what the model shows. */
const digits = (pa: number) => formatExact(exact(Math.round(pa / 1000), 2, 'bar'));
/** Raises in stages, pumps back for 30 min, then one of the two schools; figures come from the model alone. */
function played(school: 'third-90' | 'falls', i: SimulatedLiquid) {
  const actions: LiquidAction[] = [];
  const read = (at: number) => digits(liquidAt(i, actions, s(at)).pressure);
  const lines: ScriptLine[] = [
    [5, 'checks'],
    [10, 'gauge', 'W-16'],
    [12, 'zero', '0.00'],
    [20, 'checks'],
  ];
  let at = 30;
  for (const [bar, pause] of [
    [1.8, 121],
    [3.9, 121],
    [6.15, 61],
  ] as const) {
    at = pumpTo(i, actions, at, bar, 1) + 1;
    lines.push([at, 'pump', read(at)]);
    at += pause;
    lines.push([at, 'look', read(at), 'dry']);
  }
  const keep = () => {
    const before = read(at);
    if (Number(before) >= 6.02) return;
    const from = at;
    at = pumpTo(i, actions, at, 6.1, 1) + 1;
    return [from, before] as const;
  };
  keep();
  lines.push([at, 'start', read(at)]);
  const until = at + 1800;
  while (at + 120 < until) {
    at += 120;
    const topped = keep();
    if (topped) lines.push([at, 'topup', topped[1], read(at)]);
  }
  at = Math.max(at, until + 1);
  keep();
  lines.push([at, 'end', read(at)]);
  if (school === 'falls') {
    const p30 = at;
    lines.push([p30 + 1801, 'end', read(p30 + 1801)]);
    const failed = Number(read(p30)) - Number(read(p30 + 1801)) >= 0.6 - 1e-9;
    if (!failed) lines.push([p30 + 9001, 'end', read(p30 + 9001)]);
  } else {
    at += 5;
    lines.push([at, 'checks']);
    // bled, closed, and bled again as the pipe recovers: all within the two minutes
    const from = at;
    while (at < from + 90) {
      if (liquidAt(i, actions, s(at)).pressure > 205_000) {
        actions.push({ at: s(at), act: 'bleed', open: true });
        while (liquidAt(i, actions, s(at)).pressure > 201_000) at += 0.25;
        actions.push({ at: s(at), act: 'bleed', open: false });
      }
      at += 1;
    }
    lines.push([at, 'fill', read(at)]);
    for (const t of [900, 2700, 4500]) lines.push([at + t, 'read', read(at + t)]);
    lines.push([at + 5402, 'end', read(at + 5402)]);
  }
  const plan = planOf('water-hydraulic', {
    gauges: [gauges.wide],
    case: 'plastic',
    system: dyeHouse(),
    choices: { 'plastic-school': school, witness: 'none', leave: 'release' },
  });
  const state = reduce(plan, playScript(plan, lines, { ...scribe(), began }));
  return state.claims['']?.finding ?? null;
}
const pex = (fault: LiquidFault, stretch: number) =>
  section(fault, { stretch, stiffness: 4e-10, stroke: 8e-6, perKelvin: 0 });
describe('plastic pipe made by the model', () => {
  test('moderate stretch, sound: tight by both schools', () => {
    expect(played('third-90', pex('none', 0.1))).toBe('tight');
    expect(played('falls', pex('none', 0.1))).toBe('tight');
  });
  test('strong stretch, sound: passes A, fails B: the same pipe, two published schools', () => {
    expect(played('third-90', pex('stretch', 0.6))).toBe('tight');
    expect(played('falls', pex('stretch', 0.6))).toBe('not-tight');
  });
  test('stretch and leak together fail A as well, whose recovery cannot make up for what is lost', () => {
    expect(played('third-90', pex('stretch-leak', 0.2))).toBe('not-tight');
    expect(played('falls', pex('stretch-leak', 0.2))).toBe('not-tight');
  });
});
test('how long until a leak is steeper than the stretch that fades', () => {
  // a 0.3 bar per e-fold, tc 60 s, a leak of 0.1 bar/h: 3 h less a minute
  expect(stretchFadesAt(30_000, 60, 10_000 / 3600)).toBeCloseTo(10_740, 0);
});

describe('what valves inside part', () => {
  const parted: Parted = {
    cells: [
      { holds: ['point'], share: 0.6 },
      { holds: ['loft'], share: 0.3 },
      { holds: ['far'], share: 0.1 },
    ],
    valves: [
      { key: 'riser', name: 'riser valve', joins: [0, 1] },
      { key: 'end', name: 'end valve', joins: [1, 2] },
    ],
    point: 0,
  };
  const two = (truth: Partial<LiquidTruth> = {}): SimulatedLiquid => {
    const sound = section('none', { parted });
    return { ...sound, truth: { ...sound.truth, air: 0, ...truth } };
  };
  const turn = (at: number, id: string, open: boolean): LiquidAction => ({
    at: s(at),
    act: 'valve',
    id,
    open,
  });
  const pump: LiquidAction = { at: s(5), act: 'pump', strokes: 2 };
  const at = (i: SimulatedLiquid, actions: LiquidAction[], moment: number) =>
    liquidAt(i, actions, s(moment)).pressure;

  test('a smaller section rises more by the same stroke: by as much as is shut off', () => {
    const whole = at(two(), [pump], 20);
    expect(at(two(), [turn(2, 'riser', false), pump], 20) / whole).toBeCloseTo(1 / 0.6, 3);
    expect(at(two(), [turn(2, 'end', false), pump], 20) / whole).toBeCloseTo(1 / 0.9, 3);
    // unseen it is the same, and nobody sees it shut
    const unseen = two({ shut: ['riser'] });
    expect(at(unseen, [pump], 20) / whole).toBeCloseTo(1 / 0.6, 3);
    expect(liquidAt(unseen, [pump], s(20)).closed).toEqual([]);
  });
  test('a leak behind a shut valve does not show, and is there once it is opened', () => {
    const leaks = two({ leak: 2e-13, at: 'far', shut: ['riser'] });
    expect(at(leaks, [pump], 1800)).toBeCloseTo(at(leaks, [pump], 30), -2);
    const opened = [pump, turn(60, 'riser', true)];
    expect(at(leaks, opened, 900)).toBeLessThan(at(leaks, opened, 70) * 0.98);
  });
  test('both sides come to one pressure: each by what it holds', () => {
    const leaks = two({ leak: 1e-13, at: 'loft' });
    const actions = [pump, turn(10, 'riser', false)];
    const kept = at(leaks, actions, 1210);
    const behind = at(leaks, actions, 10.5) * Math.exp((-1e-13 * 1200) / (2e-11 * 0.3));
    // the far end stands behind it too, and keeps what it had
    const far = at(leaks, actions, 10.5);
    const mixed = at(leaks, [...actions, turn(1210, 'riser', true)], 1210.5);
    expect(mixed / (0.6 * kept + 0.3 * behind + 0.1 * far)).toBeCloseTo(1, 2);
  });
  test('law: valves of a sound section turned in whatever order change no pressure, and lose no water', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.integer({ min: 10, max: 200 }), fc.constantFrom('riser', 'end', 'none'), fc.boolean()),
          {
            maxLength: 12,
          },
        ),
        (turns) => {
          const actions = [pump, ...turns.map(([t, id, open]) => turn(t, id, open))].sort(
            (a, b) => a.at - b.at,
          );
          const all = [...actions, turn(201, 'riser', true), turn(202, 'end', true)];
          expect(Math.abs(at(two(), all, 210) / at(two(), [pump], 210) - 1)).toBeLessThan(1e-3);
        },
      ),
      { numRuns: 60 },
    );
  });
  test('what is made again elsewhere mends nothing', () => {
    const leaks = two({ leak: 2e-13, at: 'loft' });
    const mend = (place: string): LiquidAction => ({ at: s(20), act: 'mend', place });
    const fall = (place: string) => at(leaks, [pump, mend(place)], 30) - at(leaks, [pump, mend(place)], 900);
    expect(fall('point')).toBeGreaterThan(1000);
    expect(Math.abs(fall('loft'))).toBeLessThan(100);
  });
});
test('a vessel that was left in takes water once the pressure is over what it was filled to, by Boyle', () => {
  const sound = section('none');
  const vessel = { gas: 0.004, filled: 150_000 };
  const plain = { ...sound, truth: { ...sound.truth, air: 0 } };
  const left = { ...sound, truth: { ...sound.truth, air: 0, vessel } };
  const pump = (strokes: number): LiquidAction[] => [{ at: s(1), act: 'pump', strokes }];
  // below its filling nothing of it shows
  const low = liquidAt(plain, pump(0.5), s(10)).pressure;
  expect(low).toBeLessThan(150_000);
  expect(liquidAt(left, pump(0.5), s(10)).pressure).toBeCloseTo(low, 0);
  // above it the water that went in stands in walls and gas
  const p = liquidAt(left, pump(100), s(10)).pressure;
  const taken = 2e-11 * p + 0.004 * (1 - (150_000 + STANDARD_ATMOSPHERE) / (p + STANDARD_ATMOSPHERE));
  expect(taken / (100 * 5e-6)).toBeCloseTo(1, 3);
  // and it falls so slowly that a leak looks like none
  const leak = { leak: 2e-14 };
  const fall = (i: SimulatedLiquid) => {
    const at = (t: number) => liquidAt({ ...i, truth: { ...i.truth, ...leak } }, pump(100), s(t)).pressure;
    return (at(30) - at(1830)) / at(30);
  };
  expect(fall(left)).toBeLessThan(fall(plain) / 20);
});
