/** The weakest element in scope and what it does to a test pressure. */
import { known, wanted, type Working } from '@/core/formula';
import { ratedParts } from '@/core/installation/section';
import { testPressureOf } from '@/core/plan/limits';
import { compare, type Exact, parseWithUnit, showExact } from '@/core/quantity/exact';
import { tradeOf } from '@/core/trades';
import type { Plan } from './plan';
import { caseOf } from './plan';

/** Through gas appliances whose plate was not read: 14 inWC. Source: the work, cautions */
const PLATE_NOT_READ = '14 inWC';

export interface Weakest {
  readonly name: string;
  readonly most: Exact;
  readonly why: string;
}
/** Parts entered with a permitted pressure of their own, the least first: what a reading must not pass. */
export const enteredCaps = (plan: Plan): Weakest[] =>
  permitted(plan).filter((w) => w.why === AS_ENTERED || w.why === AS_RATED);
const AS_ENTERED = 'as entered on the place page';
const AS_RATED = 'rating of the pipe';
/** Everything in scope that permits only so much, the least first. */
export function permitted(plan: Plan, part?: string | null): Weakest[] {
  const { system } = plan;
  const gas = tradeOf(system).fuel;
  const through = caseOf(plan, part).appliances && gas;
  const list: Weakest[] = [
    ...ratedParts(system).map((p) => ({
      name: p.place ? `${p.name}, ${p.place}` : p.name,
      most: p.most,
      why: p.pipe ? AS_RATED : AS_ENTERED,
    })),
    ...(through
      ? system.appliances.map((a) => ({
          name: a.name,
          most: a.maxInlet ?? parseWithUnit(PLATE_NOT_READ),
          why: a.maxInlet
            ? 'maximum inlet pressure on its plate'
            : 'plate not read: 14 inWC, above that disconnect it',
        }))
      : []),
  ];
  return list.sort((a, b) => compare(a.most, wanted(b.most, a.most.unit, 'down')));
}

export interface PressurePlan {
  /** Nominal test pressure; null while something is missing */ readonly pressure: Exact | null;
  readonly missing: string;
  readonly working: Working | null;
  readonly weakest: Weakest | null;
  /** Why no test is possible as entered, and what to do. */ readonly impossible: string;
}
/** Test pressure of a part with its working, the weakest element, and the impossible explained. */
export function pressurePlan(plan: Plan, part?: string | null): PressurePlan {
  const [weakest = null] = permitted(plan, part);
  const found = known(() => testPressureOf(plan, part));
  if ('missing' in found)
    return { pressure: null, missing: found.missing, working: null, weakest, impossible: '' };
  const { value: pressure, working } = found.value;
  const over = weakest && compare(wanted(pressure, weakest.most.unit, 'up'), weakest.most) > 0;
  return {
    pressure,
    missing: '',
    working,
    weakest,
    impossible: over
      ? `${weakest.name} permits ${showExact(weakest.most)} (${weakest.why}); the rule asks for ${showExact(pressure)}. Take it out of scope by a plug, a cap or a proved valve and name it under what is not covered, or choose a procedure with a lower pressure.`
      : '',
  };
}
