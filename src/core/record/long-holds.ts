/** Long holds on a record: how they were extended, who read them when, and what they lost by rate. */
import type { Plan } from '@/core/plan/plan';
import { clockInZone, inZone } from '@/core/quantity/in-zone';
import { significantText } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { toNumber } from '@/core/quantity/exact';
import { meaningOfHold } from '@/core/analysis/of-hold';
import { leakThatMatters } from '@/core/run/hold-spec';
import { plannedMinutes, unwitnessed } from '@/core/run/long-hold';
import type { RunState } from '@/core/run/state';
import { holdsOf } from './holds';

/** Hours and minutes as they are said. */
const long = (ms: number): string => {
  const minutes = Math.round(ms / 60_000);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
};
/** Lines for every hold that was extended, or not read for half an hour. */
export function longHoldLines(plan: Plan, state: RunState): string[] {
  const { zone } = plan.made;
  return holdsOf(state).flatMap(({ hold, title, visit }) => {
    const gaps = unwitnessed(visit, hold, hold.broken?.at ?? hold.startedAt);
    if (!hold.extended?.length && !gaps.length) return [];
    const part = plan.procedure.stages[visit.stage]?.part ?? null;
    const meaning = hold.extended?.length && hold.judgement ? meaningOfHold(plan, state, visit, hold) : null;
    const say = (v: number) => (v < 0.01 ? 'below 0.01' : significantText(v, 2));
    const matters = convert(toNumber(leakThatMatters(plan, part)), leakThatMatters(plan, part).unit, 'l/h');
    return [
      ...(hold.extended ?? []).map(
        (e) =>
          `${title}: planned for ${plannedMinutes(hold)} min, extended by ${e.minutes} min at ${clockInZone(e.at, zone)} (${e.byName}: ${e.why})`,
      ),
      ...gaps.map(
        (g) =>
          `${title}: read by nobody from ${inZone(g.from, zone)} to ${inZone(g.to, zone)}, ${long(g.to - g.from)}`,
      ),
      ...(meaning?.rate
        ? [
            `${title}, by rate over ${long(hold.judgement!.elapsedMs)}: ${say(meaning.rate.value)} l/h (${say(meaning.rate.low)} to ${say(meaning.rate.high)}) where it leaks at all; ${say(matters)} l/h matters here. What it says of the rule is the movement alone`,
          ]
        : []),
    ];
  });
}
