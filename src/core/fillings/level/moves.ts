/** Standing water: the fall of its free surfaces. */
import { visibleChange } from '@/core/adequacy/change';
import { freeSurface, metres } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import { levelLeak } from '@/core/limit/water';
import type { Plan } from '@/core/plan/plan';
import { magnitude, showExact, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { SOURCES } from '@/core/quantity/sources';
import { convert, unitLabel, UNITS } from '@/core/quantity/unit';
import { perceptibleOf } from '@/core/run/read';
import type { Hold } from '@/core/run/state';
import type { AloneOf, HoldSees, Moves } from '../filling';
import { addedRate, fallInAll } from '../water';

const LITRES_PER_HOUR = 1000 * 3600;

/** A level stands where it stands: temperatures beside it are printed, never counted. */
export const levelAlone: AloneOf = () => null;

/** How well an eye reads a mark, beside its step: half a step. House figure. */
const MARK_NOISE = 0.5;
function levelSees(plan: Plan, gauge: Gauge, part: string | null | undefined): HoldSees | null {
  const surface = freeSurface(plan.system);
  if (!(surface > 0)) return null;
  const mark = perceptibleOf(plan, gauge, part).value;
  const step = metres(gauge.resolution);
  // the mark is read twice: its uncertainty counts as a gauge's does; records of the first format left it out
  const fall =
    plan.format < 2
      ? metres(mark)
      : visibleChange(metres(mark), {
          resolution: step,
          noise: step * MARK_NOISE,
          perKelvin: 0,
          temperature: 0,
        });
  const leak = (minutes: number) => levelLeak(surface, minutes * 60, fall) * LITRES_PER_HOUR;
  return {
    leak,
    needed: (wanted) => {
      const minutes = Math.ceil((leak(1) / wanted) * 2) / 2;
      return minutes <= 24 * 60 ? minutes : null;
    },
    figure: (minutes) => {
      const value = leak(minutes);
      return {
        name: 'smallest loss this hold can show',
        value,
        unit: 'l/h',
        decimals: decimalsFor(value),
        formula:
          plan.format < 2
            ? 'q_min = Σ free surfaces × smallest visible fall / t'
            : 'q_min = Σ free surfaces × Δh_min / t, with Δh_min = pm + 1.65 × √(2 r²/12 + 2 u²)',
        inputs: [
          ...(plan.system.surfaces ?? []).map((s) => ({
            name: s.name,
            value: `${s.count} × ${toNumber(s.bore)} ${unitLabel(s.bore.unit)} bore`,
          })),
          { name: 'Σ free surfaces', value: `${surface.toFixed(4)} m², ${surface.toFixed(3)} l per mm` },
          ...(plan.format < 2
            ? [{ name: 'smallest visible fall', value: `${toNumber(mark)} ${unitLabel(mark.unit)}` }]
            : [
                { name: 'pm, what counts', value: `${toNumber(mark)} ${unitLabel(mark.unit)}` },
                { name: 'u, one reading of the mark', value: `${(step * MARK_NOISE * 1000).toFixed(1)} mm` },
                { name: 'Δh_min', value: `${(fall * 1000).toFixed(2)} mm` },
              ]),
          { name: 't, hold', value: `${Number(minutes.toFixed(3))} min` },
        ],
        source: SOURCES.levelLeak,
      };
    },
  };
}

function fallen(plan: Plan, hold: Hold): Figure | null {
  const fell = fallInAll(plan, hold);
  const surface = freeSurface(plan.system);
  if (!fell || !(surface > 0) || UNITS[fell.unit].dimension !== 'length') return null;
  const { fall, unit, seconds } = fell;
  const value = ((surface * convert(fall, unit, 'm')) / seconds) * 1000 * 3600;
  return {
    name: 'loss by the level',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula: 'Q = Σ free surfaces × fall / t',
    inputs: [
      { name: 'Σ free surfaces', value: `${surface.toFixed(4)} m²` },
      { name: 'fall', value: showExact(magnitude(hold.judgement!.change)) },
      { name: 't', value: `${(seconds / 60).toFixed(1)} min` },
    ],
    source: SOURCES.surfaces,
  };
}
export const levelMoves: Moves = {
  alone: () => levelAlone,
  sees: ({ plan, gauge, part }) => levelSees(plan, gauge, part),
  rate: (plan, _state, hold) => addedRate(hold) ?? fallen(plan, hold),
  weather: () => null,
};
