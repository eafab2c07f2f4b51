/** Circuits from strength to vacuum: every good way, and the way on of every bad one. */
import { parseWithUnit as q, showExact } from '@/core/quantity/exact';
import type { ScriptLine } from '@/core/run/script';
import { currentVisit } from '@/core/run/read';
import { uuid } from '@/core/testing/bakery';
import { circuitPlan, playCircuit, vacuumGauge } from '@/core/testing/coldstore';
import { owedBy } from '@/core/after/rules';
import type { Plan } from '@/core/plan/plan';

type Lines = readonly ScriptLine[];
const standing = (plan: Plan, lines: Lines) => {
  const { state, verdict } = playCircuit(plan, lines);
  return { at: currentVisit(state)?.stage ?? state.phase, verdict, state };
};
const refused = (plan: Plan, lines: Lines) => () => playCircuit(plan, lines);

const BEFORE: Lines = [
  [10, 'checks'],
  [60, 'checks'],
  [70, 'gauge', 'N-60'],
  [80, 'zero', '0'],
  [100, 'checks'],
];
const FIRST_BAR: Lines = [
  ...BEFORE,
  [130, 'cylinder', 'nitrogen', 'R-50', 'H-60'],
  [160, 'fill', '1.02'],
  [170, 'start', '1.02'],
];
const RAISED: Lines = [
  ...FIRST_BAR,
  [475, 'end', '1.02'],
  [500, 'pump', '7.70'],
  [570, 'look', '7.69', 'dry'],
  [600, 'pump', '15.40'],
  [730, 'look', '15.38', 'dry'],
  [760, 'pump', '23.10'],
  [890, 'look', '23.08', 'dry'],
  [930, 'pump', '31.10'],
  [1000, 'look', '31.00', 'dry'],
];
const HELD: Lines = [
  ...RAISED,
  [1010, 'checks'],
  [1030, 'checks'],
  [1040, 'start', '30.96'],
  [1140, 'read', '30.94'],
  [1345, 'end', '30.93'],
  [1350, 'start', '30.93'],
];
const strength = circuitPlan('refrigerant-strength', 'high');
describe('strength', () => {
  test('withstood: by its own name, nitrogen left in at PS with its label', () => {
    const { verdict, state } = standing(strength, [
      ...HELD,
      [2255, 'end', '30.92'],
      [2300, 'fill', '27.60'],
      [2330, 'checks'],
      [2350, 'proceed'],
      [2360, 'checks'],
    ]);
    expect([verdict!.word, verdict!.label, state.phase]).toEqual(['tight', 'Withstood', 'signing']);
    expect(verdict!.sentence).toBe(
      'Withstood: 30.93 bar to 30.92 bar in 15 min 05 s; a fall of 0.060 bar would have counted.',
    );
    expect(showExact(state.watch!.figure)).toBe('27.60 bar');
    expect(state.debts.every((d) => d.cleared)).toBe(true);
  });
  test('the fall that just counts, and the one that just does not', () => {
    const end = (figure: string) => standing(strength, [...HELD, [2255, 'end', figure]]);
    expect(end('30.88').at).toBe('down');
    expect(end('30.87').at).toBe('own-kit');
    expect(end('30.87').state.claims['']?.finding).toBe('not-tight');
  });
  test('a first bar that falls: a joint was never made; found, vented, mended, and raised from the first bar again', () => {
    const found = standing(strength, [
      ...FIRST_BAR,
      [475, 'end', '0.90'],
      [500, 'joint', 'Liquid tee', 'growing', 'larger'],
    ]);
    expect(found.at).toBe('vent');
    const again = standing(strength, [
      ...FIRST_BAR,
      [475, 'end', '0.90'],
      [500, 'joint', 'Liquid tee', 'growing', 'larger'],
      [600, 'checks'],
      [650, 'observe', 'mended'],
    ]);
    expect(again.at).toBe('low');
  });
  test('what bubbles while it is raised, and what cannot be raised, lead to the vent; the other side filling makes it void', () => {
    const raising = RAISED.slice(0, RAISED.length - 4);
    expect(
      standing(strength, [...raising, [760, 'pump', '23.10'], [890, 'look', '22.0', 'drips', 'at the tee']])
        .at,
    ).toBe('vent');
    expect(standing(strength, [...raising, [760, 'nopump', 'cylinder empty']]).at).toBe('not-raised');
    const passing = standing(strength, [...RAISED, [1010, 'checks', 'passes=yes']]);
    expect([passing.at, passing.state.claims['']?.finding]).toEqual(['vent', 'void']);
  });
  test('deformed: not withstood, whatever the gauge said', () => {
    const { verdict } = standing(strength, [
      ...HELD,
      [2255, 'end', '30.93'],
      [2300, 'fill', '27.60'],
      [2330, 'checks', 'deformed=yes'],
      [2400, 'checks'],
      [2410, 'observe', 'not-now'],
      [2420, 'checks'],
      [2430, 'zero', '0'],
    ]);
    expect([verdict!.word, verdict!.label]).toEqual(['not-tight', 'Did not withstand']);
  });
});

