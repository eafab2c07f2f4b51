/** What can be done while a hold runs and the hands are free: each with how much of it is done. */
import { capital } from '@/core/quantity/words';
import { expectedItems, missingInventory } from './inventory';
import { fillingOf } from '@/core/plan/filling';
import type { Plan } from '@/core/plan/plan';
import { openJoints } from './read';
import type { RunState, Visit } from './state';

export interface Meanwhile {
  readonly what: 'joints' | 'plates' | 'photo';
  readonly words: string;
  readonly done: number;
  readonly of: number;
  /** What is still open, by name. */
  readonly left: readonly string[];
}
/** In the order in which one does them: what the pressure shows only now comes first. */
export function meanwhile(plan: Plan, state: RunState, visit: Visit, part: string | null): Meanwhile[] {
  const filling = fillingOf(plan, part);
  const joints = openJoints(state).map((j) => j.name);
  const known = (plan.system.joints ?? []).filter((j) => !state.joints.some((s) => s.id === j.id));
  const allJoints = state.joints.length + known.length;
  const plates = missingInventory(plan, state);
  const allPlates = (plan.procedure.inventory ?? [])
    .filter((k) => k.required)
    .flatMap((k) => expectedItems(plan.system, k.kind)).length;
  const photos = state.photos.filter((p) => p.at >= visit.entered).length;
  return [
    ...(filling.joints !== null
      ? [
          {
            what: 'joints' as const,
            words: capital(filling.joints),
            done: allJoints - joints.length - known.length,
            of: allJoints,
            left: [...joints, ...known.map((j) => j.name)],
          },
        ]
      : []),
    ...(allPlates
      ? [
          {
            what: 'plates' as const,
            words: 'Plates, as they say it',
            done: allPlates - plates.length,
            of: allPlates,
            left: plates,
          },
        ]
      : []),
    {
      what: 'photo' as const,
      words: capital(filling.photos),
      done: Math.min(1, photos),
      of: 1,
      left: photos ? [] : [filling.photos],
    },
  ];
}
