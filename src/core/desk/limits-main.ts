/** Desk lines of the limits of mains. */
import { type WallMaterial, WALLS } from '@/core/installation/pipes';
import { mainAirCheckLimit, mainMakeUpLimit, mainVolumeLimit } from '@/core/limit/main';
import { headPressure } from '@/core/medium/water';
import { type DeskFormula, input } from './types';

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
