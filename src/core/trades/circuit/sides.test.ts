/** What the sides of a circuit are, and what each is pressed to. */
import { testPressureOf } from '@/core/plan/limits';
import { parseWithUnit as q, showExact } from '@/core/quantity/exact';
import { circuitPlan, coldStore, PLATE } from '@/core/testing/coldstore';
import { sectionsOf, withinSection } from '@/core/trades/sections';

test('sides: each with its own pipes, valves and PS; joined, or with nothing between, the lower PS counts', () => {
  const whole = coldStore();
  expect(sectionsOf(whole).map((s) => s.key)).toEqual(['high', 'low', 'both']);
  const high = withinSection(whole, 'high')!;
  const low = withinSection(whole, 'low')!;
  expect([high.pipes.map((p) => p.name), high.evaporators, high.valves?.map((v) => v.kind)]).toEqual([
    ['Liquid line'],
    undefined,
    ['liquid', 'solenoid', 'solenoid'],
  ]);
  expect([low.pipes.map((p) => p.name), low.evaporators?.length, low.section?.key]).toEqual([
    ['Suction line'],
    2,
    'low',
  ]);
  const reached = (key: string) => circuitPlan('refrigerant-strength', key as 'high').system.network!;
  expect(reached('high').parts.some((p) => p.kind === 'evaporator')).toBe(false);
  const pressure = (key: 'high' | 'low' | 'both') =>
    showExact(testPressureOf(circuitPlan('refrigerant-strength', key)).value);
  expect([pressure('high'), pressure('low'), pressure('both')]).toEqual(['30.8 bar', '18.7 bar', '18.7 bar']);
  const open = {
    ...whole.network!,
    parts: whole.network!.parts.filter((p) => p.kind !== 'expansion'),
    links: [
      ...whole.network!.links.filter((l) => !l.from.startsWith('expansion') && !l.to.startsWith('expansion')),
      { id: 'through', from: 'solenoid-1', to: 'evaporator-1' },
    ],
  };
  expect(sectionsOf({ ...whole, network: open }).map((s) => s.key)).toEqual(['both']);
  expect(withinSection(whole, 'middle')).toBeNull();
});

describe('PS of a side', () => {
  const working = (side: 'high' | 'low', plate: Partial<typeof PLATE>, choices = {}) =>
    testPressureOf(circuitPlan('refrigerant-strength', side, { plate, choices }));
  const { psHigh: _h, psLow: _l, ...fluid } = PLATE;
  test('from the plate first, and the multiplication shown', () => {
    const { value, working: w } = working('high', PLATE);
    expect([showExact(value), w!.formula]).toEqual(['30.8 bar', 'p = 1.1 × PS']);
    expect(w!.inputs.map((i) => `${i.name}: ${i.value}`)).toEqual([
      'PS, high side: 28 bar, on the plate of Condensing unit',
      '1.1 × 28 bar: 30.8 bar',
    ]);
    expect(showExact(working('high', PLATE, { factor: '1.43' }).value)).toBe('40.04 bar');
  });
  test('without a plate from the fluid: bubble point at the design temperature, gauge and absolute, called an estimate', () => {
    const { value, working: w } = working('low', fluid);
    // R448A at 32 °C: 15.32 bar absolute
    expect(w!.inputs.some((i) => /15\.3\d − 1\.013 = 14\.3\d bar gauge, estimate/.test(i.value))).toBe(true);
    expect(showExact(value)).toBe('15.73 bar');
    const warm = working('high', { ...fluid, ambient: '43' }).working!;
    expect([warm.text, warm.inputs[0]!.value]).toEqual([
      expect.stringMatching(/rough estimate/),
      expect.stringMatching(/^63 °C/),
    ]);
  });
  test.each([
    ['no fluid and no plate', { charge: q('14 kg') }, /refrigerant are not entered/],
    ['nothing said of the warmth', { refrigerant: 'R448A' }, /how the condenser is cooled/],
    [
      'cooled by water in the heat',
      { refrigerant: 'R134a', ambient: '43', cooled: 'water' },
      /cooled by water/,
    ],
    [
      'above the critical temperature',
      { refrigerant: 'R744', ambient: '32', cooled: 'air' },
      /no bubble point at 55/,
    ],
    ['a blend close to it', { refrigerant: 'R410A', ambient: '55', cooled: 'air' }, null],
    ['a blend too close to it', { refrigerant: 'R125', ambient: '55', cooled: 'air' }, /no bubble point/],
  ] as const)('%s: asked for, never guessed', (_, plate, text) => {
    const asked = () => working('high', plate as Partial<typeof PLATE>);
    if (text) expect(asked).toThrow(text);
    else expect(asked().working!.text).toMatch(/rough/);
  });
  test('a vessel whose plate says less sets it; a part that permits no more than PS proves no strength', () => {
    const whole = coldStore();
    const with_ = (kind: string, facts: object) => ({
      network: {
        ...whole.network!,
        parts: whole.network!.parts.map((p) =>
          p.kind === kind ? { ...p, facts: { ...p.facts, ...facts } } : p,
        ),
      },
    });
    const low = (over: object) => testPressureOf(circuitPlan('refrigerant-strength', 'low', { over }));
    const weaker = withinSection({ ...whole, evaporators: [] }, 'low');
    expect(weaker).not.toBeNull();
    const parts = with_('evaporator', { ps: q('15 bar') });
    expect(showExact(testPressureOf(circuitPlan('refrigerant-strength', 'low', { over: parts })).value)).toBe(
      '16.5 bar',
    );
    const fitting = {
      network: {
        ...whole.network!,
        parts: [
          ...whole.network!.parts,
          {
            id: 'w',
            kind: 'fitting' as const,
            name: 'Sight glass',
            place: '',
            x: 90,
            y: 60,
            facts: { most: q('17 bar') },
          },
        ],
        links: [...whole.network!.links, { id: 'w1', from: 'suction-line', to: 'w' }],
      },
    };
    expect(() => low(fitting)).toThrow(/Sight glass permits 17 bar: no more than PS/);
  });
});
