/** The volume under test, taken from the pipe list or measured by a metered draw. */
import { type Stage } from '@/core/kinds';
import { volumeOfFall } from '@/core/medium/leak';
import { type Plan } from '@/core/plan/plan';
import { compare, exact, type Exact, showExact, subtract, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { convert, unitLabel, UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import { type EventOf } from '@/core/run/events';
import { type Fold } from '@/core/run/fold';
import { notVolume, onGauge } from '@/core/run/gate';
import { gaugeOf } from '@/core/run/read';
import { type RunState } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const volumeFold: Fold<'volume'> = {
  volume: {
    transition: true,
    misfit: (event, on) =>
      onGauge(on, event.before, event.after) ?? (event.drawn ? notVolume(event.drawn) : null),
    apply: (event, { plan, state, stage, at }) => measureVolume(plan, state, stage, event, at),
    words: (event) =>
      event.drawn && event.before && event.after
        ? `volume measured: ${showExact(event.drawn)} drawn, ${showExact(event.before)} to ${showExact(event.after)}`
        : 'volume taken from the pipe list',
  },
};

const dimension = (figure: Exact) => UNITS[figure.unit].dimension;

/**
 * Volume by metered draw with the supply shut: V = V_drawn x P_atm / (p_before - p_after). Source: general gas
 * law in a closed section. Its uncertainty: the two readings (r/sqrt 6 each, 95 %) and 1 % of the meter (house figure).
 */
function volumeByDraw(
  drawn: Exact,
  before: Exact,
  after: Exact,
  resolution: Exact,
): { figure: Figure; uncertainty: number } {
  const fall = convert(toNumber(before) - toNumber(after), before.unit, 'Pa');
  const litres = convert(toNumber(drawn), drawn.unit, 'l');
  const value = volumeOfFall(litres / 1000, fall);
  const step = convert(toNumber(resolution), resolution.unit, 'Pa');
  const uncertainty = Math.hypot((1.96 * step) / Math.sqrt(6) / fall, 0.01);
  return {
    uncertainty,
    figure: {
      name: 'volume of the section, by metered draw',
      value,
      unit: 'm3',
      decimals: Math.max(4, decimalsFor(value)),
      formula: 'V = V_drawn × P_atm / (p_before − p_after)',
      inputs: [
        { name: 'V_drawn, by the meter', value: `${litres} l` },
        { name: 'p_before', value: `${toNumber(before)} ${unitLabel(before.unit)}` },
        { name: 'p_after', value: `${toNumber(after)} ${unitLabel(after.unit)}` },
        { name: 'P_atm', value: '1013.25 mbar' },
        { name: 'uncertainty, 95 %', value: `± ${(uncertainty * 100).toFixed(1)} %` },
      ],
      source: 'Metered draw with the supply shut. 1 % of the meter: house figure',
    },
  };
}

function measureVolume(
  plan: Plan,
  state: RunState,
  stage: Stage,
  event: EventOf<'volume'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'volume') return no('wrong-step', 'The volume is not asked for here.');
  if (!event.drawn && !event.before && !event.after) {
    state.volume = null;
    follow(plan, state, 'known', at);
    return null;
  }
  const gauge = gaugeOf(plan, state);
  if (!gauge) return no('no-gauge', 'Choose and zero the gauge first.');
  const { drawn, before, after } = event;
  if (!drawn || !before || !after)
    return no('incomplete', 'Enter all three: drawn volume, pressure before, pressure after.');
  if (dimension(drawn) !== 'volume') return no('unit', 'The drawn quantity is a volume, in l or ft³.');
  if (before.unit !== after.unit || dimension(before) !== 'pressure')
    return no('unit', 'Both pressures are read on the same gauge.');
  if (drawn.digits <= 0) return no('drawn', 'Draw some gas through the meter first.');
  const fall = subtract(before, after);
  if (compare(fall, exact(gauge.resolution.digits * 10, gauge.resolution.scale, fall.unit)) < 0)
    return no(
      'small-fall',
      `The pressure fell too little to measure a volume by it. Draw more: at least ten steps of the gauge (${10 * toNumber(gauge.resolution)} ${unitLabel(gauge.resolution.unit)}).`,
    );
  state.volume = volumeByDraw(drawn, before, after, gauge.resolution);
  follow(plan, state, 'known', at);
  return null;
}

export const volumeCourse: Course = (visit) => ({
  word: visit.outcome === 'known' ? 'known' : 'open',
  text: '',
});
