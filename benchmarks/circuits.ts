/** Circuits: standing vacuums of a known cause; saturation against published tables. */
import { bubblePressure } from '@/core/medium/refrigerant';
import { SATURATION } from '@/core/testing/saturation';
import { vacuumShares } from '@/core/testing/vacuums';
import type { Report } from './run';

const TRACES = 3000;
export function circuits(report: Report): void {
  const began = performance.now();
  const { right, wrong } = vacuumShares(TRACES);
  report(`standing vacuums without their cause, of ${TRACES}`, 100 - right, '%');
  report('of them called by the other cause', wrong, '%');
  report('a standing vacuum, on average', (performance.now() - began) / TRACES, 'ms');
  const off = SATURATION.map(([name, celsius, bar]) =>
    Math.abs(bubblePressure(name, celsius + 273.15) / 1e5 / bar - 1),
  );
  report('saturation beside published tables, worst', Math.max(...off) * 100, '%');
}
