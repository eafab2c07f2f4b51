/** Desk lines of the trades' limits: fuel gas, water, mains, pools. Pack formulas are called as packs call them. */
import type { System } from '@/core/installation/section';
import { HOUSE_TEMPERATURE } from '@/core/adequacy/house';
import { defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { WALLS, type WallMaterial } from '@/core/installation/pipes';
import { mainAirCheckLimit, mainMakeUpLimit, mainVolumeLimit } from '@/core/limit/main';
import { plugsFor, poolPressure } from '@/core/limit/pool';
import {
  cappedPressure,
  drainLossLimit,
  dryLoad,
  dryMinutes,
  headAtLowest,
  levelLeak,
  schoolABand,
  schoolB,
} from '@/core/limit/water';
import { dialFlow } from '@/core/medium/leak';
import { headPressure } from '@/core/medium/water';
import { FormulaError, minutesOf, pressureOf, type FormulaContext } from '@/core/formula';
import { exact, toNumber, type Exact } from '@/core/quantity/exact';
import { convert, UNITS, type Unit } from '@/core/quantity/unit';
import { DeskError, input, type DeskFormula } from './types';

/** An SI value as an exact figure of a unit, six decimals: rounded to what floats hold. */
const figure = (si: number, unit: Unit): Exact => exact(Math.round((si / UNITS[unit].si) * 1e6), 6, unit);
const si = (e: Exact): number => convert(toNumber(e), e.unit, unitOf(e.unit));
const unitOf = (unit: Unit): Unit => (UNITS[unit].dimension === 'pressure' ? 'Pa' : unit);
/** A context that holds just what the named formulas ask for. */
const context = (
  system: Partial<Pick<System, 'workingPressure' | 'setPressure' | 'meter'>>,
  more: Partial<FormulaContext> = {},
): FormulaContext => ({
  system: { appliances: [], pipes: [], ...system } as unknown as System,
  caseKey: '',
  unit: null,
  gauge: null,
  kept: {},
  volume: 0,
  temperature: (m) => defaultTemperatureUncertainty(m, HOUSE_TEMPERATURE),
  ...more,
});
/** What a formula still lacks, said of an input. */
const asked = <T>(field: string, work: () => T): T => {
  try {
    return work();
  } catch (error) {
    if (error instanceof FormulaError) throw new DeskError(field, error.message);
    throw error;
  }
};
const volume = (value: string, unit: Unit = 'l') =>
  input('V', 'V, volume of the section', unit, 'positive', value);

export const FUEL_GAS_LINES: readonly DeskFormula[] = [
  {
    id: 'air-test-pressure',
    group: 'fuel-gas',
    title: 'Test pressure of new gas pipe, air',
    answers: 'The published minimum by working pressure; 10 psi over the whole from 1 psi working.',
    formula: 'p = max(1.5 × p_working, 3 psi); from 1 psi working at least 10 psi over the whole system',
    source: 'Imperial school, rule pack "gas-imperial"',
    inputs: [input('p', 'p_working, maximum working pressure', 'psi', 'positive', '0.25')],
    outputs: [
      { key: 'low', name: 'test pressure, at least', unit: 'psi' },
      { key: 'high', name: 'and up to (house, 10 % over)', unit: 'psi' },
      { key: 'scale', name: 'mechanical gauge ends at most at', unit: 'psi' },
    ],
    work: (n) => {
      const band = pressureOf(
        {
          formula: 'air-test-pressure@1',
          args: { factor: '1.5', least: '3 psi', mediumFrom: '1 psi', mediumLeast: '10 psi', over: '10' },
        },
        context({ workingPressure: figure(n.p!, 'psi') }),
      );
      return { low: si(band.low), high: si(band.high), scale: si(band.low) * 5 };
    },
  },
  {
    id: 'air-test-hold',
    group: 'fuel-gas',
    title: 'Hold of an air test, published minimum',
    answers: 'Minutes by volume; the house standard and the need may be longer.',
    formula: '10 min below 10 ft³ of pipe, otherwise 30 min for each 500 ft³ or part, at most 24 h',
    source: 'Imperial school, rule pack "gas-imperial"',
    inputs: [volume('12', 'ft3')],
    outputs: [{ key: 't', name: 'least hold', unit: 'min' }],
    work: (n) => ({
      t:
        minutesOf(
          {
            formula: 'hold-by-volume@1',
            args: {
              small: '10 ft3',
              smallMinutes: '10',
              per: '500 ft3',
              step: '30',
              most: '1440',
              dwellingCase: 'dwelling',
            },
          },
          context({}, { volume: n.V! }),
        ).minutes * 60,
    }),
  },
  {
    id: 'new-line-hold',
    group: 'fuel-gas',
    title: 'Settling and measuring of a new line, 150 mbar',
    answers: 'Minutes by volume in the leak-rate school.',
    formula: '10/10 min below 100 l, 30/20 from 100 l, 60/30 from 200 l',
    source: 'Leak-rate school, rule pack "gas-leak-rate"',
    inputs: [volume('60')],
    outputs: [
      { key: 'settle', name: 'settle', unit: 'min' },
      { key: 'measure', name: 'measure', unit: 'min' },
    ],
    work: (n) => {
      const by = (table: string) =>
        minutesOf({ formula: 'minutes-by-volume@1', args: { table } }, context({}, { volume: n.V! }))
          .minutes * 60;
      return { settle: by('0 l=10, 100 l=30, 200 l=60'), measure: by('0 l=10, 100 l=20, 200 l=30') };
    },
  },
  {
    id: 'lock-up',
    group: 'fuel-gas',
    title: 'Highest lock-up',
    answers: 'Above it a regulator does not shut off.',
    formula: 'p ≤ p_set + 2 inWC',
    source: 'House figure, rule pack "gas-imperial"',
    inputs: [input('set', 'p_set, regulator set pressure', 'inWC', 'positive', '7')],
    outputs: [{ key: 'high', name: 'lock-up at most', unit: 'inWC' }],
    work: (n) => ({
      high: si(
        pressureOf(
          { formula: 'above-set@1', args: { by: '2 inWC' } },
          context({ workingPressure: figure(n.set!, 'inWC') }),
        ).high,
      ),
    }),
  },
  {
    id: 'seepage-start',
    group: 'fuel-gas',
    title: 'Start of a seepage watch',
    answers: 'How far to bleed below static so that a passing meter valve shows as a rise.',
    formula: '70 % to 75 % of static',
    source: 'Imperial school, rule pack "gas-imperial"',
    inputs: [input('static', 'static pressure', 'inWC', 'positive', '7')],
    outputs: [
      { key: 'low', name: 'from', unit: 'inWC' },
      { key: 'high', name: 'to', unit: 'inWC' },
    ],
    work: (n) => {
      const band = pressureOf(
        { formula: 'share-of-reading@1', args: { of: 'static', low: '70', high: '75' } },
        context({}, { kept: { static: figure(n.static!, 'inWC') } }),
      );
      return { low: si(band.low), high: si(band.high) };
    },
  },
  {
    id: 'dial-rate',
    group: 'fuel-gas',
    title: 'Flow by a meter’s dial',
    answers: 'A leak, or what an appliance takes, from turns and time.',
    formula: 'Q = turns × volume per turn / time;  input = Q × heating value',
    source: 'Meter dial as a flow meter',
    inputs: [
      input('turns', 'turns', '1', 'positive', '1'),
      input('per', 'volume per turn', 'ft3', 'positive', '0.5'),
      input('t', 'time', 's', 'positive', '30'),
      input('H', 'heating value', 'Btu/ft3', 'positive', '', 'empty: flow only'),
    ],
    outputs: [
      { key: 'Q', name: 'flow', unit: 'ft3/h' },
      { key: 'input', name: 'heat input', unit: 'kW' },
    ],
    work: (n): Record<string, number> => {
      const Q = convert(dialFlow(n.turns!, n.per! * 1000, n.t! * 1000), 'l/h', 'm3/s');
      return { Q, ...(n.H !== undefined ? { input: Q * n.H } : {}) };
    },
  },
  {
    id: 'dial-watch',
    group: 'fuel-gas',
    title: 'Least watch of a meter’s dial',
    answers: 'How long the smallest test dial must be watched, and what leak that can show.',
    formula: '0.25 and 0.5 ft³: 5 min; 1: 7; 2: 10; 5: 20; 10: 30;  q = part of a turn × volume / time',
    source: 'Published watch times, rule pack "gas-imperial"',
    note: 'A fiftieth of a turn is what an eye sees (house figure)',
    inputs: [input('per', 'test dial, volume per turn', 'ft3', 'positive', '0.5')],
    outputs: [
      { key: 't', name: 'least watch', unit: 'min' },
      { key: 'q', name: 'smallest leak it can show', unit: 'l/h' },
    ],
    work: (n) =>
      asked('per', () => {
        const { minutes } = minutesOf(
          {
            formula: 'dial-watch@1',
            args: { table: '0.25 ft3=5, 0.5 ft3=5, 1 ft3=7, 2 ft3=10, 5 ft3=20, 10 ft3=30' },
          },
          context({
            meter: { kind: 'other', name: '', volume: exact(0, 0, 'l'), testDial: figure(n.per!, 'ft3') },
          }),
        );
        return { t: minutes * 60, q: (0.02 * n.per!) / (minutes * 60) };
      }),
  },
];

const weakest = () => input('weak', 'weakest element in scope permits', 'bar', 'positive', '10');
export const WATER_LINES: readonly DeskFormula[] = [
  {
    id: 'hydraulic-pressure',
    group: 'water',
    title: 'Hydraulic test pressure',
    answers: 'A multiple of the working pressure, never above the weakest element.',
    formula: 'p = min(multiple × p_working, weakest element)',
    source: 'Both schools, 1.5 × working or 1.1 × design. Floor loops at least 1.3',
    inputs: [
      input('p', 'p_working (or design)', 'bar', 'positive', '6'),
      input('m', 'multiple', '1', 'positive', '1.5'),
      weakest(),
    ],
    outputs: [
      { key: 'p', name: 'test pressure', unit: 'bar' },
      { key: 'wanted', name: 'wanted by the multiple', unit: 'bar' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const r = cappedPressure(n.p!, n.m!, n.weak!);
      return {
        p: r.used,
        wanted: r.wanted,
        says: r.impossible
          ? 'The weakest element permits less than the working pressure: take it out of scope or check its figure. As entered no test is possible.'
          : r.capped
            ? 'Held down by the weakest element: it may be taken out of scope, otherwise this is the pressure.'
            : 'The multiple decides.',
      };
    },
  },
  {
    id: 'plastic-school-a',
    group: 'water',
    title: 'Plastic pipe, school A',
    answers: 'The pressure to bleed to after pumping, and how long it must not fall below.',
    formula: 'STP / 3 (+ 0.1 bar), 90 min; twin: half, 120 min',
    source: 'Schools of plastic pipework',
    inputs: [input('stp', 'STP, test pressure', 'bar', 'positive', '9')],
    choices: [
      {
        key: 'part',
        name: 'bled to',
        options: [
          { key: 'third', label: 'a third, 90 min' },
          { key: 'half', label: 'half, 120 min' },
        ],
        value: 'third',
      },
    ],
    outputs: [
      { key: 'low', name: 'no reading below', unit: 'bar' },
      { key: 'high', name: 'start at most at', unit: 'bar' },
      { key: 't', name: 'without pumping', unit: 'min' },
    ],
    work: (n, c) => {
      const b = schoolABand(n.stp!, c.part === 'half' ? 2 : 3);
      return { low: b.low, high: b.high, t: b.minutes * 60 };
    },
  },
  {
    id: 'plastic-school-b',
    group: 'water',
    title: 'Plastic pipe, school B',
    answers: 'Whether the two falls stay under their limits; exactly the limit is too much.',
    formula: 'p30 − p60 < 0.6 bar  and  p60 − p180 < 0.2 bar',
    source: 'Schools of plastic pipework',
    inputs: [
      input('p30', 'p30', 'bar', 'positive', '9'),
      input('p60', 'p60', 'bar', 'positive', '8.6'),
      input('p180', 'p180', 'bar', 'positive', '8.5'),
    ],
    outputs: [
      { key: 'first', name: 'fall to 60 min', unit: 'bar' },
      { key: 'second', name: 'fall from 60 to 180 min', unit: 'bar' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const r = schoolB(n.p30!, n.p60!, n.p180!);
      return {
        first: n.p30! - n.p60!,
        second: n.p60! - n.p180!,
        says:
          r.first && r.second
            ? 'Both falls stay under their limits. The rule also asks for no visible leak and no pumping after p30.'
            : `The fall ${r.first ? 'from 60 to 180' : 'to 60'} min reaches its limit.`,
      };
    },
  },
  {
    id: 'dry-hold',
    group: 'water',
    title: 'Dry test of water pipework',
    answers: 'Minutes at 150 mbar and the load pressure afterwards.',
    formula:
      '120 min to 100 l, 20 min more for each further 100 l or part; load 3 bar to DN 50, 1 bar above, 10 min',
    source: 'Dry school of water pipework',
    inputs: [volume('140'), input('dn', 'largest nominal size', 'mm', 'positive', '35')],
    outputs: [
      { key: 't', name: 'hold at 150 mbar', unit: 'min' },
      { key: 'load', name: 'load at most', unit: 'bar' },
    ],
    work: (n) => ({ t: dryMinutes(n.V!) * 60, load: dryLoad(n.dn!) }),
  },
  {
    id: 'drain-level',
    group: 'water',
    title: 'Drain: what a level mark can show',
    answers: 'The loss that moves the level by 2 mm, over all free surfaces at that level.',
    formula: 'q = ΣA × 2 mm / t',
    source: 'Level hold: all free surfaces times the fall',
    inputs: [
      input('A', 'ΣA, free surfaces: opening, risers, stacks', 'cm2', 'positive', '250'),
      input('t', 't, hold', 'min', 'positive', '30'),
    ],
    outputs: [
      { key: 'q', name: 'smallest loss', unit: 'l/h' },
      { key: 'perMm', name: 'litres per millimetre', unit: 'l/mm' },
    ],
    work: (n) => ({ q: levelLeak(n.A!, n.t!), perMm: n.A! }),
  },
  {
    id: 'drain-head',
    group: 'water',
    title: 'Drain: pressure at the lowest point',
    answers: 'What the standing water applies where the pipe lies deepest.',
    formula: 'p = 9.80665 kPa/m × (level − lowest point)',
    source: 'Weight of water: 9.81 kPa for each metre of head',
    inputs: [
      input('level', 'height of the level', 'm', 'any', '0.1'),
      input('lowest', 'height of the lowest point', 'm', 'any', '-1.4'),
    ],
    outputs: [{ key: 'p', name: 'pressure at the lowest point', unit: 'mbar' }],
    work: (n) => ({ p: headAtLowest(n.level!, n.lowest!) }),
  },
  {
    id: 'drain-loss',
    group: 'water',
    title: 'Drain: permitted loss, European pack',
    answers: 'What a drain may lose after its soak.',
    formula: '0.15 l/m² of wetted surface in 30 min',
    source: 'European school of drains: loss per wetted surface',
    inputs: [
      input('S', 'wetted surface', 'm2', 'positive', '12'),
      input('t', 'time', 'min', 'positive', '30'),
    ],
    outputs: [{ key: 'V', name: 'permitted loss', unit: 'l' }],
    work: (n) => ({ V: drainLossLimit(n.S!, n.t!) }),
  },
];

const mainWall = [
  input('D', 'D, diameter', 'mm', 'positive', '118'),
  input('e', 'e, wall', 'mm', 'positive', '4.4'),
];
const mainMaterial = {
  key: 'material',
  name: 'pipe wall',
  options: Object.entries(WALLS).map(([key, w]) => ({ key, label: `${key}, ${w.note}` })),
  value: 'ductile iron',
};
export const MAIN_LINES: readonly DeskFormula[] = [
  {
    id: 'main-loss-us',
    group: 'main',
    title: 'Make-up permitted, US school',
    answers: 'Water that may be added to keep the test pressure.',
    formula: 'L = S × D × √P / 148000 (gal/h; ft, in, psi); metric divisor about 794798 (l/h; m, mm, kPa)',
    source: 'US school of hydrostatic tests',
    inputs: [
      input('S', 'S, length', 'ft', 'positive', '1000'),
      input('D', 'D, nominal diameter', 'in', 'positive', '6'),
      input('P', 'P, mean test pressure', 'psi', 'positive', '150'),
    ],
    outputs: [{ key: 'L', name: 'permitted make-up', unit: 'gal/h' }],
    work: (n) => ({ L: mainMakeUpLimit(n.S!, n.D!, n.P!) }),
  },
  {
    id: 'main-loss-eu',
    group: 'main',
    title: 'Loss permitted, European school',
    answers: 'Water that may be lost for a permitted fall of pressure.',
    formula: 'ΔV = 1.2 × V × Δp × (1/Ew + D/(e × Er)), Ew 2.1 GPa',
    source: 'European school of hydrostatic tests. Δp 20 kPa ductile, steel, plastic',
    inputs: [
      input('V', 'V, volume of the main', 'l', 'positive', '2400'),
      input('dp', 'Δp, permitted fall', 'kPa', 'positive', '20'),
      ...mainWall,
    ],
    choices: [mainMaterial],
    outputs: [{ key: 'V', name: 'permitted loss', unit: 'l' }],
    work: (n, c) => ({
      V: mainVolumeLimit(n.V!, n.dp!, n.D!, n.e!, WALLS[c.material as WallMaterial].modulus),
    }),
  },
  {
    id: 'main-air-check',
    group: 'main',
    title: 'Air check of a filled main',
    answers: 'Water that raising the pressure may take; more means trapped air.',
    formula: 'ΔV = 1.5 × V × Δp × (1/Ew + D/(e × Er))',
    source: 'Stiffness of water and wall, times 1.5 for what air is left',
    inputs: [
      input('V', 'V, volume of the main', 'l', 'positive', '2400'),
      input('dp', 'Δp, raise', 'kPa', 'positive', '500'),
      ...mainWall,
    ],
    choices: [mainMaterial],
    outputs: [{ key: 'V', name: 'at most', unit: 'l' }],
    work: (n, c) => ({
      V: mainAirCheckLimit(n.V!, n.dp!, n.D!, n.e!, WALLS[c.material as WallMaterial].modulus),
    }),
  },
  {
    id: 'main-heights',
    group: 'main',
    title: 'Test pressure along a slope',
    answers: 'What stands at the highest and lowest point while the gauge reads the test pressure.',
    formula: 'p_point = p_gauge − 9.80665 kPa/m × (height of the point − height of the gauge)',
    source: 'Weight of water; buried mains: 1.5 × working at the test point, at least 1.25 × at the highest',
    inputs: [
      input('p', 'p_working', 'bar', 'positive', '8'),
      input('up', 'highest point above the gauge', 'm', 'not-negative', '12'),
      input('down', 'lowest point below the gauge', 'm', 'not-negative', '4'),
    ],
    outputs: [
      { key: 'test', name: 'at the gauge, 1.5 × working', unit: 'bar' },
      { key: 'top', name: 'at the highest point', unit: 'bar' },
      { key: 'foot', name: 'at the lowest point', unit: 'bar' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const test = 1.5 * n.p!;
      const top = test - headPressure(n.up!);
      return {
        test,
        top,
        foot: test + headPressure(n.down!),
        says:
          top >= 1.25 * n.p!
            ? 'The highest point keeps at least 1.25 × working.'
            : 'The highest point falls below 1.25 × working: raise the pressure if the lowest point allows it, or test in sections.',
      };
    },
  },
];

export const POOL_LINES: readonly DeskFormula[] = [
  {
    id: 'pool-plugs',
    group: 'pool',
    title: 'Plugs of a joined line',
    answers: 'How many plugs a line takes, to be counted out again.',
    formula: 'closed = ends − 1;  open = 1',
    source: 'Published practice of pool lines',
    inputs: [input('ends', 'ends of the joined line', '1', 'count', '4')],
    outputs: [
      { key: 'closed', name: 'closed plugs', unit: '1' },
      { key: 'open', name: 'open plug', unit: '1' },
    ],
    work: (n) => ({ ...plugsFor(n.ends!) }),
  },
  {
    id: 'pool-pressure',
    group: 'pool',
    title: 'Pressure of a pool line',
    answers: 'The band of the school under the pump’s pressure and the plug’s rating.',
    formula: 'min(school’s band, pump working pressure, plug rating at that bore)',
    source: 'Published practice of pool lines: narrow 15 to 20 psi; wide 10 to 25 psi to 2 in, 5 to 15 above',
    inputs: [
      input('D', 'pipe size', 'in', 'positive', '2'),
      input('pump', 'pump working pressure', 'psi', 'positive', '20'),
      input('plug', 'plug rating at that bore', 'psi', 'positive', '25'),
    ],
    choices: [
      {
        key: 'school',
        name: 'school',
        options: [
          { key: 'narrow', label: 'narrow' },
          { key: 'wide', label: 'wide' },
        ],
        value: 'narrow',
      },
    ],
    outputs: [
      { key: 'low', name: 'from', unit: 'psi' },
      { key: 'high', name: 'to', unit: 'psi' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n, c) => {
      const r = poolPressure(n.D!, c.school as 'narrow' | 'wide', n.pump!, n.plug!);
      return {
        low: r.low,
        high: r.high,
        says: r.impossible
          ? 'The cap lies below the school’s band: choose a plug of a higher rating, or test at the cap and say so.'
          : 'Raise in small steps with a look at each.',
      };
    },
  },
];
