/**
 * A hold over hours, in which warmth moves the pressure more than any leak: what is left without warmth and barometer judges, with how
 * well it is known. Tight needs it known to half of what counts; a fall beyond what counts and twice the uncertainty is a leak
 * however badly it is known. Source: general rules of judging
 */
import { BAROMETER_DRIFT, defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { differenceUncertainty } from '@/core/adequacy/change';
import { LOGGED_KELVIN } from '@/core/adequacy/rate';
import { movesOf } from '@/core/fillings/moves';
import { ruleOf } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { pascal } from '@/core/quantity/pascal';
import { convert, toKelvin, UNITS } from '@/core/quantity/unit';
import type { Hold } from '@/core/run/state';
import { type Judgement, measure } from '@/core/verdict/judge';
import type { Judging } from '../judging';

/** What blurs a corrected movement: each part alone, in the gauge's unit, and what would make it smaller. */
export interface Blurred {
  /** of the difference, standard uncertainty */ readonly u: number;
  readonly parts: readonly { readonly name: BlurName; readonly u: number }[];
}
export type BlurName = 'unlogged' | 'one-place' | 'places-differ' | 'thermometer' | 'step' | 'barometer';

/** Changes of temperature at the places that were read at start and end, K. */
export function placeChanges(hold: Hold): number[] {
  const kelvin = (f: { digits: number; scale: number; unit: string }) =>
    toKelvin(toNumber(f as never), f.unit as never);
  const places = hold.places ?? [];
  const at = (when: 'start' | 'end', place: string) =>
    [...places].reverse().find((p) => p.when === when && p.place === place);
  return [...new Set(places.map((p) => p.place))].flatMap((place) => {
    const [start, end] = [at('start', place), at('end', place)];
    return start && end ? [kelvin(end.figure) - kelvin(start.figure)] : [];
  });
}
/** What one place says of a whole circuit: no more than an unlogged temperature, by the pack's figure. */
export function blurOf({
  plan,
  hold,
  facts,
  gauge,
  part,
}: Pick<Judging, 'plan' | 'hold' | 'facts' | 'gauge' | 'part'>): Blurred {
  const unit = gauge.resolution.unit;
  const back = (pa: number) => convert(pa, 'Pa', unit);
  const perKelvin = Math.abs(movesOf(plan, part).weather(plan.system, pascal(facts.start))?.perKelvin ?? 0);
  const minutes = facts.elapsedMs / 60_000;
  const unlogged = defaultTemperatureUncertainty(minutes, ruleOf(plan, part).temperatureDefault);
  const changes = placeChanges(hold);
  const spread = changes.length > 1 ? (Math.max(...changes) - Math.min(...changes)) / Math.sqrt(12) : 0;
  const warmth: Blurred['parts'] =
    changes.length > 1
      ? [
          { name: 'places-differ', u: back(perKelvin * spread) },
          { name: 'thermometer', u: back(perKelvin * LOGGED_KELVIN) },
        ]
      : [
          {
            name: facts.temperature ? 'one-place' : 'unlogged',
            u: back(perKelvin * unlogged),
          },
        ];
  const step = back(
    differenceUncertainty({ resolution: pascal(gauge.resolution), perKelvin: 0, temperature: 0 }),
  );
  const barometer = facts.barometer ? 0 : back(BAROMETER_DRIFT * (facts.elapsedMs / 1000));
  const parts = [...warmth, { name: 'step' as const, u: step }, { name: 'barometer' as const, u: barometer }];
  return { u: Math.hypot(...parts.map((p) => p.u)), parts };
}

/**
 * Below what counts, and known to half of it: nil. A fall above it and twice the uncertainty: beyond; a rise: rose. Else unclear.
 * @param judging.perceptible what counts, pm
 */
export function judgeCorrected(judging: Judging): Judgement {
  const { facts, perceptible } = judging;
  const { amount: _, ...m } = measure(facts, perceptible);
  const { change } = m;
  const pressure = UNITS[change.unit].dimension === 'pressure';
  const left = m.corrected ?? toNumber(change);
  const pm = toNumber(perceptible.value);
  const { u, parts } = pressure ? blurOf(judging) : { u: 0, parts: [] };
  const slack = pm * 1e-9;
  const outcome =
    left < -(pm + 2 * u) - slack
      ? 'beyond'
      : left > pm + 2 * u + slack
        ? 'rose'
        : Math.abs(left) < pm - slack && u <= pm / 2 + slack && !m.uncorrected
          ? 'nil'
          : 'unclear';
  return {
    ...m,
    direction: Math.abs(left) < pm - slack ? 'none' : left < 0 ? 'fall' : 'rise',
    limit: perceptible,
    corrected: left,
    outcome,
    blurred: { u, parts },
  };
}

/** What would make an unclear hold decide, in sentences, the largest first. */
const CURES: Readonly<Record<BlurName, string>> = {
  unlogged: 'log pipe and room temperature at two places or more, at start and end',
  'one-place': 'read the temperature at a second place too, at start and end',
  'places-differ': 'shade or lag the pipes, or hold overnight, until all places warm and cool alike',
  thermometer: 'take a better thermometer, or bind it to the pipe and cover it',
  step: 'take a finer gauge',
  barometer: 'log the barometer at start and end',
};
export function wouldDecide(judgement: Pick<Judgement, 'blurred' | 'perceptible'>): string[] {
  const { blurred, perceptible } = judgement;
  if (!blurred) return [];
  const most = toNumber(perceptible.value) / 2;
  if (blurred.u <= most) return ['hold longer: a leak goes on falling, what a thermometer misses does not'];
  const large = [...blurred.parts].sort((a, b) => b.u - a.u).filter((p) => p.u > most / 4);
  return large.slice(0, 2).map((p) => CURES[p.name]);
}
