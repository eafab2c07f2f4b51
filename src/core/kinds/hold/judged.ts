/** A finished hold is judged by its role, from what was read of it. */
import { PIPE_LIST_UNCERTAINTY } from '@/core/adequacy/rate';
import { known } from '@/core/formula';
import { type HoldStage, type Stage } from '@/core/kinds';
import { pressurePerKelvin } from '@/core/medium/gas';
import { acceptOf, type Plan, ruleOf } from '@/core/plan/plan';
import { compare, exact, type Exact, inUnit, subtract, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { barometerShare } from '@/core/run/barometer';
import { volumeOf } from '@/core/run/hold-setting';
import { contextOf, gaugeOf, letByLimit, perceptibleOf, permittedDrop } from '@/core/run/read';
import { type Hold, type RunState } from '@/core/run/state';
import { fallLimit, lowestOf, madeUp, makeUpLimit } from '@/core/run/water-limits';
import { aloneIn } from '@/core/verdict/correction';
import {
  type HoldFacts,
  judgeDecay,
  judgeFloor,
  judgeLetBy,
  judgeLockUp,
  judgeMakeUp,
  type Judgement,
  judgeRate,
  judgeSettle,
  judgeStrength,
  judgeStretch,
  judgeTightness,
} from '@/core/verdict/judge';

/** Which fact a floor or a make-up still lacks to be judged; '' when none. */
export function boundMissing(plan: Plan, state: RunState, stage: Stage, hold: Hold): string {
  if ((hold.role !== 'floor' && hold.role !== 'make-up') || stage.kind !== 'hold') return '';
  const low = acceptOf(stage.accept?.low, 'low', contextOf(plan, state, stage.part), plan, stage.part);
  return low
    ? ''
    : 'What it may not fall below is not known yet. End with STOP, enter what is missing on the system page, and begin again.';
}

/** Whether more water was added already than the rule permits over the whole hold: nothing that follows takes it back. */
export function makeUpDecided(plan: Plan, state: RunState, stage: Stage, hold: Hold, end: Exact): boolean {
  if (hold.role !== 'make-up' || stage.kind !== 'hold' || plan.format < 2) return false;
  const found = known(() =>
    makeUpLimit(plan, state, stage, {
      start: hold.start.figure,
      end,
      elapsedMs: Math.max(hold.minutes, hold.rule) * 60_000,
    }),
  );
  return 'value' in found && found.value !== null && compare(madeUp(hold), found.value.value) > 0;
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
  const part = stage.part;
  const perceptible = perceptibleOf(plan, gauge, part);
  const own = stage.kind === 'hold' ? stage : null;
  const context = contextOf(plan, state, part);
  switch (hold.role) {
    case 'settle':
      return judgeSettle(facts, perceptible);
    case 'let-by':
      return judgeLetBy(facts, perceptible, letByLimit(plan, own as HoldStage, gauge));
    case 'strength':
      return judgeStrength(facts, perceptible);
    case 'lock-up':
    case 'flow':
      return judgeLockUp(facts, perceptible, {
        low: acceptOf(own?.accept?.low, 'low', context, plan, part),
        high: acceptOf(own?.accept?.high, 'high', context, plan, part),
        vent: acceptOf(own?.accept?.vent, 'low', context, plan, part),
        creep: hold.role === 'lock-up',
        ...(own?.limit ? { creepLimit: letByLimit(plan, own, gauge) } : {}),
      });
    case 'leak-rate': {
      const rule = ruleOf(plan, part);
      return judgeRate(facts, perceptible, {
        classes: rule.classes ?? [],
        volume: volumeOf(plan, state, part),
        volumeUncertainty: state.volume?.uncertainty ?? PIPE_LIST_UNCERTAINTY,
        resolution: gauge.resolution,
        working: plan.system.workingPressure,
        temperature: (minutes) => context.temperature(minutes),
        ...(plan.format < 2
          ? {}
          : { points: decayPoints(state, hold, facts), ...flatteredBy(plan, state, facts) }),
      });
    }
    case 'floor':
      return judgeFloor(facts, perceptible, lowestOf(state, hold, facts.end), {
        low: acceptOf(own?.accept?.low, 'low', context, plan, part)!,
        high: acceptOf(own?.accept?.high, 'high', context, plan, part),
      });
    case 'stretch':
      return judgeStretch(
        facts,
        perceptible,
        fallLimit(own!, gauge),
        own!.slowing ? thirdsOf(state, hold, facts) : undefined,
      );
    case 'decay':
      return judgeDecay(facts, perceptible);
    case 'make-up':
      return judgeMakeUp(
        facts,
        perceptible,
        madeUp(hold),
        makeUpLimit(plan, state, own!, facts),
        lowestOf(state, hold, facts.end),
        acceptOf(own?.accept?.low, 'low', context, plan, part)!,
      );
    case 'tightness':
      if (own?.witness && hold.witness.end?.seen === 'fell')
        return {
          ...judgeTightness(facts, { perceptible, permitted: null, minutes: hold.minutes, lateAfter: 0 }),
          outcome: 'witness',
        };
      return judgeTightness(facts, {
        perceptible,
        permitted: own?.allowance ? permittedDrop(plan, state, part) : null,
        minutes: hold.minutes,
        lateAfter: own?.lateAfter ?? 0,
        small: own?.on['small-fall'] && !state.smallFalls ? fifthOfKelvin(hold.start.figure) : null,
        again: state.smallFalls > 0,
      });
  }
}

/**
 * By how much a valve that passes could flatter a measured rate, as a part of it. Where the let-by FELL, what comes in there is
 * less than what goes out: k_in (p_s - p_l) < k_out p_l. At the pressure of the measurement it then brings back at most
 * p_l / (p_s - p_l) x (p_s - p) / p of what leaks. Nothing is said where it was proved. Source: balance of what comes in and what goes out
 */
function flatteredBy(plan: Plan, state: RunState, facts: HoldFacts): { flattered?: number } {
  const letBys = state.visits.flatMap((v) => v.holds).filter((h) => h.role === 'let-by' && h.judgement);
  const last = letBys[letBys.length - 1];
  if (last?.judgement?.outcome !== 'fell') return {};
  const pascal = (e: Exact) => convert(toNumber(e), e.unit, 'Pa');
  const supply = pascal(plan.system.supplyPressure);
  // the highest pressure at which it was seen to fall says most
  const low = pascal(last.start.figure);
  const mean = (pascal(facts.start) + Math.max(0, pascal(facts.end))) / 2;
  if (!(supply > low) || !(mean > 0)) return { flattered: 1 };
  return { flattered: Math.min(1, (low / (supply - low)) * (Math.max(0, supply - mean) / mean)) };
}

/** How far from a third of the hold a reading may stand and still tell the thirds apart, as a part of the hold. House figure. */
const THIRD_WITHIN = 1 / 12;

/** Falls of the first and last third of a hold, from what was read between; null where nothing was read near a third. */
function thirdsOf(state: RunState, hold: Hold, facts: HoldFacts): { first: Exact; last: Exact } | null {
  const { start, end } = facts;
  const from = hold.start.readMoment;
  const scale = Math.max(start.scale, end.scale);
  const read = [
    ...state.visits.flatMap((v) => v.readings).filter((r) => !r.late && r.figure.unit === start.unit),
  ].map((r): [number, Exact] => [r.readMoment - from, (r.corrected ?? r).figure]);
  const streamed = state.visits
    .flatMap((v) => v.trace)
    .map(([t, digits]): [number, Exact] => [t - from, exact(digits, scale, start.unit)]);
  const near = (part: number): Exact | null => {
    const at = facts.elapsedMs * part;
    const off = ([t]: readonly [number, Exact]) => Math.abs(t - at);
    const best = [...read, ...streamed].sort((a, b) => off(a) - off(b))[0];
    return best && off(best) <= facts.elapsedMs * THIRD_WITHIN ? best[1] : null;
  };
  const [one, two] = [near(1 / 3), near(2 / 3)];
  return one && two ? { first: subtract(start, one), last: subtract(two, end) } : null;
}

/** What 0.2 K does to gas at this pressure, in the gauge's unit: P/T x 0.2 K at 20 C. Source: general rules of judging */
export function fifthOfKelvin(start: Exact): Exact {
  const pascal = pressurePerKelvin(convert(toNumber(start), start.unit, 'Pa'), 293.15) * 0.2;
  return inUnit(exact(Math.floor(pascal * 1000), 3, 'Pa'), start.unit, start.scale + 2, 'down');
}

/** What was read of a hold, as s since its start and gauge Pa: typed and streamed, start and end among them. */
function decayPoints(state: RunState, hold: Hold, facts: HoldFacts): [number, number][] {
  const unit = hold.start.figure.unit;
  const since = hold.start.readMoment;
  const until = since + facts.elapsedMs;
  const pascal = (e: Exact) => convert(toNumber(e), e.unit, 'Pa');
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
