import fc from 'fast-check';
import { gasHoldSees, smallestVisibleLeak } from '@/core/adequacy/gas';
import { HOUSE_TEMPERATURE } from '@/core/adequacy/house';
import { perceptibleMovement, type Gauge } from '@/core/instrument/gauge';
import { leakRate } from '@/core/medium/gas';
import { exact } from '@/core/quantity/exact';
import { UNITS, type Unit } from '@/core/quantity/unit';
import { desk } from '@/cli/desk';
import { DESK_LINES, deskLine } from '.';
import { DeskError } from './types';
import { deskLink, deskResult, parseEntry, readDeskLink, unitChoices, type Entry } from './work';

/** Works a line out from "V=20l p0=21mbar" as the command line does; the first figure in its unit. */
function work(id: string, text: string): Record<string, number | string> {
  const { text: out, code } = desk([id, ...text.split(' ').filter(Boolean)]);
  const value = JSON.parse(out);
  if (code) throw new Error(`${value.error.field}: ${value.error.text}`);
  return Object.fromEntries(
    Object.entries(value.outputs as Record<string, { value?: number; text: string }>).map(([k, o]) => [
      k,
      o.value ?? o.text,
    ]),
  );
}

/** Worked by hand, or given by the handbook; the comment says how. */
test.each<[string, string, Record<string, number | RegExp>]>([
  // 20 l, 0.5 mbar in 2 min: 0.020/101325 x 50 Pa x 30 /h = 0.2961 l/h
  ['leak-rate', 'V=20l p0=20.5mbar p1=20mbar t=2min', { Q: 0.29608 }],
  // same reading, gas warmed 20 -> 20.1 C: (103375 x 293.25/293.15 - 103325) x 0.02/101325 x 30
  ['leak-rate', 'V=20l p0=20.5mbar p1=20mbar t=2min T0=20C T1=20.1C', { Q: 0.50489 }],
  // k p0 = Q nearly; P_atm k t / V = 101325 x (1 l/h / 2019.8 Pa..) small: 10 min of 1 l/h from 20 l at 20 mbar, e-fold
  ['laminar-leak', 'V=20l p0=20mbar Q=1l/h t=10min', { p: 13.122 }], // V dP/dt = -k (P2 - A2) / 2 integrated in 200,000 steps
  // 150 to 21 mbar: (1034.25^2-..)/(…) : (2*1013.25*21+441)/(2*1013.25*150+22500) = 0.1316; root(21/150) = 0.3742
  ['rate-at-pressure', 'Q=1l/h p1=150mbar p2=21mbar', { laminar: 0.13168, orifice: 0.37417 }],
  ['other-gas', 'Q=1l/h gas=propane law=orifice', { gas: 0.8 }], // handbook 7.1
  ['gas-temperature', 'p=20mbar T=20C dT=1K', { perKelvin: 3.5246 }], // 1033.25/293.15; handbook: 3.5 mbar per K
  ['gas-temperature', 'p=3psi T=20C dT=1K', { change: 4.162 }], // 0.060 psi per K, in mbar
  // slopes made from 0.4 l/h in at zero and 1.2 l/h out at 21 mbar, 20 l, with s = (P2 - A2) / 2A by hand
  [
    'two-slopes',
    'V=20l ps=21mbar pa=4mbar sa=0.0825532560mbar/min pb=16mbar sb=-0.6890696988mbar/min',
    { in: 0.4, out: 1.2, balance: 5.2906, says: /^Both act/ },
  ],
  // the same section without the let-by
  [
    'two-slopes',
    'V=20l ps=21mbar pa=4mbar sa=-0.191397557997558mbar/min pb=16mbar sb=-0.770114774114774mbar/min',
    { out: 1.2, says: /^A leak alone/ },
  ],
  ['balance-pressure', 'ps=21mbar in=1l/h out=2l/h', { p: 7.048 }], // s(p) = s(21) / 3
  ['pool-plugs', 'ends=1', { open: 1 }],
  ['drawn-volume', 'drawn=0.1l before=21mbar after=17mbar', { V: 25.33125 }], // 0.1 x 1013.25/4
  // 4.01325 bar x 50 l / 0.4 x (1 - (1.01325/4.01325)^0.2857) = 16.3 kJ; water p2 V/2K = 9e10 x .05/4.4e9 = 1.02 J
  ['stored-energy', 'V=50l p=3bar', { gas: 16314, water: 1.02273 }],
  ['pipe-volume', 'bore=26.2mm length=10m', { V: 5.39129 }], // pi/4 x .0262^2 x 10
  ['stroke-volume', 'n=32 stroke=45ml', { V: 1.44 }],
  // 0.2 m3 x (1/2.2e9 + 0.022/(120e9 x .001)) = 0.2 x 6.379e-10 = 1.2758e-10 m3/Pa = 12.758 ml/bar
  ['stiffness', 'V=200l D=22mm e=1mm material=copper', { C: 12.7576, ml: 0.078385 }],
  // 5 l of gas at 6 bar gauge: + 0.005/701325 = 7.13e-9: 56.9 times softer
  ['stiffness', 'V=200l D=22mm e=1mm material=copper air=5l p=6bar', { C: 725.69 }],
  ['liquid-fall', 'C=5ml/bar Q=0.1l/h t=60min', { dp: -20 }], // 100 ml at 5 ml/bar
  ['loss-from-fall', 'C=5ml/bar dp=0.2bar t=60min', { V: 1, Q: 0.001 }],
  // steel, 200 l, DN 50: handbook: about +1 bar/K at 10 C, +3 at 20 (C of a steel pipe 60.3 x 3.6)
  ['liquid-temperature', 'V=200l C=10.69ml/bar T=10C dT=1K material=steel', { perKelvin: 0.9723 }],
  ['liquid-temperature', 'V=200l C=10.69ml/bar T=20C dT=1K material=steel', { perKelvin: 3.195 }],
  ['liquid-temperature', 'V=200l C=400ml/bar T=20C dT=1K material=PE-X', { perKelvin: -0.1591 }], // negative: warming lowers
  // 120 ml for 1 -> 3 bar, C 5: (120 - 10)/(1 - 2.01325/4.01325) = 220.7 ml at 1 bar
  ['trapped-air', 'dV=120ml p1=1bar p2=3bar C=5ml/bar V=200l', { air: 220.73, atmospheric: 0.43857 }],
  ['stretch', 'p0=9bar a=0.35bar tc=5min t=30min Q=0.1l/h C=50ml/bar', { p: 8.31892, fades: 5.5 }], // slope 2 bar/h
  ['decay-loss', 'p0=10bar p1=8bar V=2l t=120min', { mean: 1, laminar: 1.11572, orifice: 1.05573 }], // 10 ln1.25/2; 2/(1+sqrt .8)
  ['head', 'h=10ft', { p: 298.907 }], // 4.33 psi
  ['water-density', 'T=20C', { rho: 0.998204, beta: 2.0678e-4 }], // handbook 2.07e-4
  // pm .02 + 1.65 sqrt(.01^2/6 + (3.5263 x .1)^2 + .0333^2) = .60446 mbar; x 20/1013.25 x 30
  ['smallest-leak-gas', 'V=20l p=20.5mbar r=0.01mbar t=2min', { dp: 0.60451, q: 0.35796 }],
  ['smallest-leak-liquid', 'C=12ml/bar r=0.01bar t=60min dpdT=1bar/K uT=0.1K', { dp: 0.18514, q: 0.0022217 }],
  [
    'gauge-part',
    'p=3psi scale=15psi r=0.1psi limit=0.2psi',
    { share: 20, says: /Not in the middle half.*Fine enough/ },
  ],
  [
    'gauge-part',
    'p=3.75psi scale=15psi r=0.11psi limit=0.2psi',
    { share: 25, says: /In the middle half.*Too coarse/ },
  ],
  ['air-test-pressure', 'p=0.25psi', { low: 3 }],
  ['air-test-pressure', 'p=1psi', { low: 10, scale: 50 }], // exactly at medium pressure: the whole at 10 psi
  ['air-test-pressure', 'p=7psi', { low: 10.5 }],
  ['air-test-hold', 'V=9.99ft3', { t: 10 }],
  ['air-test-hold', 'V=10ft3', { t: 30 }],
  ['air-test-hold', 'V=501ft3', { t: 60 }],
  ['new-line-hold', 'V=100l', { settle: 30, measure: 20 }],
  ['lock-up', 'set=7inWC', { high: 9 }],
  ['seepage-start', 'static=7inWC', { low: 4.9, high: 5.25 }],
  ['dial-rate', 'turns=1 per=0.5ft3 t=30s H=1000Btu/ft3', { Q: 60, input: 17.5843 }], // 60 000 Btu/h
  ['dial-watch', 'per=0.5ft3', { t: 5, q: 3.398 }], // 0.02 x 14.158 l x 12
  ['hydraulic-pressure', 'p=6bar m=1.5 weak=10bar', { p: 9, says: /multiple decides/ }],
  ['hydraulic-pressure', 'p=6bar m=1.5 weak=8bar', { p: 8, wanted: 9, says: /weakest/ }],
  ['hydraulic-pressure', 'p=6bar m=1.5 weak=5bar', { says: /no test is possible/ }],
  ['plastic-school-a', 'stp=9bar', { low: 3, high: 3.1, t: 90 }],
  ['plastic-school-b', 'p30=9bar p60=8.4bar p180=8.3bar', { says: /60 min reaches its limit/ }], // exactly 0.6: too much
  ['plastic-school-b', 'p30=9bar p60=8.41bar p180=8.22bar', { says: /under their limits/ }],
  ['plastic-school-b', 'p30=9bar p60=8.41bar p180=8.21bar', { says: /180 min reaches its limit/ }], // exactly 0.2: too much
  ['dry-hold', 'V=100l dn=50mm', { t: 120, load: 3 }],
  ['dry-hold', 'V=101l dn=63mm', { t: 140, load: 1 }],
  ['drain-level', 'A=250cm2 t=30min', { q: 0.1, perMm: 0.025 }], // 50 ml in half an hour
  ['drain-head', 'level=0.1m lowest=-1.4m', { p: 147.1 }],
  ['drain-loss', 'S=12m2 t=30min', { V: 1.8 }],
  ['main-loss-us', 'S=1000ft D=6in P=150psi', { L: 0.49652 }], // 6000 x 12.247 / 148000
  // the metric twin: 304.8 x 152.4 x sqrt(1034.21 kPa) / 794798 = 1.8795 l/h = 0.4965 gal/h
  ['main-loss-us', 'S=304.8m D=152.4mm P=1034.21359395kPa', { L: 0.49652 }],
  ['main-loss-eu', 'V=2400l dp=20kPa D=118mm e=4.4mm', { V: 0.036518 }], // 1.2 x 2.4 x 2e4 x (4.762e-10 + 1.578e-10)
  ['main-air-check', 'V=2400l dp=500kPa D=118mm e=4.4mm', { V: 1.14117 }],
  ['main-heights', 'p=8bar up=21m down=4m', { test: 12, top: 9.9406, foot: 12.392, says: /falls below/ }],
  ['pool-plugs', 'ends=4', { closed: 3, open: 1 }],
  ['pool-pressure', 'D=2in pump=18psi plug=25psi', { low: 15, high: 18 }],
  ['pool-pressure', 'D=2.5in pump=30psi plug=25psi school=wide', { low: 5, high: 15 }],
  // handbook 5.1 check values, bar absolute at 25 C (R744 at 20 C)
  ['saturation', 'T=25C fluid=R134a', { abs: 6.641 }],
  ['saturation', 'T=25C fluid=R410A', { abs: 16.568 }],
  ['saturation', 'T=25C fluid=R407C', { abs: 11.87 }],
  ['saturation', 'T=25C fluid=R290', { abs: 9.517 }],
  ['saturation', 'T=20C fluid=R744', { abs: 57.434 }],
  ['strength-pressure', 'PS=28bar f=1.1 weak=42bar', { p: 30.8, tight: 28 }],
  ['nitrogen-temperature', 'p=28bar T0=20C T1=17C', { change: -0.318 }], // 0.34 %/K ideal = 0.297, and about 7 % more
  ['refrigerant-loss', 'Q=0.01ml/min T=20C fluid=R134a', { m: 22.305 }], // 5.256 l x 4.2416 g/l
  [
    'duct-exponent',
    'Q1=60CFM p1=25Pa Q2=39.58CFM p2=12.5Pa Q3=90.94CFM p3=50Pa',
    { n: 0.6, Q: 60, says: /^Follows/ },
  ],
  ['standing-vacuum', 'p0=60Pa p5=90Pa p10=110Pa', { says: /^Tight/ }],
  ['standing-vacuum', 'p0=60Pa p5=140Pa p10=220Pa', { says: /^Not tight/ }],
  ['standing-vacuum', 'p0=60Pa p5=150Pa p10=190Pa', { says: /^Moisture/ }],
  ['standing-vacuum', 'p0=60Pa p5=90Pa p10=80Pa', { says: /^No result/ }],
  ['standing-vacuum', 'p0=60Pa p5=40Pa p10=45Pa', { says: /^No result/ }],
  ['duct-floor-limit', 'A=1800ft2', { Q: 72 }],
  ['duct-surface-limit', 'S=40m2 p=400Pa class=B', { Q: 17.6828 }], // 0.009 x 400^.65 x 40
  ['duct-flow', 'Q=60CFM p1=20Pa p2=25Pa', { Q: 68.596 }], // x 1.25^.6
  ['duct-halving', 'Q1=60CFM p1=25Pa Q2=39.6CFM p2=12.5Pa u=3%', { n: 0.59946, ratio: 0.66 }],
  ['duct-reading', 'Q=72CFM L=72CFM B=3CFM', { says: /Within/ }], // exactly at the limit
  ['duct-reading', 'Q=75CFM L=72CFM B=3CFM', { says: /Unresolved/ }],
  ['duct-reading', 'Q=75.1CFM L=72CFM B=3CFM', { says: /Beyond/ }],
  // NIST SP 811: 1 psi = 6.894757 kPa; 1 inch of water 249.0889 Pa, at 60 F 248.84; 1 foot 2.989067 kPa; 1 inHg 3.386389 kPa
  [
    'convert-pressure',
    'p=1psi',
    {
      in_mbar: 68.94757,
      in_inWC: 27.67991,
      in_inWC60: 27.70759,
      in_ftWC: 2.306659,
      in_atm: 0.06804596,
      in_at: 0.07030696,
      in_inHg: 2.036021,
      in_mmHg: 51.71493,
    },
  ],
  [
    'convert-vacuum',
    'p=500micron',
    { in_Torr: 0.5, in_Pa_abs: 66.6612, in_mbar_abs: 0.666612, below: -1012.583 },
  ],
  ['convert-temperature', 'T=-40C', { in_F: -40, in_K: 233.15 }],
  ['convert-temperature', 'T=212F', { in_C: 100 }],
  ['convert-volume', 'x=1gal', { in_l: 3.785412, in_in3: 231, in_floz: 128 }],
  ['convert-flow', 'x=1CFM', { in_l_s: 0.4719474, in_m3_h: 1.699011 }],
  ['convert-flow', 'x=1ft3/h', { in_l_h: 28.31685 }],
  ['altitude-barometer', 'h=0m', { P: 1013.25, inHg: 29.9213 }],
  ['altitude-barometer', 'h=1000m', { P: 898.746 }], // the table of the standard
  ['altitude-barometer', 'h=5000m', { P: 540.199 }],
  ['altitude-barometer', 'h=5280ft sea=1013.25mbar', { P: 834.4 }],
  ['altitude-barometer', 'h=500m sea=990mbar', { P: 932.7 }],
  ['duct-range', 'L=20CFM ref=25Pa least=30CFM n=0.6', { p: 49.14 }], // 25 x 1.5^(1/.6)
])('%s %s', (id, text, expected) => {
  const found = work(id, text);
  for (const [key, value] of Object.entries(expected))
    if (value instanceof RegExp) expect(found[key]).toMatch(value);
    else expect(Math.abs((found[key] as number) / value - 1)).toBeLessThan(2e-3);
});

