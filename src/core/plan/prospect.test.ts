import fc from 'fast-check';
import { parseWithUnit as q, showExact, toNumber } from '@/core/quantity/exact';
import { bakery, coarse, gauge, uuid } from '@/core/testing/bakery';
import { gauges, packWith } from '@/core/testing/quarter';
import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import type { KitFacts } from '@/core/instrument/kit';
import { plannedCautions, occupantBrief } from './cautions';
import { goodPath, pathMinutes } from './good-path';
import { kitList } from './kit';
import { makePlan, type Plan } from './plan';
import { sparesOf } from '@/core/instrument/spare';
import { partProspect, planParts, sees } from './prospect';
import { pressurePlan } from './weakest';

const DAY = '2026-11-24';
const planOf = (
  procedureId: string,
  kind: string,
  cabinet: Gauge[],
  system: Partial<System> = {},
  ahead = false,
): Plan =>
  makePlan({
    run: uuid(1),
    practice: false,
    organisation: { id: uuid(1, 1), name: 'Hollin & Tarrow' },
    site: { id: uuid(1, 2), name: 'Mill', address: 'Yard 1', customer: 'x' },
    system: bakery(system),
    pack: packWith(procedureId),
    packHash: 'h',
    procedureId,
    case: kind,
    gauges: cabinet,
    made: { at: `${DAY}T08:00:00Z`, zone: 'UTC', by: 'x' },
    ahead,
  });
const kiln = (
  system: Partial<System> = {},
  cabinet: Gauge[] = [gauges.psiDial, gauges.psiWide, gauges.psiHigh, gauges.bar],
) =>
  planOf('gas-air-pipework', 'building', cabinet, {
    workingPressure: q('0.25 psi'),
    appliances: [],
    ...system,
  });

describe('test pressure and the weakest element', () => {
  test('the multiple with its working; the weakest element is named and the impossible explained', () => {
    expect(showExact(pressurePlan(kiln()).pressure!)).toBe('3 psi');
    expect(pressurePlan(kiln()).working!.formula).toContain('1.5 × p_working');
    const held = pressurePlan(
      kiln({
        elements: [
          { id: 'a', name: 'Solenoid', place: 'kiln', most: q('500 mbar') },
          { id: 'b', name: 'Flow meter', place: 'yard', most: q('150 mbar') },
        ],
      }),
    );
    expect(held.weakest!.name).toBe('Flow meter, yard');
    expect(held.impossible).toMatch(
      /Flow meter, yard permits 150 mbar .* the rule asks for 3 psi\. Take it out of scope/,
    );
  });
  test('exactly at the cap is allowed, a step above is not, in another unit too', () => {
    const at = (most: string) =>
      pressurePlan(kiln({ elements: [{ id: 'a', name: 'x', place: '', most: q(most) }] })).impossible;
    expect(at('3 psi')).toBe('');
    expect(at('2.99 psi')).not.toBe('');
    expect(at('206.85 mbar')).toBe(''); // 3 psi = 206.8427 mbar, rounded up to the hundredth
    expect(at('206.84 mbar')).not.toBe('');
  });
  test('a plate that was not read caps at 14 inWC while appliances are in scope', () => {
    const staged = pressurePlan(planOf('gas-lowpressure-staged', 'existing', [gauge()]));
    expect([showExact(staged.weakest!.most), staged.impossible]).toEqual(['14 inWC', '']); // 35 mbar is above 21
    const alone = pressurePlan(planOf('gas-lowpressure-staged', 'pipework', [gauge()]));
    expect(alone.weakest).toBeNull();
  });
});

