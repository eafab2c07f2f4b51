/** A finished hold is judged by its role, from what was read of it. */
import { type Stage } from '@/core/kinds';
import { acceptOf } from '@/core/plan/limits';
import { type Plan } from '@/core/plan/plan';
import { type Exact } from '@/core/quantity/exact';
import { roleOf } from '@/core/roles';
import { JUDGES } from '@/core/roles/judges';
import { barometerShare } from '@/core/run/barometer';
import { contextOf, gaugeOf, perceptibleOf } from '@/core/run/read';
import { type Hold, type RunState } from '@/core/run/state';
import { aloneIn } from '@/core/verdict/correction';
import { type HoldFacts, type Judgement } from '@/core/verdict/judge';

/** Which fact a hold that needs a floor still lacks to be judged; '' when none. */
export function boundMissing(plan: Plan, state: RunState, stage: Stage, hold: Hold): string {
  if (!roleOf(hold.role).needsFloor || stage.kind !== 'hold') return '';
  const low = acceptOf(stage.accept?.low, 'low', contextOf(plan, state, stage.part), plan, stage.part);
  return low
    ? ''
    : 'What it may not fall below is not known yet. End with STOP, enter what is missing on the system page, and begin again.';
}

/** What is known of a hold when it is judged. */
export function factsOf(
  plan: Plan,
  state: RunState,
  stage: Stage,
  hold: Hold,
  end: Exact,
  elapsedMs: number,
): HoldFacts {
  const { start: t0, end: t1 } = hold.temperature;
  const { start: b0, end: b1 } = hold.barometer;
  const gauge = gaugeOf(plan, state)!;
  return {
    start: hold.start.figure,
    end,
    elapsedMs,
    alone: aloneIn(plan, state, stage.part),
    share: barometerShare(plan, stage.part, gauge, hold.role, elapsedMs / 60_000),
    ...(t0 && t1 ? { temperature: [t0, t1] as const } : {}),
    ...(b0 && b1 ? { barometer: [b0, b1] as const } : {}),
  };
}

/** Judges a finished hold by its role. */
export function judged(plan: Plan, state: RunState, stage: Stage, hold: Hold, facts: HoldFacts): Judgement {
  const gauge = gaugeOf(plan, state)!;
  return JUDGES[hold.role]({
    plan,
    state,
    hold,
    facts,
    gauge,
    part: stage.part,
    perceptible: perceptibleOf(plan, gauge, stage.part),
    context: contextOf(plan, state, stage.part),
    own: stage.kind === 'hold' ? stage : null,
  });
}

/** Counts failing and passing holds: a pass after fails must be confirmed by as many passes in a row as the rule says. */
export function confirmed(state: RunState, outcome: string, needed = 1): string {
  if (outcome === 'beyond' || outcome === 'moved') {
    state.fails += 1;
    state.passes = 0;
    return outcome;
  }
  if (outcome !== 'nil' && outcome !== 'allowance') return outcome;
  if (!state.fails) return outcome;
  state.passes += 1;
  return state.passes < needed ? 'confirm' : outcome;
}
