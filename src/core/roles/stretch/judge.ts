import { exact, type Exact, subtract } from '@/core/quantity/exact';
import type { Hold, RunState } from '@/core/run/state';
import { fallLimit } from '@/core/run/water-limits';
import { type HoldFacts, judgeStretch } from '@/core/verdict/judge';
import type { RoleJudge, RoleLimits } from '../judging';

export const judge: RoleJudge = ({ state, hold, facts, gauge, perceptible, own }) =>
  judgeStretch(
    facts,
    perceptible,
    fallLimit(own!, gauge),
    own!.slowing ? thirdsOf(state, hold, facts) : undefined,
  );

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

export const limits: RoleLimits = ({ stage, gauge, pm }) => ({
  fall: fallLimit(stage, gauge),
  rise: pm,
  nil: false,
});
