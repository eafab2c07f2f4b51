/** Desk lines of the limits of water. */
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
import { type DeskFormula, input } from './types';

import { volume } from './limit-kit';

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