test('every line works out as it stands, shows a twin, its working and its sensitivity, and is found by its link', () => {
  expect(new Set(DESK_LINES.map((f) => f.id)).size).toBe(DESK_LINES.length);
  for (const f of DESK_LINES) {
    const r = deskResult(f);
    expect([f.id, r.outputs.length > 0, r.working.length > 0, f.source.length > 10]).toEqual([
      f.id,
      true,
      true,
      true,
    ]);
    const link = deskLink(
      f,
      { [f.inputs[0]!.key]: { text: f.inputs[0]!.value, unit: f.inputs[0]!.unit } },
      {},
    );
    expect(readDeskLink(DESK_LINES, link)?.formula.id).toBe(f.id);
  }
});

test('the same figure entered in any unit of its dimension gives the same result to 1e-9', () => {
  for (const f of DESK_LINES)
    for (const i of f.inputs) {
      if (i.value === '') continue;
      const own = deskResult(f);
      for (const unit of unitChoices(i.unit)) {
        const offset: Partial<Record<Unit, number>> = { C: 273.15, F: 459.67 };
        const value = Number(i.value);
        const other =
          i.kind === 'temperature'
            ? ((value + (offset[i.unit] ?? 0)) * UNITS[i.unit].si) / UNITS[unit].si - (offset[unit] ?? 0)
            : (value * UNITS[i.unit].si) / UNITS[unit].si;
        const twin = deskResult(f, { [i.key]: { text: String(other), unit } });
        own.outputs.forEach((o, k) => {
          if (o.value === null) expect(twin.outputs[k]!.text).toBe(o.text);
          else
            expect(Math.abs(twin.outputs[k]!.value! - o.value)).toBeLessThanOrEqual(
              1e-9 * Math.max(1e-12, Math.abs(o.value)),
            );
        });
      }
    }
});