describe('holds and gauges', () => {
  test('rule, house and need with what each sees; the longest is planned; the best gauge is proposed with its reason', () => {
    const p = partProspect(kiln(), null, DAY);
    const [hold] = p.holds;
    expect([hold!.times.rule, hold!.times.house]).toEqual([10, 60]);
    expect(hold!.times.planned).toBe(Math.max(60, hold!.times.needed as number));
    expect(hold!.sees.rule).toBeGreaterThan(hold!.sees.house!);
    expect(hold!.sees.planned).toBeLessThanOrEqual(toNumber(p.matters.leak));
    const byName = Object.fromEntries(p.gauges.map((g) => [g.gauge.name, g]));
    // scale at most 5 x test pressure: 15 psi is exactly five times
    expect(byName['D-15']!.usable).toBe(true);
    expect(byName['D-60']!.misfits.map((m) => m.code)).toEqual(['dial-scale']);
    expect(p.best).toBe(gauges.bar.id); // a digital step of 1 mbar sees more than a dial's half division
    expect(byName['B-2']!.sees).toBeLessThan(byName['D-15']!.sees!);
  });
  test('out of date, out of use and unproved zero: the first two cannot judge, the third is proposed last', () => {
    const old = gauge({ id: uuid(3, 9), name: 'Old', calibrationDue: '2026-11-23' });
    const today = gauge({ id: uuid(4, 9), name: 'Today', calibrationDue: DAY });
    const out = gauge({ id: uuid(5, 9), name: 'Out', withdrawn: 'display flickers' });
    const shaken = gauge({ id: uuid(6, 9), name: 'Shaken', mustZero: 'dropped, 2026-11-20' });
    const p = partProspect(
      planOf('gas-lowpressure-staged', 'existing', [old, shaken, out, today]),
      null,
      DAY,
    );
    expect(p.gauges.map((g) => [g.gauge.name, g.usable])).toEqual([
      ['Today', true],
      ['Shaken', true],
      ['Old', false],
      ['Out', false],
    ]);
    expect(p.gauges[1]!.misfits[0]!.text).toMatch(/cannot judge before it shows zero/);
  });
  test('a longer hold never sees less, a finer gauge never needs longer, a larger section never sees more', () => {
    // of one class: a rule may count less movement on a coarser class, as the metric school does
    const rough2 = gauge({ id: uuid(3, 9), resolution: q('0.05 mbar') });
    const plan = planOf('gas-lowpressure-staged', 'new', [gauge(), rough2]);
    const bigger = planOf('gas-lowpressure-staged', 'new', [gauge()], {
      meter: { kind: 'diaphragm-U6-G4', name: 'x', volume: q('16 l') },
    });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 700 }), fc.integer({ min: 1, max: 700 }), (m, more) => {
        expect(sees(plan, null, gauge(), m + more)!).toBeLessThanOrEqual(
          sees(plan, null, gauge(), m)! * (1 + 1e-12),
        );
        expect(sees(plan, null, gauge(), m)!).toBeLessThanOrEqual(sees(plan, null, rough2, m)!);
        expect(sees(plan, null, gauge(), m)!).toBeLessThan(sees(bigger, null, gauge(), m)!);
      }),
      { numRuns: 40 },
    );
    const need = (g: Gauge) => partProspect(kiln({}, [g]), null, DAY).gauges[0]!.needed;
    const [fine, rough] = [need(gauges.bar), need(gauges.psiDial)];
    expect(fine === 'over-a-day' ? Infinity : fine!).toBeLessThanOrEqual(
      rough === 'over-a-day' ? Infinity : (rough as number),
    );
  });
  test('one kelvin against the limit: at 20 mbar 3.5 mbar, of 4 mbar permitted', () => {
    const s = partProspect(planOf('gas-lowpressure-staged', 'existing', [gauge()]), null, DAY).sensitivity!;
    expect(s.perKelvin).toBeCloseTo(3.53, 2);
    expect(s.kelvinToLimit).toBeCloseTo(4 / 3.53, 2);
  });
  test('a spare is of the same unit, kind and size, in date and in use', () => {
    const twin = gauge({ id: uuid(7, 9), name: 'Twin' });
    const cabinet = [
      gauge(),
      coarse,
      twin,
      gauges.inwc,
      gauge({ id: uuid(8, 9), calibrationDue: '2026-01-01' }),
      gauge({ id: uuid(9, 9), withdrawn: 'x' }),
    ];
    expect(sparesOf(gauge(), cabinet, DAY).map((g) => g.name)).toEqual(['G-01', 'Twin']);
  });
  test('every part of a sequence is planned by its own rules', () => {
    const plan = planOf('gas-air-rough-and-final', 'dwelling', [gauges.bar, gauges.mbar], {
      workingPressure: q('0.25 psi'),
    });
    expect(planParts(plan).map((p) => partProspect(plan, p, DAY).title).length).toBe(2);
    const [rough, final] = planParts(plan).map((p) => partProspect(plan, p, DAY));
    expect(toNumber(rough!.pressure.pressure!)).toBe(3);
    expect(final!.pressure.weakest!.why).toMatch(/plate/);
  });
});