describe('the cylinder', () => {
  const open = (...args: string[]): Lines => [...BEFORE, [130, 'cylinder', ...args]];
  test.each([
    [['oxygen', 'R-50', 'H-60'], /OXYGEN AND OIL EXPLODE.*take another cylinder/],
    [['air', 'R-50', 'H-60'], /Compressed air brings oxygen/],
    [['acetylene', 'R-50', 'H-60'], /fuel gas/],
    [['other', 'R-50', 'H-60'], /never the colour/],
    [['nitrogen', 'R-100', 'H-60'], /can give 100 bar; no more than 61\.6 bar/],
    [['nitrogen', '30 bar', 'H-60'], /ends at 30 bar and cannot give 30\.8 bar/],
    [['nitrogen', 'R-50', '25 bar'], /made for 25 bar; the test stands at 30\.8 bar/],
  ])('%j is refused with what to take', (args, text) => {
    expect(refused(strength, open(...args))).toThrow(text);
  });
  test('exactly at the bounds it is taken; what the cabinet says counts, whatever was sent', () => {
    expect(standing(strength, open('nitrogen', '61.6 bar', '30.8 bar')).at).toBe('low');
    expect(refused(strength, open('nitrogen', '61.7 bar', '30.8 bar'))).toThrow(/61\.7/);
    const { state } = standing(strength, open('nitrogen', 'R-50', 'H-60'));
    expect(state.rooms.cylinders[0]).toMatchObject({ regulator: 'R-50, K73', regulatorMost: q('50 bar') });
  });
  test('nothing that fits: an end of its own, void, and everything is put away', () => {
    const { verdict, at } = standing(strength, [
      ...BEFORE,
      [130, 'nocylinder'],
      [140, 'checks'],
      [150, 'zero', '0'],
    ]);
    expect([at, verdict!.word]).toEqual(['signing', 'void']);
  });
});

const tight = circuitPlan('refrigerant-tightness', 'low');
const LAID: Lines = [
  ...BEFORE,
  [110, 'observe', 'stands'],
  [130, 'checks'],
  [200, 'start', '16.80'],
  [700, 'read', '16.79'],
  [1110, 'end', '16.79'],
  [1120, 'start', '16.79'],
];
const warm = (places: readonly (readonly [string, string, string])[], end: string): Lines => [
  ...LAID,
  ...places.map(([p, a]): ScriptLine => [1130, 'temperature', 'start', a, p]),
  ...places.map(([p, , b]): ScriptLine => [4700, 'temperature', 'end', b, p]),
  [4725, 'end', end],
];
const EVEN = (a: string, b: string) =>
  [
    ['pipe', a, b],
    ['room', a, b],
  ] as const;