test('each output agrees with its twin to 1e-9', () => {
  for (const f of DESK_LINES)
    for (const o of deskResult(f).outputs)
      if (o.twin && o.unit !== 'C' && o.unit !== 'F')
        expect(
          Math.abs(
            (o.twin.value * UNITS[o.twin.unit].si) / (o.value! * UNITS[o.unit!].si || 1) - (o.value ? 1 : 0),
          ),
        ).toBeLessThan(1e-9);
});

const bad = ['', 'abc', 'Infinity', '-Infinity', 'NaN', '1e999', '1,500', '1,2,3', '1,2.3', '1e'];
test('bad input is refused with the name of the field, on every input of every line', () => {
  for (const f of DESK_LINES)
    for (const i of f.inputs) {
      const refused = (entry: Entry) => {
        try {
          deskResult(f, { [i.key]: entry });
        } catch (error) {
          expect(error).toBeInstanceOf(DeskError);
          return (error as DeskError).field;
        }
        return 'accepted';
      };
      for (const text of bad)
        if (text || i.value !== '')
          expect([f.id, i.key, text, refused({ text, unit: i.unit })]).toEqual([f.id, i.key, text, i.key]);
      const foreign = (Object.keys(UNITS) as Unit[]).find(
        (u) => UNITS[u].dimension !== UNITS[i.unit].dimension,
      )!;
      expect(refused({ text: '1', unit: foreign })).toBe(i.key);
      if (i.kind === 'positive' || i.kind === 'absolute')
        expect(refused({ text: '0', unit: i.unit })).toBe(i.key);
      if (i.kind === 'gauge') expect(refused({ text: '-20', unit: 'bar' })).toBe(i.key);
      if (i.kind === 'temperature') expect(refused({ text: '-300', unit: 'C' })).toBe(i.key);
    }
});

