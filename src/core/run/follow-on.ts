/** One entry for one fact: the reading that closes a step also begins the hold after it, where nothing lies between. */
import { known } from '@/core/formula';
import { inBand } from '@/core/plan/limits';
import type { Plan } from '@/core/plan/plan';
import type { Exact } from '@/core/quantity/exact';
import type { HoldRole } from '@/core/roles';
import { type HoldMinutes, holdSpec, lengthOf } from './hold-spec';
import { currentCycle, currentVisit, runningHold, stageOf, stepOf } from './read';
import type { RunState } from './state';
import { edgeOf } from './transition';

/** The hold that the reading of the present step begins when it is as it should be. */
export interface Ahead {
  readonly role: HoldRole;
  readonly minutes: number;
  /** Rule, house and need behind the minutes; absent where the stage gives plain ones. */
  readonly times?: HoldMinutes;
  /** Of its own stage, where it has one: they stand before the reading that begins it. */
  readonly cautions: readonly string[];
  readonly instruction: string;
}

/** What the reading of this step begins: after a fill the settling or the hold, after settling the hold; null where something lies between. */
export function holdAhead(plan: Plan, state: RunState): Ahead | null {
  const visit = currentVisit(state);
  if (!visit) return null;
  const stage = stageOf(plan, visit);
  const running = runningHold(state);
  if (stage.kind === 'isolate-and-repeat') {
    const filled = currentCycle(visit)?.fill !== undefined;
    if (filled && running?.role !== 'settle') return null;
    const [role, minutes] = filled
      ? (['tightness', stage.minutes] as const)
      : (['settle', stage.settleMinutes] as const);
    return { role, minutes, cautions: [], instruction: '' };
  }
  // pumped empty: the pump still runs at this reading, and is shut off before the hold
  const outcome =
    stage.kind === 'fill' && !stage.evacuates ? 'in-band' : running?.role === 'settle' ? 'settled' : null;
  if (!outcome) return null;
  const times = (state.taken[`${visit.stage}.${outcome}`] ?? 0) + 1;
  const to = edgeOf(plan, state, stage, outcome, times)?.to;
  const next = to === undefined ? undefined : plan.procedure.stages[to];
  // a hold that runs from an earlier reading begins by itself
  if (next?.kind !== 'hold' || next.since || next.part !== stage.part) return null;
  const found = known(() => lengthOf(plan, state, next));
  if ('missing' in found) return null;
  const { role, instruction, cautions = [] } = next;
  return { role, minutes: found.value.minutes, times: found.value.times, cautions, instruction };
}

/** Whether a hold stands here that this reading may begin: nothing of it begun, and the reading inside its band. */
export function beginsHold(plan: Plan, state: RunState, figure: Exact): boolean {
  if (stepOf(state) !== 'start') return false;
  const found = known(() => holdSpec(plan, state));
  if ('missing' in found || !found.value || found.value.missing) return false;
  const { band } = found.value;
  return band === null || (band.low.unit === figure.unit && inBand(figure, band));
}