const outcome = (lines: Lines) => {
  const { state } = playCircuit(tight, lines);
  return state.visits.flatMap((v) => v.holds).at(-1)!.judgement!;
};
describe('tightness, judged without what warmth does', () => {
  test('real nitrogen: what two kelvin do to 16.8 bar is taken out', () => {
    const j = outcome(warm(EVEN('18.0', '16.0'), '16.67'));
    // 17.8 bar abs × 2/291.15, and four per cent more
    expect(j.corrected! - -0.12).toBeCloseTo(0.127, 2);
    expect(j.outcome).toBe('nil');
  });
  test('exactly at what counts it is not Tight; a fall beyond it and twice the uncertainty is a leak', () => {
    const even = EVEN('18.0', '18.0');
    expect(outcome(warm(even, '16.74')).outcome).toBe('nil');
    expect(outcome(warm(even, '16.73')).outcome).toBe('unclear');
    const j = outcome(warm(even, '16.70'));
    expect([j.outcome, j.blurred!.u < 0.03]).toEqual(['beyond', true]);
    // pm + 2u: 0.060 + 2 × 0.0076
    expect(outcome(warm(even, '16.72')).outcome).toBe('unclear');
    expect(outcome(warm(even, '16.71')).outcome).toBe('beyond');
    expect(outcome(warm(even, '16.90')).outcome).toBe('rose');
  });
  test.each([
    [
      'places that differ',
      [
        ['pipe', '18.0', '12.0'],
        ['room', '18.0', '18.0'],
      ],
      '16.59',
      /shade or lag/,
    ],
    ['one place alone', [['pipe', '18.0', '18.0']], '16.79', /second place too/],
  ] as const)('%s: never Tight, and what would make it decide is said', (_, places, end, text) => {
    const lines = warm(places, end);
    expect(outcome(lines).outcome).toBe('unclear');
    const { state, verdict } = playCircuit(tight, [
      ...lines,
      [4800, 'start', end],
      [5710, 'end', end],
      [5720, 'start', end],
      ...places.map(([p, a]): ScriptLine => [5730, 'temperature', 'start', a, p]),
      ...places.map(([p, , b]): ScriptLine => [9400, 'temperature', 'end', b, p]),
      [9410, 'end', end],
      [9500, 'proceed'],
      [9600, 'checks'],
      [9700, 'checks'],
      [9800, 'zero', '0'],
    ]);
    expect([state.phase, verdict!.word]).toEqual(['signing', 'inconclusive']);
    expect(verdict!.sentence).toMatch(text);
  });
  test('what warmth could do is never said to be a leak before the end; what fifteen kelvin could not do is', () => {
    const early = (figure: string): Lines => [...LAID, [3100, 'unheld', 'falls', figure]];
    expect(refused(tight, early('16.40'))).toThrow(/Warmth alone can move this so far/);
    expect(refused(tight, early('15.90'))).toThrow(/Warmth alone/);
    expect(standing(tight, early('15.70')).at).toBe('own-kit');
  });
  test('without a thermometer it can be found leaking, never Tight; it is asked for, or said that there is none', () => {
    expect(refused(tight, [...LAID, [4725, 'end', '16.79']])).toThrow(/two places or more/);
    const bare = (end: string) => outcome([...LAID, [1130, 'temperature', 'none'], [4725, 'end', end]]);
    expect([bare('16.79').outcome, bare('16.60').outcome]).toEqual(['unclear', 'beyond']);
  });
  test('a day where joints will be hidden, or from fifty litres', () => {
    const minutes = (over: object, choices = {}) => {
      const plan = circuitPlan('refrigerant-tightness', 'low', { over, choices });
      // the longer the hold, the longer it must stand still before
      const settled: Lines = [...LAID.slice(0, -2), [9900, 'end', '16.79'], [9910, 'start', '16.79']];
      const { state } = playCircuit(plan, settled);
      return state.visits.flatMap((v) => v.holds).at(-1)!.minutes;
    };
    const volume = (litres: string) => ({
      measured: { by: 'strokes' as const, volume: q(litres), uncertainty: q('5 %'), said: litres },
    });
    expect([minutes({}), minutes({}, { joints: 'hidden' })]).toEqual([60, 1440]);
    expect([minutes(volume('49.9 l')), minutes(volume('50 l'))]).toEqual([60, 1440]);
  });
  test('what it could have seen is told as mass of the fluid too', () => {
    const { verdict } = playCircuit(tight, [
      ...warm(EVEN('18.0', '17.0'), '16.73'),
      [4800, 'proceed'],
      [4900, 'checks'],
      [4910, 'checks'],
      [4920, 'zero', '0'],
    ]);
    expect(verdict!.word).toBe('tight');
    expect(verdict!.adequacy!.text).toMatch(
      /kg of R448A a year.*5 g\/year of refrigerant.*leak fluid on every joint/,
    );
  });
  test('bubbles at a joint are a leak whatever the gauge says', () => {
    const { at } = standing(tight, [
      ...warm(EVEN('18.0', '18.0'), '16.79'),
      [4800, 'joint', 'Evaporator 1', 'growing', 'larger'],
    ]);
    expect(at).toBe('vent');
  });
});