test('the command line lists, answers, and refuses with the field and exit 2', () => {
  const list = JSON.parse(desk(['--list']).text) as {
    id: string;
    inputs: { dimension?: string; unit?: string }[];
    source: string;
  }[];
  expect(list.map((x) => x.id)).toEqual(DESK_LINES.map((f) => f.id));
  expect(list.every((x) => x.inputs.length > 0 && x.source)).toBe(true);
  for (const [args, field] of [
    [['leak-rate', 'V=20kg'], 'V'],
    [['leak-rate', 'V=twenty'], 'V'],
    [['leak-rate', 'V='], 'V'],
    [['leak-rate', 'W=20l'], 'W'],
    [['leak-rate', 'V'], 'V'],
    [['leak-rate', 'T0=20C'], 'T1'],
    [['other-gas', 'law=magic'], 'law'],
    [['saturation', 'T=120C', 'fluid=R410A'], 'T'], // above the critical temperature: no bubble point
    [['no-such'], 'id'],
    [[], 'id'],
  ] as const) {
    const { text, code } = desk(args);
    expect([args, code, JSON.parse(text).error.field]).toEqual([args, 2, field]);
  }
});

test('a link carries every figure with its unit; what is broken in it is left out or shown as typed', () => {
  const f = deskLine('leak-rate')!;
  const entries = { V: parseEntry(f, 'V', '0.5ft3'), p0: parseEntry(f, 'p0', '8 inWC') };
  const back = readDeskLink(DESK_LINES, `#${deskLink(f, entries, {})}`)!;
  expect(back.entries).toEqual(entries);
  expect(readDeskLink(DESK_LINES, 'leak-rate?V=%ZZ&x=1&p0=8furlong')!.entries).toEqual({
    p0: { text: '8furlong', unit: 'mbar' },
  });
  expect(readDeskLink(DESK_LINES, 'nothing')).toBeNull();
});

