/** What standing and pumped water have in common: what was added, and what fell in all. */
import type { Plan } from '@/core/plan/plan';
import { showExact, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { SOURCES } from '@/core/quantity/sources';
import type { Unit } from '@/core/quantity/unit';
import type { Hold } from '@/core/run/state';

/** What was let in at test pressure to keep it, over the time; null where nothing was measured. */
export function addedRate(hold: Hold): Figure | null {
  const judgement = hold.judgement!;
  if (!judgement.makeUp) return null;
  const hours = judgement.elapsedMs / 3_600_000;
  const value = toNumber(judgement.makeUp.added) / hours;
  return {
    name: 'make-up at test pressure',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula: 'Q = water added / t',
    inputs: [
      { name: 'water added', value: showExact(judgement.makeUp.added) },
      { name: 't', value: `${hours.toFixed(2)} h` },
    ],
    source: SOURCES.makeUp,
  };
}
/** The fall of a hold in its gauge's unit, over so many seconds: what was put back while it settled was lost too. Null after a rise. */
export function fallInAll(
  plan: Plan,
  hold: Hold,
): { readonly fall: number; readonly unit: Unit; readonly seconds: number } | null {
  const { change, elapsedMs } = hold.judgement!;
  const back =
    plan.format > 1 ? hold.topUps.reduce((sum, t) => sum + toNumber(t.after) - toNumber(t.before), 0) : 0;
  const fall = back - toNumber(change);
  return fall < 0 ? null : { fall, unit: change.unit, seconds: elapsedMs / 1000 };
}
