/** Ducts: whether the interval of the exponent is one of 95 %. */
import { fitFlowLaw } from '@/core/medium/flow-law';
import { normal, uniform } from '@/core/simulation/noise';
import type { Report } from './run';

const PAIRS = 5000;
const UNCERTAINTY = 0.03;
export function ducts(report: Report): void {
  let held = 0;
  for (let seed = 1; seed <= PAIRS; seed += 1) {
    const n = 0.5 + 0.5 * uniform(seed, 9);
    const points = [25, 12.5].map((pressure, i) => ({
      pressure,
      flow: 0.01 * pressure ** n * Math.exp(UNCERTAINTY * normal(seed, i)),
      uncertainty: UNCERTAINTY,
    }));
    const { low, high } = fitFlowLaw(points);
    if (low <= n && high >= n) held += 1;
  }
  const share = (held / PAIRS) * 100;
  report(`exponents inside their 95 % interval, of ${PAIRS} pairs`, share, '%');
  report('the same beside 95 %', Math.abs(share - 95), '%');
}
