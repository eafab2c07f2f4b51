/** Desk lines of adequacy: what a hold could see, how long it must be, whether a gauge fits. */
import { defaultTemperatureUncertainty, gasHoldSees, neededGasMinutes } from '@/core/adequacy/gas';
import { neededLiquidMinutes, smallestLiquidLeak } from '@/core/adequacy/liquid';
import { visibleChange } from '@/core/adequacy/change';
import { HOUSE_TEMPERATURE } from '@/core/adequacy/house';
import { convert } from '@/core/quantity/unit';
import { DeskError, input, type DeskFormula, type DeskInput, type Numbers } from './types';

const hold = (n: Numbers) => ({
  volume: n.V!,
  pressure: n.p!,
  workingPressure: n.pw ?? n.p!,
  unit: 'Pa' as const,
  resolution: n.r!,
  perceptible: n.pm ?? 2 * n.r!,
  ...(n.uT !== undefined ? { loggedTemperature: n.uT } : {}),
});
const pm = () => input('pm', 'pm, perceptible movement', 'mbar', 'positive', '', 'empty: two display steps');
const uT = () =>
  input(
    'uT',
    'u_dT, temperature difference',
    'K',
    'not-negative',
    '',
    'empty: not logged, 0.05 K a minute, at most 0.1 K to 2 min and 0.5 K for any',
  );
const gasHold = (): DeskInput[] => [
  input('V', 'V, volume of the section', 'l', 'positive', '20'),
  input('p', 'p_test, test pressure', 'mbar', 'positive', '20.5'),
  input('pw', 'p_working, working pressure', 'mbar', 'positive', '', 'empty: the test pressure'),
  input('r', 'r, display step of the gauge', 'mbar', 'positive', '0.01'),
  pm(),
];
const liquidHold = (): DeskInput[] => [
  input('C', 'C, stiffness: water per pressure', 'ml/bar', 'positive', '12'),
  input('r', 'r, display step of the gauge', 'bar', 'positive', '0.01'),
  input('pm', 'pm, perceptible movement', 'bar', 'positive', '', 'empty: two display steps'),
];
const SOURCE = 'Seen with 95 %: Δp_min = pm + 1.65 u';
const NO_DAY = 'More than a day: take a finer gauge or a smaller section.';
const unlogged = (minutes: number) => defaultTemperatureUncertainty(minutes, HOUSE_TEMPERATURE);