const vacuum = circuitPlan('refrigerant-vacuum');
const PUMPED: Lines = [
  [10, 'checks'],
  [20, 'gauge', 'V-1'],
  [30, 'atair', 'over'],
  [3600, 'fill', '60'],
  [3700, 'start', '60'],
];
const stood = (pa: (minutes: number) => number): Lines => [
  ...PUMPED,
  ...[2, 4, 6, 8].map((m): ScriptLine => [3700 + m * 60, 'read', String(Math.round(pa(m)))]),
  [4303, 'end', String(Math.round(pa(10)))],
];
describe('standing vacuum', () => {
  test.each([
    ['level', () => 60, 'held', 'how-left'],
    ['flattening below the bound', (m: number) => 60 + 40 * (1 - Math.exp(-m / 3)), 'held', 'how-left'],
    ['an even rise of 67 Pa', (m: number) => 60 + 6.7 * m, 'leak', 'own-hoses'],
    ['a little less, and even', (m: number) => 60 + 6.6 * m, 'unclear', 'standing-long'],
    ['flattening above the bound', (m: number) => 60 + 200 * (1 - Math.exp(-m / 3)), 'moisture', 'cylinder'],
    ['falling by itself', (m: number) => 60 - m, 'fell', 'pull'],
  ] as const)('%s', (_, pa, word, stage) => {
    const { at, state } = standing(vacuum, stood(pa));
    const { outcome: found } = state.visits.flatMap((v) => v.holds).find((h) => h.judgement)!.judgement!;
    expect([found, at]).toEqual([word, stage]);
  });
  test('at exactly 133 Pa it holds, a pascal above it is moisture', () => {
    const towards = (end: number) => (m: number) =>
      60 + ((end - 60) * (1 - Math.exp(-m / 2))) / (1 - Math.exp(-5));
    expect(standing(vacuum, stood(towards(133))).at).toBe('how-left');
    expect(standing(vacuum, stood(towards(134))).at).toBe('cylinder');
  });
  test('too few readings show no shape: thirty minutes, then nothing is claimed', () => {
    const few: Lines = [...PUMPED, [4303, 'end', '70']];
    expect(standing(vacuum, few).at).toBe('standing-long');
    const { verdict } = standing(vacuum, [
      ...few,
      [5505, 'end', '90'],
      [5600, 'checks'],
      [5700, 'checks'],
      [5710, 'atair', 'over'],
    ]);
    expect(verdict!.word).toBe('inconclusive');
  });
  test('a gauge in micron reads the same bounds, rounded inwards: 67 Pa are 502, 133 Pa are 997 of it', () => {
    const micron = {
      ...vacuumGauge,
      id: uuid(77, 9),
      name: 'V-M',
      greatest: q('19000 micron'),
      least: q('0 micron'),
      resolution: q('1 micron'),
    };
    const plan = { ...vacuum, gauges: [micron] };
    const begin: Lines = [
      [10, 'checks'],
      [20, 'gauge', 'V-M'],
      [30, 'atair', 'over'],
    ];
    expect(refused(plan, [...begin, [3600, 'fill', '503']])).toThrow(/above the band 0 micron to 502 micron/);
    const stands = (end: number) =>
      standing(plan, [
        ...begin,
        [3600, 'fill', '502'],
        [3700, 'start', '502'],
        ...[2, 4, 6, 8].map((m): ScriptLine => [
          3700 + m * 60,
          'read',
          String(Math.round(502 + ((end - 502) * (1 - Math.exp(-m / 2))) / (1 - Math.exp(-5)))),
        ]),
        [4303, 'end', String(end)],
      ]).at;
    expect([stands(997), stands(998)]).toEqual(['how-left', 'cylinder']);
  });
  test('not reached: pump and hoses alone tell whose fault it is', () => {
    const high: Lines = [...PUMPED.slice(0, 3), [14_000, 'unheld', 'rises', '300']];
    expect(standing(vacuum, high).at).toBe('blank');
    expect(refused(vacuum, [...PUMPED.slice(0, 3), [14_000, 'unheld', 'rises', '67']])).toThrow(
      /is in the band/,
    );
    const sound = standing(vacuum, [
      ...high,
      [14_600, 'fill', '40'],
      [14_700, 'checks'],
      [14_800, 'checks'],
      [14_810, 'atair', 'over'],
    ]);
    expect([sound.verdict!.word, sound.verdict!.sentence]).toEqual([
      'inconclusive',
      expect.stringMatching(/leak, or moisture/),
    ]);
    expect(standing(vacuum, [...high, [14_600, 'unheld', 'rises', '300']]).at).toBe('mend-kit');
  });
  test('it came up at once: said as soon as it stands above the bound, not before', () => {
    expect(refused(vacuum, [...PUMPED, [3760, 'unheld', 'rises', '133']])).toThrow(/its shape is what tells/);
    expect(standing(vacuum, [...PUMPED, [3760, 'unheld', 'rises', '900']]).at).toBe('own-hoses');
  });
  test('moisture: broken with nitrogen three times at most', () => {
    let lines: Lines = stood((m) => 60 + 200 * (1 - Math.exp(-m / 3)));
    for (let n = 0; n < 3; n += 1) {
      const from = lines.at(-1)![0];
      lines = [
        ...lines,
        [from + 60, 'cylinder', 'nitrogen', 'R-50', 'H-60'],
        [from + 700, 'checks'],
        [from + 4000, 'fill', '60'],
        [from + 4100, 'start', '60'],
        ...[2, 4, 6, 8].map((m): ScriptLine => [
          from + 4100 + m * 60,
          'read',
          String(Math.round(60 + 200 * (1 - Math.exp(-m / 3)))),
        ]),
        [from + 4703, 'end', '253'],
      ];
    }
    expect(standing(vacuum, lines).at).toBe('nitrogen-back');
  });
  test('a vacuum gauge is tried in air: over its range, or what the air presses with', () => {
    const air = (...args: string[]): Lines => [
      [10, 'checks'],
      [20, 'gauge', 'V-1'],
      [30, 'atair', ...args],
    ];
    expect(standing(vacuum, air('over')).at).toBe('pull');
    expect(standing(vacuum, air('2400')).at).toBe('air');
    expect(
      refused(vacuum, [
        [10, 'checks'],
        [20, 'gauge', 'V-1'],
        [30, 'zero', '0'],
      ]),
    ).toThrow(/open to air/);
  });
  test('held: called so, and the leak checks follow from the charge', () => {
    const { verdict, state } = standing(vacuum, [
      ...stood(() => 60),
      [4400, 'checks'],
      [4500, 'checks'],
      [4510, 'atair', 'over'],
    ]);
    expect([verdict!.word, verdict!.label]).toEqual(['tight', 'Vacuum held']);
    expect(state.debts.filter((d) => !d.cleared)).toEqual([]);
    const owed = owedBy(vacuum, state, verdict!, Date.parse('2026-06-02T10:00:00Z'));
    // 14 kg × 1386 = 19.4 t CO2: every 12 months
    expect(owed.map((o) => [o.due, o.text])).toEqual([['2027-06-02', expect.stringMatching(/19\.4 t CO2/)]]);
  });
});
