/** A plan of a procedure and a sound section to conduct it on, for procedures that no run of the demo plays. */
import { freeSurface, systemStiffness } from '@/core/installation/section';
import { type Plan, planVolume } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { bakery } from '@/core/testing/bakery';
import { gauges, planOf } from '@/core/testing/quarter';
import type { Section } from '@/core/conduct/conduct';
import { GasSection, LevelSection, type Random, WaterSection } from './worlds';

type Over = Parameters<typeof planOf>[1];
const KEPT: Readonly<Record<string, Over>> = {
  'gas-lowpressure-extension': {
    system: bakery({ workingPressure: q('20.5 mbar'), supplyPressure: q('20.9 mbar') }),
    gauges: [gauges.mbar],
  },
  'pool-line-air': { gauges: [{ ...gauges.psiPool, resolution: q('0.005 psi') }] },
  'vehicle-water-hydraulic': {
    system: bakery({
      medium: 'water',
      workingPressure: q('2 bar'),
      setPressure: q('2.5 bar'),
      appliances: [],
    }),
    gauges: [gauges.wide],
  },
  'water-dry': { gauges: [{ ...gauges.bar, greatest: q('6 bar') }] },
};
const gas = (plan: Plan) => (r: Random) =>
  new GasSection(
    {
      volume: planVolume(plan).value,
      leak: 0,
      at: 1e5,
      exponent: 0.5,
      appliances: 0,
      letBy: 0,
      supply: 2090,
      source: 20_000,
      warm: 0.3,
      perMinute: 0.0005,
    },
    r,
  );
const water = (plan: Plan) => (r: Random) => {
  const volume = planVolume(plan).value;
  return new WaterSection(
    {
      volume,
      // walls without a modulus: water alone, as stiff as it is
      stiffness: systemStiffness(plan.system, 5e5)?.c ?? volume * 4.6e-10,
      alpha: 17e-6,
      creep: [],
      air: 0.003 * volume,
      leak: 0,
      at: 5e5,
      exponent: 0.5,
      letBy: 0,
      supply: 0,
      source: 6000,
      perMinute: 0.0005,
    },
    r,
  );
};
const level = (plan: Plan) => (r: Random) =>
  new LevelSection({ surface: freeSurface(plan.system), leak: 0, head: 1, bounce: 0.002 }, r);
/** What stands in the section while it is tested. */
const WITHIN: Readonly<Record<string, (plan: Plan) => (r: Random) => Section>> = {
  'drain-new': level,
  'main-pe': water,
  'vehicle-water-hydraulic': water,
};
export function soundOf(id: string): { readonly plan: Plan; readonly section: (r: Random) => Section } {
  const plan = planOf(id, KEPT[id]);
  return { plan, section: (WITHIN[id] ?? gas)(plan) };
}
