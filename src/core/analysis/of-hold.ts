/** A hold of a run as an analysis takes it: its readings, and what is known of its section. */
import { carried, defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { LOGGED_KELVIN } from '@/core/adequacy/rate';
import { movesOf } from '@/core/fillings/moves';
import { entryStep, type Gauge } from '@/core/instrument/gauge';
import { freeSurface, wallsOf } from '@/core/installation/section';
import { fillingOf } from '@/core/plan/filling';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { type Limit, toNumber } from '@/core/quantity/exact';
import { kelvin, pascal } from '@/core/quantity/pascal';
import { convert, STANDARD_ATMOSPHERE, UNITS } from '@/core/quantity/unit';
import { leakThatMatters } from '@/core/run/hold-spec';
import { volumeOf, volumeUnsure } from '@/core/run/hold-setting';
import { gaugeOfHold, perceptibleOf, stageOf } from '@/core/run/read';
import { sectionNow } from '@/core/run/section-now';
import type { Hold, RunState, Visit } from '@/core/run/state';
import { footing } from '@/core/verdict/holds';
import { type Meaning, meaningOf, type MeaningRequest } from './meaning';
import { perUnit, reckoned, type Sample, type SectionFacts, type Warmth, warmthAt } from './section';

/** Walls softer than this stretch for hours; Pa. Source: elastic moduli of pipe materials */
const STRETCHES_BELOW = 5e9;
/** Stiffness worked out from pipe lists is good to so much; a free surface too. House figures. */
const GIVE = { liquid: 0.15, level: 0.1 };

/** Everything that was read of a hold, streamed or typed, in the gauge's unit. */
export function samplesOf(visit: Visit, hold: Hold, gauge: Gauge): Sample[] {
  const scale = 10 ** gauge.resolution.scale;
  const until = hold.end?.readMoment ?? Infinity;
  const streamed = visit.trace
    .filter(([t]) => t >= hold.startedAt - 500 && t <= until + 500)
    .map(([t, d]) => ({ t, p: d / scale }));
  if (streamed.length > 1) return streamed;
  return [
    hold.start,
    ...visit.readings.filter((r) => !r.late && r.readMoment >= hold.startedAt && r.readMoment <= until),
    ...(hold.end && !visit.readings.includes(hold.end) ? [hold.end] : []),
  ].map((r) => ({ t: Math.max(r.readMoment, hold.startedAt), p: toNumber((r.corrected ?? r).figure) }));
}
/** Temperatures with their times, as a mean of how far each place has gone from its own first reading. */
function warmthOf(hold: Hold, last: number): Warmth[] {
  const places = new Map<string, Warmth[]>();
  for (const p of hold.places ?? [])
    places.set(p.place, [...(places.get(p.place) ?? []), { t: p.at, k: kelvin(p.figure) }]);
  const { start, end } = hold.temperature;
  if (!places.size && start && end)
    places.set('', [
      { t: hold.startedAt, k: kelvin(start) },
      { t: hold.endedAt ?? last, k: kelvin(end) },
    ]);
  const read = [...places.values()].filter((p) => p.length >= 2);
  if (!read.length) return [];
  const times = [...new Set(read.flatMap((p) => p.map((x) => x.t)))].sort((a, b) => a - b);
  return times.map((t) => ({
    t: Math.max(0, (t - hold.startedAt) / 1000),
    k: read.reduce((sum, p) => sum + warmthAt(p, t) - p[0]!.k, 0) / read.length,
  }));
}

/**
 * What is known of a hold's section before its readings are looked at; null where the facts do not reach (no volume, no walls,
 * a fan's flow).
 * @param last ms of the newest reading
 */
export function holdFacts(
  plan: Plan,
  state: RunState,
  hold: Hold,
  gauge: Gauge,
  last: number,
  part?: string | null,
): SectionFacts | null {
  const filling = fillingOf(plan, part).name;
  if (filling === 'air') return null;
  const unit = gauge.resolution.unit;
  const per = perUnit(unit);
  const level = UNITS[unit].dimension === 'length';
  const pressure = level ? 0 : convert(toNumber(hold.start.figure), unit, reckoned(unit));
  const matters = convert(toNumber(leakThatMatters(plan, part)), leakThatMatters(plan, part).unit, 'm3/s');
  const d = ruleOf(plan, part).temperatureDefault;
  const common = {
    pressure,
    atmosphere: STANDARD_ATMOSPHERE,
    step: toNumber(entryStep(gauge)) * per,
    perceptible: toNumber(perceptibleOf(plan, gauge, part).value) * per,
    drift: {
      perMinute: d.perMinute,
      most: defaultTemperatureUncertainty(Math.max(hold.minutes, (last - hold.startedAt) / 60_000), d),
    },
    warmth: warmthOf(hold, last),
    thermometer: LOGGED_KELVIN,
    stretches: false,
    supply: null,
    perKelvin: 0,
  };
  if (filling === 'level' || level) {
    const give = freeSurface(plan.system);
    return give > 0
      ? { ...common, filling: 'level', give, giveUncertainty: GIVE.level, matters, warmth: [] }
      : null;
  }
  const volume = volumeOf(plan, state, part).value;
  const unsure = volumeUnsure(plan, state, part);
  if (filling === 'vacuum')
    return volume > 0
      ? {
          ...common,
          filling,
          give: volume / STANDARD_ATMOSPHERE,
          giveUncertainty: unsure,
          matters,
          warmth: [],
        }
      : null;
  const weather = movesOf(plan, part).weather(sectionNow(plan, state), Math.max(0, pressure));
  if (filling === 'liquid') {
    if (!weather?.stiffness) return null;
    const walls = wallsOf(plan.system) ?? [];
    return {
      ...common,
      filling,
      give: weather.stiffness,
      giveUncertainty: GIVE.liquid,
      matters,
      perKelvin: weather.perKelvin,
      stretches: walls.some((w) => w.modulus < STRETCHES_BELOW),
      supply: supplyOf(plan, state, pressure),
    };
  }
  if (!(volume > 0) || !weather) return null;
  const working = pascal(plan.system.workingPressure);
  // the leak that matters is told at working pressure: here at the pressure of the hold
  const at =
    ruleOf(plan, part).adequacy.at === 'test' || !(pressure > 0) || !(working > 0)
      ? 1
      : 1 / carried(pressure, working).most;
  return {
    ...common,
    filling: 'gas',
    give: volume / STANDARD_ATMOSPHERE,
    giveUncertainty: unsure,
    matters: matters * at,
    perKelvin: weather.perKelvin,
    supply: supplyOf(plan, state, pressure),
  };
}
function supplyOf(plan: Plan, state: RunState, pressure: number): number | null {
  const { supplyPressure } = plan.system;
  // nothing under pressure stands behind a boundary that was cut or capped
  if (footing(plan, state) === 'separated' || UNITS[supplyPressure.unit].dimension !== 'pressure')
    return null;
  const supply = pascal(supplyPressure);
  return supply > pressure ? supply : null;
}
/**
 * A hold as an analysis is asked about it, from its last re-adjustment on; null where the facts do not reach, or nothing was read.
 * @param limits of the hold as it is judged; absent: nothing is judged here
 */
export function holdRequest(
  plan: Plan,
  state: RunState,
  visit: Visit,
  hold: Hold,
  gauge: Gauge,
  part?: string | null,
  limits?: { readonly fall: Limit; readonly rise: Limit },
): MeaningRequest | null {
  const since = hold.topUps[hold.topUps.length - 1];
  const from = since?.at ?? hold.startedAt;
  const samples = [
    ...(since ? [{ t: since.at, p: toNumber(since.after) }] : []),
    ...samplesOf(visit, hold, gauge).filter((s) => s.t > from || (!since && s.t === from)),
  ].sort((a, b) => a.t - b.t);
  const last = samples[samples.length - 1];
  if (!last) return null;
  const facts = holdFacts(plan, state, hold, gauge, last.t, part);
  if (!facts) return null;
  const { unit, scale } = gauge.resolution;
  const start = toNumber(hold.start.figure);
  const step = toNumber(entryStep(gauge));
  // a limit that is broken above its figure is broken one step beyond it
  const beyond = (l: Limit) => toNumber(l.value) + (l.broken === 'above' ? step : 0);
  return {
    samples,
    facts: since ? { ...facts, pressure: Math.max(0, toNumber(since.after) * perUnit(unit)) } : facts,
    unit,
    decimals: scale,
    begin: from,
    end: hold.end?.readMoment ?? hold.startedAt + hold.minutes * 60_000,
    limits: limits
      ? { low: start - beyond(limits.fall), high: start + beyond(limits.rise) }
      : { low: null, high: null },
  };
}

/** What a hold that is over meant, for a record; null where its gauge or facts are missing, or its readings too few. */
export function meaningOfHold(plan: Plan, state: RunState, visit: Visit, hold: Hold): Meaning | null {
  const gauge = gaugeOfHold(plan, hold);
  const request = gauge && holdRequest(plan, state, visit, hold, gauge, stageOf(plan, visit).part);
  return request ? meaningOf(request) : null;
}
