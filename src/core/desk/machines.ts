/** Desk lines of refrigerant circuits and ducts. */
import {
  ductReading,
  FLOOR_SCHOOL,
  floorLimit,
  flowAt,
  halvingCheck,
  pressureToRead,
  SURFACE_CLASS,
  surfaceLimit,
  type FloorCase,
} from '@/core/limit/duct';
import { strengthPressure, vacuumResult } from '@/core/limit/refrigerant';
import { REFRIGERANTS } from '@/core/medium/fluids';
import { exponentWord, fitFlowLaw } from '@/core/medium/flow-law';
import { bubblePressure, molarMass, nitrogenAt } from '@/core/medium/refrigerant';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { barometer, input, type DeskFormula } from './types';

const refrigerant = {
  key: 'fluid',
  name: 'refrigerant',
  options: REFRIGERANTS.map((r) => ({ key: r, label: r })),
  value: 'R410A',
};
const R = 8.314462618;

export const REFRIGERANT_LINES: readonly DeskFormula[] = [
  {
    id: 'saturation',
    group: 'refrigerant',
    title: 'Saturation pressure, estimate',
    answers:
      'PS of a side at its design temperature where no nameplate gives it. A nameplate or table always wins.',
    formula: 'bubble point by Peng-Robinson with binary coefficients; gauge = absolute − 1.013 bar',
    source: 'Peng and Robinson (1976). Low side 32 °C; high side air-cooled 55, water-cooled 43',
    inputs: [input('T', 'design temperature', 'C', 'temperature', '55')],
    choices: [refrigerant],
    outputs: [
      { key: 'gauge', name: 'saturation, gauge', unit: 'bar' },
      { key: 'abs', name: 'saturation, absolute', unit: 'bar' },
    ],
    work: (n, c) => {
      const p = bubblePressure(c.fluid!, n.T!);
      return { gauge: p - STANDARD_ATMOSPHERE, abs: p };
    },
  },
  {
    id: 'strength-pressure',
    group: 'refrigerant',
    title: 'Strength pressure of a circuit',
    answers: 'The multiple of PS, never above the weakest element.',
    formula: 'p = min(factor × PS, weakest element)',
    source: 'Strength test of refrigerant circuits: 1.1 for most, up to 1.43 in some categories',
    inputs: [
      input('PS', 'PS of this side', 'bar', 'positive', '28'),
      input('f', 'factor', '1', 'positive', '1.1'),
      input('weak', 'weakest element in scope permits', 'bar', 'positive', '42'),
    ],
    outputs: [
      { key: 'p', name: 'strength pressure', unit: 'bar' },
      { key: 'tight', name: 'tightness at most', unit: 'bar' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const r = strengthPressure(n.PS!, n.f!, n.weak!);
      return {
        p: r.used,
        tight: Math.min(n.PS!, n.weak!),
        says: r.impossible
          ? 'The weakest element permits less than PS: isolate it and quote its own certificate.'
          : r.capped
            ? 'Held down by the weakest element: isolate it, or its figure stands.'
            : 'The factor decides. Oxygen-free dry nitrogen only.',
      };
    },
  },
  {
    id: 'nitrogen-temperature',
    group: 'refrigerant',
    title: 'Nitrogen at another temperature',
    answers: 'Where the pressure of a sound circuit stands after it warmed or cooled.',
    formula: 'P/T constant, with the second virial coefficient of nitrogen',
    source: 'Second virial coefficient of nitrogen: about 4 % more than ideal at 16 bar, 12 % at 46',
    inputs: [
      input('p', 'p, start', 'bar', 'gauge', '28'),
      input('T0', 'temperature at start', 'C', 'temperature', '20'),
      input('T1', 'temperature at end', 'C', 'temperature', '17'),
      barometer(),
    ],
    outputs: [
      { key: 'p', name: 'expected at the end', unit: 'bar' },
      { key: 'change', name: 'change from temperature', unit: 'bar' },
    ],
    work: (n) => {
      const end = nitrogenAt(n.p! + n.atm!, n.T0!, n.T1!) - n.atm!;
      return { p: end, change: end - n.p! };
    },
  },
  {
    id: 'refrigerant-loss',
    group: 'refrigerant',
    title: 'Yearly loss of a small leak',
    answers: 'Grams a year that a leak rate means once the circuit holds refrigerant gas.',
    formula: 'm = Q × P_atm × M / (R T)',
    source: 'Ideal gas. House: 5 g a year matters',
    inputs: [
      input('Q', 'Q, leak rate at atmospheric conditions', 'ml/min', 'not-negative', '0.01'),
      input('T', 'temperature', 'C', 'temperature', '20'),
    ],
    choices: [refrigerant],
    outputs: [{ key: 'm', name: 'loss', unit: 'g/year' }],
    work: (n, c) => ({ m: (n.Q! * STANDARD_ATMOSPHERE * molarMass(c.fluid!)) / (R * n.T!) }),
  },
  {
    id: 'standing-vacuum',
    group: 'refrigerant',
    title: 'Standing vacuum after ten minutes',
    answers: 'Leak, moisture or sound, from where the vacuum stands and whether it flattens.',
    formula:
      '≤ 133 Pa and level or flattening: tight; an even rise of 67 Pa or more: not tight; flattening above 133 Pa: moisture',
    source: 'House figures of the refrigerant trade',
    inputs: [
      input('p5', 'absolute pressure after 5 min', 'Pa', 'absolute', '90'),
      input('p10', 'absolute pressure after 10 min', 'Pa', 'absolute', '110'),
      input('p0', 'absolute pressure at the start', 'Pa', 'absolute', '60'),
    ],
    outputs: [
      { key: 'rise', name: 'rise of the second five minutes', unit: 'Pa' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => ({ rise: n.p10! - n.p5!, says: vacuumResult(n.p0!, n.p5!, n.p10!) }),
  },
];

const EXPONENT_SAYS = {
  sound: 'Follows the law.',
  doubtful: 'Doubtful: look at masks, probe and range, then repeat.',
  void: 'Void: no opening behaves like this. Look at the set-up.',
} as const;
const exponent = () => input('n', 'n, exponent', '1', 'positive', '0.6', '0.5 to 1.0; 0.6 when unknown');
export const DUCT_LINES: readonly DeskFormula[] = [
  {
    id: 'duct-floor-limit',
    group: 'duct',
    title: 'Permitted leakage by floor area',
    answers: 'The limit at 25 Pa for the floor that this system serves.',
    formula: '4, 3 or 8 CFM at 25 Pa per 100 ft²',
    source: 'Floor-area school of duct tightness',
    inputs: [input('A', 'floor served by this system', 'ft2', 'positive', '1800')],
    choices: [
      {
        key: 'case',
        name: 'case',
        options: Object.entries(FLOOR_SCHOOL).map(([key, x]) => ({ key, label: x.words })),
        value: 'after-construction',
      },
    ],
    outputs: [{ key: 'Q', name: 'permitted at 25 Pa', unit: 'CFM' }],
    work: (n, c) => ({ Q: floorLimit(n.A!, c.case as FloorCase) }),
  },
  {
    id: 'duct-surface-limit',
    group: 'duct',
    title: 'Permitted leakage by duct surface',
    answers: 'The limit of a tightness class at a test pressure.',
    formula: 'f_max = c × p^0.65 l/s per m²; c 0.027 A, 0.009 B, 0.003 C, 0.001 D',
    source: 'Duct-surface school of duct tightness',
    inputs: [
      input('S', 'duct surface', 'm2', 'positive', '40'),
      input('p', 'test pressure', 'Pa', 'positive', '400'),
    ],
    choices: [
      {
        key: 'class',
        name: 'class',
        options: Object.keys(SURFACE_CLASS).map((key) => ({ key, label: `class ${key}` })),
        value: 'B',
      },
    ],
    outputs: [{ key: 'Q', name: 'permitted', unit: 'l/s' }],
    work: (n, c) => ({ Q: surfaceLimit(n.S!, n.p!, c.class as keyof typeof SURFACE_CLASS) }),
  },
  {
    id: 'duct-flow',
    group: 'duct',
    title: 'Duct flow at the reference pressure',
    answers: 'A flow read at one pressure carried to another.',
    formula: 'Q₂ = Q₁ (p₂/p₁)ⁿ',
    source: 'Power law of openings',
    inputs: [
      input('Q', 'flow read', 'CFM', 'not-negative', '60'),
      input('p1', 'at', 'Pa', 'positive', '20'),
      input('p2', 'carried to', 'Pa', 'positive', '25'),
      exponent(),
    ],
    outputs: [{ key: 'Q', name: 'flow', unit: 'CFM' }],
    work: (n) => ({ Q: flowAt(n.Q!, n.p1!, n.p2!, n.n!) }),
  },
  {
    id: 'duct-halving',
    group: 'duct',
    title: 'Half-pressure check',
    answers: 'Whether two flows of one range follow the law of openings.',
    formula: 'n = ln(Q₂/Q₁) / ln(p₂/p₁), with its 95 % interval',
    source: 'Power law of openings: ratio about 0.66 at half the pressure',
    inputs: [
      input('Q1', 'flow', 'CFM', 'positive', '60'),
      input('p1', 'at', 'Pa', 'positive', '25'),
      input('Q2', 'second flow', 'CFM', 'positive', '39.6'),
      input('p2', 'at', 'Pa', 'positive', '12.5'),
      input('u', 'uncertainty of the flow', '%', 'not-negative', '3'),
    ],
    outputs: [
      { key: 'n', name: 'n', unit: '1' },
      { key: 'ratio', name: 'ratio of the flows', unit: '1' },
      { key: 'low', name: 'n, 95 % from', unit: '1' },
      { key: 'high', name: 'to', unit: '1' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const r = halvingCheck(n.Q1!, n.p1!, n.Q2!, n.p2!, n.u!);
      return {
        n: r.n,
        ratio: r.ratio,
        low: r.low,
        high: r.high,
        says: EXPONENT_SAYS[r.result],
      };
    },
  },
  {
    id: 'duct-exponent',
    group: 'duct',
    title: 'Exponent and leakage from three points',
    answers: 'C and n of a duct system, and its flow at the reference pressure with how well it is known.',
    formula: 'ln Q = ln C + n ln p, each point by its own uncertainty',
    source: 'Power law of openings, weighted least squares of the logarithms',
    inputs: [
      input('Q1', 'flow', 'CFM', 'positive', '91'),
      input('p1', 'at', 'Pa', 'positive', '50'),
      input('Q2', 'second flow', 'CFM', 'positive', '60'),
      input('p2', 'at', 'Pa', 'positive', '25'),
      input('Q3', 'third flow', 'CFM', 'positive', '39.6'),
      input('p3', 'at', 'Pa', 'positive', '12.5'),
      input('u', 'uncertainty of each flow', '%', 'positive', '3'),
      input('ref', 'carried to', 'Pa', 'positive', '25'),
    ],
    outputs: [
      { key: 'n', name: 'n', unit: '1' },
      { key: 'low', name: 'n, 95 % from', unit: '1' },
      { key: 'high', name: 'to', unit: '1' },
      { key: 'Q', name: 'flow at the reference', unit: 'CFM' },
      { key: 'Qlow', name: 'of it, 95 % from', unit: 'CFM' },
      { key: 'Qhigh', name: 'to', unit: 'CFM' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const law = fitFlowLaw(
        ([1, 2, 3] as const).map((i) => ({
          flow: n[`Q${i}`]!,
          pressure: n[`p${i}`]!,
          uncertainty: n.u!,
        })),
      );
      const { flow, low, high } = law.at(n.ref!);
      return {
        n: law.n,
        low: law.low,
        high: law.high,
        Q: flow,
        Qlow: low,
        Qhigh: high,
        says: EXPONENT_SAYS[exponentWord(law)],
      };
    },
  },
  {
    id: 'duct-reading',
    group: 'duct',
    title: 'Duct reading with own kit’s leakage',
    answers: 'Where a reading stands against the limit and the kit’s own blank.',
    formula: 'Q ≤ L within;  L < Q ≤ L + B unresolved;  Q > L + B not tight',
    source: 'House method: what the own kit loses is taken off; a blank above a quarter of the limit warns',
    inputs: [
      input('Q', 'reading', 'CFM', 'not-negative', '70'),
      input('L', 'limit', 'CFM', 'positive', '72'),
      input('B', 'own kit, blank', 'CFM', 'not-negative', '3'),
    ],
    outputs: [
      { key: 'net', name: 'reading less own kit, shown and never judged', unit: 'CFM' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => ({
      net: n.Q! - n.B!,
      says:
        {
          within: 'Within the limit.',
          unresolved: 'Unresolved: the kit’s own leakage covers the difference. New hose and retest.',
          beyond: 'Beyond the limit, whatever the kit loses.',
        }[ductReading(n.Q!, n.L!, n.B!)] +
        (n.B! > n.L! / 4 ? ' Own kit is above a quarter of the limit: mend it first.' : ''),
    }),
  },
  {
    id: 'duct-range',
    group: 'duct',
    title: 'Pressure at which a range reads',
    answers: 'How far to raise a tight duct so that the fan’s range reads a flow.',
    formula: 'p = p_ref × (Q_least / L)^(1/n)',
    source: 'Power law of openings',
    inputs: [
      input('L', 'limit at the reference pressure', 'CFM', 'positive', '20'),
      input('ref', 'reference pressure', 'Pa', 'positive', '25'),
      input('least', 'least flow of the range', 'CFM', 'positive', '30'),
      exponent(),
    ],
    outputs: [{ key: 'p', name: 'pressure needed at the limit', unit: 'Pa' }],
    work: (n) => ({ p: pressureToRead(n.L!, n.ref!, n.least!, n.n!) }),
  },
];