export const ADEQUACY_LINES: readonly DeskFormula[] = [
  {
    id: 'smallest-leak-gas',
    group: 'adequacy',
    title: 'Smallest leak a gas hold can show',
    answers: 'What this gauge, volume and time could have seen.',
    formula:
      'q_min = V/P_atm × Δp_min / t × p_working/p_test;  Δp_min = pm + 1.65 √(2 r²/12 + (P/T × u_dT)² + u_bar²)',
    source: SOURCE,
    note: 'The barometer is taken to drift 1 mbar an hour when it is not logged',
    inputs: [...gasHold(), input('t', 't, hold', 'min', 'positive', '2'), uT()],
    outputs: [
      { key: 'q', name: 'smallest leak', unit: 'l/h' },
      { key: 'dp', name: 'smallest change that shows', unit: 'mbar' },
    ],
    work: (n) => {
      const sees = gasHoldSees({ ...hold(n), minutes: n.t! / 60 }, HOUSE_TEMPERATURE);
      return { q: convert(sees.leak, 'l/h', 'm3/s'), dp: sees.change };
    },
  },
  {
    id: 'needed-hold-gas',
    group: 'adequacy',
    title: 'Hold that a gas leak needs',
    answers: 'How long this gauge and volume must be held to see the leak that matters.',
    formula: 't so that q_min(t) ≤ q',
    source: SOURCE,
    inputs: [...gasHold(), input('q', 'q, leak that matters', 'l/h', 'positive', '0.1'), uT()],
    outputs: [
      { key: 't', name: 'hold needed', unit: 'min' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n): Record<string, number | string> => {
      const minutes = neededGasMinutes(hold(n), convert(n.q!, 'm3/s', 'l/h'), HOUSE_TEMPERATURE);
      return minutes === null ? { says: NO_DAY } : { t: minutes * 60 };
    },
  },
  {
    id: 'smallest-leak-liquid',
    group: 'adequacy',
    title: 'Smallest leak a water hold can show',
    answers: 'What this gauge, stiffness and time could have seen.',
    formula: 'q_min = C × Δp_min / t;  Δp_min = pm + 1.65 √(2 r²/12 + (dp/dT × u_dT)²)',
    source: SOURCE,
    inputs: [
      ...liquidHold(),
      input('t', 't, hold', 'min', 'positive', '60'),
      input('dpdT', 'dp/dT of the section', 'bar/K', 'any', '1'),
      uT(),
    ],
    outputs: [
      { key: 'q', name: 'smallest leak', unit: 'l/h' },
      { key: 'dp', name: 'smallest change that shows', unit: 'bar' },
    ],
    work: (n) => {
      const blur = { resolution: n.r!, perKelvin: n.dpdT!, temperature: n.uT ?? unlogged(n.t! / 60) };
      const perceptible = n.pm ?? 2 * n.r!;
      return {
        q: smallestLiquidLeak({ stiffness: n.C!, perceptible, seconds: n.t!, blur }),
        dp: visibleChange(perceptible, blur),
      };
    },
  },
  {
    id: 'needed-hold-liquid',
    group: 'adequacy',
    title: 'Hold that a water leak needs',
    answers: 'How long this gauge and stiffness must be held to see the leak that matters.',
    formula: 't so that q_min(t) ≤ q',
    source: SOURCE,
    inputs: [
      ...liquidHold(),
      input('q', 'q, leak that matters', 'l/h', 'positive', '0.1'),
      input('dpdT', 'dp/dT of the section', 'bar/K', 'any', '1'),
      uT(),
    ],
    outputs: [
      { key: 't', name: 'hold needed', unit: 'min' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n): Record<string, number | string> => {
      const minutes = neededLiquidMinutes(
        {
          stiffness: n.C!,
          perceptible: n.pm ?? 2 * n.r!,
          blur: { resolution: n.r!, perKelvin: n.dpdT!, temperature: 0 },
        },
        n.q!,
        (m) => n.uT ?? unlogged(m),
      );
      return minutes === null ? { says: NO_DAY } : { t: minutes * 60 };
    },
  },
  {
    id: 'gauge-part',
    group: 'adequacy',
    title: 'Where a test pressure stands on a dial',
    answers: 'Whether a dial is read in its trustworthy middle, and fine enough for a limit.',
    formula: 'a quarter of scale ≤ p ≤ three quarters;  step ≤ half of the permitted movement',
    source: 'General rules on gauges',
    inputs: [
      input('p', 'p, test pressure', 'psi', 'positive', '3'),
      input('scale', 'full scale', 'psi', 'positive', '15'),
      input('r', 'smallest division', 'psi', 'positive', '0.1'),
      input('limit', 'permitted movement', 'psi', 'positive', '', 'empty: nil'),
    ],
    outputs: [
      { key: 'share', name: 'share of scale', unit: '%' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const share = n.p! / n.scale!;
      if (n.r! > n.scale!) throw new DeskError('r', 'smallest division: it cannot be larger than the scale.');
      return {
        share,
        says: [
          share > 1
            ? 'The dial ends below the test pressure: choose a larger one.'
            : share < 0.25 || share > 0.75
              ? 'Not in the middle half of this dial: choose another.'
              : 'In the middle half of the dial.',
          ...(n.limit !== undefined
            ? [
                n.r! * 2 <= n.limit * (1 + 1e-12)
                  ? 'Fine enough for this limit.'
                  : 'Too coarse for this limit: a division may be at most half of it.',
              ]
            : []),
        ].join(' '),
      };
    },
  },
];
