/** Cautions of a planned test: what could hurt whom, what to wear, what people in the building are asked. */
import { broughtGases } from '@/core/pack/gases';
import { fillingOf } from '@/core/plan/filling';
import { showExact } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { tradeOf } from '@/core/trades';
import { caseOf, type Plan } from './plan';
import type { PartProspect } from './prospect';
import { PROTECTION_TASKS } from './protection';

export interface PlannedCaution {
  readonly key: string;
  readonly title: string;
  readonly text: string;
  readonly source: string;
}
const joules = (j: number): string =>
  j < 0.001
    ? 'less than 0.001 J'
    : j >= 1000
      ? `${significantText(j / 1000, 3)} kJ`
      : `${significantText(j, 3)} J`;
const kilos = (kg: number): string => `${significantText(kg, 2)} kg`;

/** What the test medium is and why: pressure of a gas, or the system's own. */
export function mediumOf(plan: Plan): { medium: string; reason: string } {
  const medium = plan.procedure.testMedium;
  const live = plan.procedure.boundary !== 'separated';
  const filling = fillingOf(plan);
  return {
    medium,
    reason: broughtGases(plan.procedure).length
      ? !tradeOf(plan.system).fuel
        ? (filling.why ??
          'Air or inert gas only where water must not stay; it stores far more energy than water, so the pressure is held low and raised in stages.')
        : 'Air or inert gas leaves no water in gas pipe and shows bubbles; it stores far more energy than water, so the pressure is held low and raised in stages.'
      : filling.why
        ? filling.why
        : live
          ? 'The installation’s own gas or air at about working pressure: nothing is taken apart, and the leak is measured as it is in use.'
          : 'As the rule pack says.',
  };
}

/** Cautions of the parts of a plan, the gravest energy first; each once. */
export function plannedCautions(plan: Plan, parts: readonly PartProspect[]): PlannedCaution[] {
  const energies = parts.flatMap((p) => (p.energy && p.pressure.pressure ? [{ ...p.energy, p }] : []));
  const most = energies.sort((a, b) => b.gas - a.gas)[0];
  const list: PlannedCaution[] = [];
  if (most)
    list.push({
      key: 'energy',
      title: `Stored energy at ${showExact(most.p.pressure.pressure!)}: ${most.level.words}`,
      text:
        fillingOf(plan).stores === 'water'
          ? `${joules(most.water)} full of water, ${joules(most.gas)} if it were gas. With water that is ${kilos(most.mass)} falling one metre. ${most.level.exclusion}`
          : `${joules(most.gas)} with gas, ${joules(most.water)} if it were full of water. With gas that is ${kilos(most.mass)} falling one metre. ${most.level.exclusion}`,
      source: 'Adiabatic expansion beside elastic water; levels are house figures',
    });
  if (plan.procedure.boundary === 'separated' && fillingOf(plan).stores)
    list.push({
      key: 'cylinder',
      title: 'Before a cylinder or pump is opened',
      text: 'Label read, regulator wound right out, its maximum not far above the test pressure, hose and clips checked, hose tied. Raise in stages, release slowly. Never oxygen, acetylene or fuel gas for strength.',
      source: 'The work, cautions',
    });
  if (plan.procedure.boundary === 'separated')
    list.push({
      key: 'moment',
      title: 'The right moment of the build',
      text: 'After rough-in and before finishes, a floor pour or anything else covers the pipe: what is covered cannot be seen with leak fluid, and what comes later can damage what was tight.',
      source: 'Needs of the trade N025',
    });
  if (broughtGases(plan.procedure).some((g) => g !== 'air'))
    list.push({
      key: 'ventilate',
      title: 'Inert gas takes the air away',
      text: 'Ventilate before and during. People who do not test stay out; nobody works alone in a pit or a small room.',
      source: 'The work, cautions: nitrogen asphyxiates',
    });
  if (tradeOf(plan.system).fuel)
    list.push({
      key: 'smell',
      title: 'If gas is smelt',
      text: `Stop. This phone is not explosion-protected: do not use it there, no switches; leave, isolate only if it is safe on the way, call from outside${plan.system.emergencyContact ? `: ${plan.system.emergencyContact}` : ''}.`,
      source: 'The work, cautions',
    });
  if (caseOf(plan).appliances)
    list.push({
      key: 'controls',
      title: 'Controls of appliances',
      text: 'Never above the lowest maximum inlet pressure on any plate in scope; a plate not read counts as 14 inWC (35 mbar).',
      source: 'The work, cautions',
    });
  if (
    plan.system.pipes.some((p) => /\bPE|PVC|multilayer|plastic/i.test(p.material)) &&
    (broughtGases(plan.procedure).length || fillingOf(plan).of === 'gas')
  )
    list.push({
      key: 'plastic',
      title: 'Plastic pipe and gas pressure',
      text: 'Only with the maker’s consent on record; otherwise water.',
      source: 'The work, cautions',
    });
  return list;
}

/** What to wear and have at hand, by task. */
export const protectionOf = (plan: Plan): { task: string; items: readonly string[] }[] =>
  [
    'prepare',
    ...tradeOf(plan.system).protection.filter(
      (p) => p !== 'raise' || plan.procedure.boundary === 'separated',
    ),
    'put-back',
  ].map((key) => PROTECTION_TASKS[key]!);

/** A brief for the people in the building, in plain words. */
export function occupantBrief(plan: Plan, when: string, minutes: number, firm: string): string {
  const { called, brief } = tradeOf(plan.system);
  return [
    `${firm} tests the ${called} of ${plan.system.name}, ${plan.site.name}, ${when}.`,
    `It takes about ${minutes < 90 ? `${Math.round(minutes / 5) * 5} minutes` : `${Math.round(minutes / 30) / 2} hours`}.`,
    brief.meanwhile,
    `Please tell us now if ${brief.noticed}, if anyone cannot be without ${brief.without} for this time, and where we can find every room with a tap or appliance.`,
    'Please keep children and visitors away from hoses, plugs and the place where we work.',
    brief.afterwards(plan.system.emergencyContact),
  ].join('\n\n');
}
