import { PIPE_LIST_UNCERTAINTY } from '@/core/adequacy/rate';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { exact } from '@/core/quantity/exact';
import { pascal } from '@/core/quantity/pascal';
import { volumeOf } from '@/core/run/hold-setting';
import type { Hold, RunState } from '@/core/run/state';
import { type HoldFacts } from '@/core/verdict/judge';
import { judgeRate } from '@/core/verdict/judge-rate';
import type { RoleJudge } from '../judging';

export const judge: RoleJudge = ({ plan, state, hold, facts, gauge, perceptible, context, part }) =>
  judgeRate(facts, perceptible, {
    classes: ruleOf(plan, part).classes ?? [],
    volume: volumeOf(plan, state, part),
    volumeUncertainty: state.volume?.uncertainty ?? PIPE_LIST_UNCERTAINTY,
    resolution: gauge.resolution,
    working: plan.system.workingPressure,
    temperature: (minutes) => context.temperature(minutes),
    ...(plan.format < 2
      ? {}
      : { points: decayPoints(state, hold, facts), ...flatteredBy(plan, state, facts) }),
  });

/**
 * By how much a valve that passes could flatter a measured rate, as a part of it. Where the let-by FELL, what comes in there is
 * less than what goes out: k_in (p_s - p_l) < k_out p_l. At the pressure of the measurement it then brings back at most
 * p_l / (p_s - p_l) x (p_s - p) / p of what leaks. Nothing is said where it was proved. Source: balance of what comes in and what goes out
 */
function flatteredBy(plan: Plan, state: RunState, facts: HoldFacts): { flattered?: number } {
  const letBys = state.visits.flatMap((v) => v.holds).filter((h) => h.role === 'let-by' && h.judgement);
  const last = letBys[letBys.length - 1];
  if (last?.judgement?.outcome !== 'fell') return {};
  const supply = pascal(plan.system.supplyPressure);
  // the highest pressure at which it was seen to fall says most
  const low = pascal(last.start.figure);
  const mean = (pascal(facts.start) + Math.max(0, pascal(facts.end))) / 2;
  if (!(supply > low) || !(mean > 0)) return { flattered: 1 };
  return { flattered: Math.min(1, (low / (supply - low)) * (Math.max(0, supply - mean) / mean)) };
}

/** What was read of a hold, as s since its start and gauge Pa: typed and streamed, start and end among them. */
function decayPoints(state: RunState, hold: Hold, facts: HoldFacts): [number, number][] {
  const unit = hold.start.figure.unit;
  const since = hold.start.readMoment;
  const until = since + facts.elapsedMs;
  const gaugeScale = hold.start.figure.scale;
  const typed = state.visits
    .flatMap((v) => v.readings)
    .filter((r) => !r.late && r.figure.unit === unit && r.readMoment > since && r.readMoment < until)
    .map((r): [number, number] => [(r.readMoment - since) / 1000, pascal((r.corrected ?? r).figure)]);
  const streamed = state.visits
    .flatMap((v) => v.trace)
    .filter(([t]) => t > since && t < until)
    .map(([t, digits]): [number, number] => [(t - since) / 1000, pascal(exact(digits, gaugeScale, unit))]);
  return [
    [0, pascal(facts.start)],
    ...(streamed.length > typed.length ? streamed : typed).sort((a, b) => a[0] - b[0]),
    [facts.elapsedMs / 1000, pascal(facts.end)],
  ];
}