describe('the way when all goes well, cautions and kit', () => {
  test('every procedure of every pack has a way that ends; waits are the planned holds', () => {
    for (const [id, kind, system] of [
      ['gas-lowpressure-staged', 'existing', {}],
      ['gas-lowpressure-extension', 'extension', {}],
      ['gas-air-pipework', 'building', { workingPressure: q('0.25 psi') }],
      ['gas-air-rough-and-final', 'dwelling', { workingPressure: q('0.25 psi') }],
      ['gas-serviceability', 'existing', {}],
    ] as const) {
      const plan = planOf(id, kind, [gauge(), gauges.bar, gauges.psiDial], system);
      const path = goodPath(plan, plan.gauges[0]!.id);
      expect([id, path.some((s) => s.kind === 'hold')]).toEqual([id, true]);
      expect(path[path.length - 1]!.stage).toBe('signing');
      expect(pathMinutes(path).whole).toBeGreaterThan(10);
    }
    const staged = goodPath(planOf('gas-lowpressure-staged', 'pipework', [gauge()]), gauge().id);
    expect(staged.filter((s) => s.wait).map((s) => s.wait)).toEqual([1, 1, 2]); // let-by, stabilisation, tightness
  });
  test('energy stands in figures for gas and for water; smell names the line on the meter', () => {
    const plan = kiln();
    const list = plannedCautions(
      plan,
      planParts(plan).map((p) => partProspect(plan, p, DAY)),
    );
    expect(list.find((c) => c.key === 'energy')!.text).toMatch(/J with gas, .*J if it were full of water/);
    expect(list.find((c) => c.key === 'smell')!.text).toContain('555-0100');
    expect(list.some((c) => c.key === 'cylinder')).toBe(true);
    expect(occupantBrief(plan, 'on 24 November', 80, 'Hollin & Tarrow')).toMatch(
      /about 80 minutes[\s\S]*do not use any gas appliance/,
    );
  });
  test('the kit list asks for a spare, matches the cabinet, and leaves out what has run out', () => {
    const plan = kiln();
    const parts = planParts(plan).map((p) => partProspect(plan, p, DAY));
    const item = (
      name: string,
      kind: KitFacts['kind'],
      due = '',
      more: Partial<KitFacts> = {},
    ): KitFacts => ({ id: name, kind, name, serial: '', due, interval: null, note: '', ...more });
    const list = kitList(
      plan,
      parts,
      [gauges.bar],
      [
        item('T-1', 'thermometer', '2026-11-23'),
        item('T-2', 'thermometer', '2027-01-01'),
        item('Leak-detection fluid', 'consumable', '', { batch: 'LF-9' }),
        item('Q', 'barometer', '', { withdrawn: 'broken' }),
      ],
      DAY,
    );
    const line = (words: RegExp) => list.find((l) => words.test(l.name))!;
    expect(line(/second gauge/).lacking).toBe(true);
    expect(line(/thermometer/).from).toEqual(['T-2']);
    expect(line(/barometer/).lacking).toBe(true);
    expect(
      list
        .filter((l) => /fluid/.test(l.name))
        .some((l) => l.from.includes('Leak-detection fluid, batch LF-9')),
    ).toBe(true);
  });
});
