/** Desk lines of the limits of fuel gas. */
import { minutesOf, pressureOf } from '@/core/formula';
import { dialFlow } from '@/core/medium/leak';
import { exact } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { type DeskFormula, input } from './types';

import { asked, context, figure, si, volume } from './limit-kit';

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
