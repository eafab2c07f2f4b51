/** What can be hidden by name: what is then true of it, where the one who trains hides something else than the scenario does. */
import { simulatesOf } from '@/core/plan/offer';
import type { Plan } from '@/core/plan/plan';
import { partedOf } from '@/core/simulation/cells';
import { parting } from '@/core/simulation/parted';
import { HIDDEN } from '@/core/simulation/simulation';
import type { VerdictWord } from '@/core/verdict/words';
import type { Scenario } from './scenario';
import type { Cause } from './words';

interface True {
  readonly cause: readonly Cause[];
  readonly result: readonly VerdictWord[];
}
const GOOD: readonly VerdictWord[] = ['tight', 'within-allowance'];
const BAD: readonly VerdictWord[] = ['not-tight'];
const OPEN: readonly VerdictWord[] = ['void', 'inconclusive', 'not-tight'];
type Named = { [K in keyof typeof HIDDEN]: keyof (typeof HIDDEN)[K] }[keyof typeof HIDDEN];
/** By the name of the fault; a name means the same in every kind of installation, and none may be missing. */
const TRUE_OF: Readonly<Record<Named, True>> = {
  none: { cause: ['sound'], result: GOOD },
  leak: { cause: ['pipe-leak', 'appliance-leak'], result: [...BAD, 'inconclusive'] },
  'appliance-leak': { cause: ['appliance-leak'], result: [...BAD, 'within-allowance'] },
  'let-by': { cause: ['valve-passes'], result: OPEN },
  both: { cause: ['valve-and-leak'], result: OPEN },
  warming: { cause: ['temperature', 'sound'], result: [...GOOD, 'inconclusive'] },
  cooling: { cause: ['temperature', 'sound'], result: [...GOOD, 'inconclusive', 'not-tight'] },
  'off-zero': { cause: ['gauge', 'sound'], result: GOOD },
  kit: { cause: ['kit'], result: GOOD },
  closed: { cause: ['left-out', 'appliance-leak', 'pipe-leak'], result: BAD },
  air: { cause: ['air', 'sound'], result: [...GOOD, 'not-tight', 'inconclusive'] },
  stretch: { cause: ['stretch', 'sound'], result: [...GOOD, 'not-tight', 'inconclusive'] },
  'stretch-leak': { cause: ['pipe-leak'], result: [...BAD, 'inconclusive'] },
  user: { cause: ['drawn'], result: [...GOOD, 'void', 'inconclusive', 'not-tight'] },
  'under-water': { cause: ['pipe-leak'], result: [...BAD, 'inconclusive'] },
  'above-water': { cause: ['pipe-leak'], result: [...BAD, 'inconclusive'] },
  'under-pump': { cause: ['pipe-leak'], result: [...BAD, 'inconclusive'] },
  'bad-plug': { cause: ['kit'], result: [...GOOD, 'void', 'inconclusive'] },
  'plug-slips': { cause: ['kit'], result: [...GOOD, 'void', 'inconclusive', 'not-tight'] },
  moisture: { cause: ['moisture'], result: ['inconclusive', 'not-tight', 'refer', 'tight'] },
  solenoid: { cause: ['pipe-leak', 'appliance-leak', 'left-out'], result: [...BAD, 'inconclusive'] },
  sun: { cause: ['temperature', 'sound'], result: [...GOOD, 'inconclusive'] },
  'wrong-gas': { cause: ['supply'], result: ['void', 'inconclusive', 'refer', 'not-tight'] },
  boot: { cause: ['pipe-leak', 'appliance-leak'], result: [...BAD, 'inconclusive'] },
  unmasked: { cause: ['left-out', 'sound'], result: [...GOOD, 'inconclusive'] },
  hose: { cause: ['kit'], result: GOOD },
  ring: { cause: ['supply', 'pipe-leak'], result: [...BAD, 'inconclusive'] },
  damper: { cause: ['pipe-leak', 'left-out'], result: [...BAD, 'inconclusive'] },
};
/** Faults that hide behind something shut: only where something inside can be. */
const BEHIND: ReadonlySet<string> = new Set<Named>(['closed', 'solenoid', 'damper']);
/** What can be hidden in the installation of a plan, by name, with its words. */
export function faultsFor(plan: Pick<Plan, 'procedure' | 'system'>): Readonly<Record<string, string>> {
  const kind = simulatesOf(plan.procedure, plan.system);
  const parted = partedOf(plan.system, 1, kind === 'circuit');
  if (kind === 'gas' || (parted && parting(parted).length)) return HIDDEN[kind];
  return Object.fromEntries(Object.entries(HIDDEN[kind]).filter(([name]) => !BEHIND.has(name)));
}
/** The scenario with another fault in it: what was true of it before is not any more. @throws RangeError for a name nobody knows */
export function withFault(scenario: Scenario, fault: string, words: string): Scenario {
  if (!Object.hasOwn(TRUE_OF, fault)) throw new RangeError(`Nothing called ${fault} can be hidden.`);
  const known = TRUE_OF[fault as Named];
  const { place: _place, ...rest } = scenario.truth;
  return {
    ...scenario,
    hidden: { as: fault } as Scenario['hidden'],
    truth: {
      ...rest,
      cause: known.cause,
      result: known.result,
      tells: `${words}. It was hidden by the one who trains.`,
    },
    // what was asked for the fault of before is not asked for this one
    criteria: scenario.criteria.filter((c) => typeof c === 'string'),
    proof: scenario.proof.filter((id) => scenario.criteria.includes(id)),
    conducts: [],
  };
}
