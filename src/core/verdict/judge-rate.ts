/** A fall judged as a leak rate: by a steady fall, or by a line that empties, in the class of its upper end. */
import { type DecayPoint, decayRate, type DecayRate } from '@/core/adequacy/decay';
import { LOGGED_KELVIN, type RateInterval, steadyRate } from '@/core/adequacy/rate';
import { leakRate, pressurePerKelvin } from '@/core/medium/gas';
import type { RateClass } from '@/core/pack/schema';
import { breaks, type Exact, type Limit, magnitude, parseWithUnit, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { pascal } from '@/core/quantity/pascal';
import { convert, toKelvin } from '@/core/quantity/unit';
import type { HoldFacts, Judgement } from '@/core/verdict/judge';
import { judgedChange, measure } from '@/core/verdict/judge';

/**
 * Leak rate and its class at working pressure: the class of the upper end of the 95 % interval, so that an interval
 * that touches a bound falls into the worse class. A line that empties is judged by its decay; readings that only bound
 * the rate from below leave no class out that is worse. A rise gives no rate.
 */
export function judgeRate(
  facts: HoldFacts,
  perceptible: Limit,
  rule: {
    classes: readonly RateClass[];
    volume: Figure;
    volumeUncertainty: number;
    resolution: Exact;
    working: Exact;
    /** K over so many minutes */ temperature: (minutes: number) => number;
    /** Readings of the hold, s since its start and gauge Pa, start and end among them; absent: those two alone. */
    points?: readonly DecayPoint[];
    /** Part of the rate that a valve which passes may have flattered away. */
    flattered?: number;
  },
): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  const moved = judgedChange(facts, m.change);
  const direction = !breaks(magnitude(moved), perceptible) ? 'none' : moved.digits < 0 ? 'fall' : 'rise';
  // with temperatures logged the rate itself says whether it rose: its whole interval then lies below nothing
  const byRate = facts.temperature !== undefined && rule.points !== undefined;
  if (direction === 'rise' && !byRate) return { ...m, direction, limit: null, outcome: 'rose' };
  const [start, end] = [pascal(facts.start), pascal(facts.end)];
  const seconds = facts.elapsedMs / 1000;
  const atTest = leakRate(rule.volume.value, start, end, seconds, {
    ...(facts.temperature
      ? { temperature: facts.temperature.map((t) => toKelvin(toNumber(t), t.unit)) as [number, number] }
      : {}),
    ...(facts.barometer ? { atmosphere: facts.barometer.map(pascal) as [number, number] } : {}),
  });
  const working = pascal(rule.working);
  const kelvin = facts.temperature ? LOGGED_KELVIN : rule.temperature(seconds / 60);
  const unread = facts.share && !facts.barometer ? pascal(facts.share) / 2 : 0;
  const drift = Math.hypot(pressurePerKelvin(start, 293.15) * kelvin, unread);
  const decay = rule.points
    ? decayRate(rule.points, rule.volume.value, working, pascal(rule.resolution), drift)
    : null;
  const plainly = decay
    ? emptying(atTest, decay, rule.volumeUncertainty)
    : steadyRate(atTest, (start + end) / 2, working, rule.volumeUncertainty, {
        volume: rule.volume.value,
        resolution: pascal(rule.resolution),
        temperature: kelvin,
        barometer: unread,
        seconds,
      });
  const { flattered } = rule;
  const interval: RateInterval =
    flattered !== undefined
      ? { ...plainly, high: flattered < 1 ? plainly.high / (1 - flattered) : Infinity, flattered }
      : plainly;
  const litres = (text: string) => {
    const bound = parseWithUnit(text);
    return convert(toNumber(bound), bound.unit, 'l/h');
  };
  if (byRate && interval.high < 0) return { ...m, direction: 'rise', limit: null, outcome: 'rose' };
  const found =
    rule.classes.find((c) => c.below !== undefined && interval.high < litres(c.below)) ??
    rule.classes[rule.classes.length - 1]!;
  return {
    ...m,
    direction,
    limit: null,
    outcome: found.key,
    rate: { ...interval, title: found.title, source: found.source },
  };
}

/** A line that empties: the rate from its decay, with the volume's own uncertainty. */
export function emptying(atTest: Figure, decay: DecayRate, volumeUncertainty: number): RateInterval {
  const hourly = 1000 * 3600;
  const value = decay.rate * hourly;
  const widened = (bound: number) => {
    const own = bound * hourly - value;
    return value + Math.sign(own) * Math.hypot(own, volumeUncertainty * value);
  };
  const low = decay.atLeast ? value * (1 - volumeUncertainty) : widened(decay.low);
  const high = decay.atLeast ? Infinity : widened(decay.high);
  return {
    low,
    high,
    ...(decay.atLeast ? { atLeast: true as const } : {}),
    rate: {
      ...atTest,
      name: decay.atLeast ? 'leak rate at working pressure, at least' : 'leak rate at working pressure',
      value: decay.atLeast ? low : value,
      decimals: Math.max(2, decimalsFor(value)),
      formula: decay.atLeast
        ? 'the line was empty, or fewer than three readings lie above half the start: only a bound from start to end'
        : 'slope of ln(p/(p + 2 P_atm)) and of 2√p over the readings above half the start, at working pressure',
      inputs: [
        ...atTest.inputs,
        { name: 'uncertainty of the volume', value: `± ${(volumeUncertainty * 100).toFixed(0)} %` },
        {
          name: '95 % interval',
          value: decay.atLeast
            ? `${low.toFixed(2)} l/h or more`
            : `${low.toFixed(2)} to ${high.toFixed(2)} l/h`,
        },
      ],
      source: 'Decay of a closed gas section by the laminar and the orifice law, both ends taken',
    },
  };
}