describe('the Desk and the bench say the same', () => {
  const gauge: Gauge = {
    id: 'g',
    name: 'g',
    serial: '',
    kind: 'digital',
    simulated: false,
    calibrated: '',
    calibrationDue: '',
    least: exact(0, 2, 'mbar'),
    greatest: exact(100, 0, 'mbar'),
    resolution: exact(1, 2, 'mbar'),
  };
  test('leak rate and smallest leak, for any section', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 500, noNaN: true }),
        fc.integer({ min: 1000, max: 30000 }),
        fc.integer({ min: 1, max: 1440 }),
        (litres, hundredths, minutes) => {
          const mbar = hundredths / 100;
          const bench = smallestVisibleLeak(
            {
              volume: litres / 1000,
              pressure: mbar * 100,
              workingPressure: 2100,
              minutes,
              gauge,
              perceptible: perceptibleMovement({ ...gauge, greatest: exact(10, 0, 'mbar') }, {}),
            },
            HOUSE_TEMPERATURE,
          );
          const found = work(
            'smallest-leak-gas',
            `V=${litres}l p=${mbar}mbar pw=21mbar r=0.01mbar pm=0.02mbar t=${minutes}min`,
          );
          expect(found.q as number).toBeCloseTo(bench.value, 9);
          const q = leakRate(litres / 1000, mbar * 100, mbar * 90, minutes * 60);
          expect(
            work('leak-rate', `V=${litres}l p0=${mbar}mbar p1=${mbar * 0.9}mbar t=${minutes}min`).Q as number,
          ).toBeCloseTo(q.value, 6);
        },
      ),
      { numRuns: 60 },
    );
  });
  test('a longer hold never sees less once the temperature cap is reached; a finer gauge never needs longer', () => {
    const at = (minutes: number, resolution: number) =>
      gasHoldSees(
        {
          volume: 0.03,
          pressure: 2000,
          workingPressure: 2000,
          minutes,
          unit: 'Pa',
          resolution,
          perceptible: 2 * resolution,
        },
        HOUSE_TEMPERATURE,
      ).leak;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1400 }),
        fc.integer({ min: 1, max: 40 }),
        fc.double({ min: 0.1, max: 50, noNaN: true }),
        (m, more, r) => {
          // the logged temperature is constant; the default grows with time up to its cap, never faster than the time itself
          expect(at(m + more, r)).toBeLessThanOrEqual(at(m, r) * (1 + 1e-12));
          expect(at(m, r)).toBeLessThanOrEqual(at(m, r * 1.5) * (1 + 1e-12));
        },
      ),
    );
  });
});
