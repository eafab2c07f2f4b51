import { notCoveredIn } from '@/core/plan/not-covered';
import type { Plan } from '@/core/plan/plan';
import type { RunState } from '@/core/run/state';
import { verdictOf } from '@/core/verdict/verdict';

/** What somebody must have read before signing, while the record is not sealed yet. */
export function faceWords(plan: Plan, state: RunState) {
  const verdict = verdictOf(plan, state);
  return {
    place: `${plan.site.name}, ${plan.site.address}: ${plan.system.name}`,
    procedure: plan.procedure.title,
    word: verdict?.word ?? null,
    label: verdict?.label ?? 'No result',
    plain: verdict?.plain ?? '',
    notCovered: notCoveredIn(plan),
  };
}
