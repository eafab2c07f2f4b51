/** The figures that stand beside a run: a hold's own limit, what the judged hold can see, what a kelvin and a millilitre do. */
import { movesOf } from '@/core/fillings/moves';
import { FORMULAS, known } from '@/core/formula';
import { systemStiffness } from '@/core/installation/section';
import { type Gauge, LEVEL_MARK } from '@/core/instrument/gauge';
import type { HoldStage, Stage } from '@/core/kinds';
import { energyLevel, fallingMass, gasEnergy, liquidEnergy } from '@/core/medium/energy';
import { WATER_BULK_MODULUS } from '@/core/medium/water';
import { acceptOf, testPressure } from '@/core/plan/limits';
import { applies, type Plan, planVolume } from '@/core/plan/plan';
import { breachWords, type Exact, showExact, toNumber } from '@/core/quantity/exact';
import { showFigure, significantText } from '@/core/quantity/figure';
import { gaugePascal, pascal } from '@/core/quantity/pascal';
import { convert, unitLabel } from '@/core/quantity/unit';
import { holdSees } from '@/core/run/hold-sees';
import { leakThatMatters, minutesFor } from '@/core/run/hold-spec';
import { contextOf, gaugeOf } from '@/core/run/read';
import type { RunState } from '@/core/run/state';
import { fallLimit } from '@/core/run/water-limits';

/** The limit of a hold that is not judged by perceptible movement: how far it may fall, or how much may be added. */
export function ownLimit(plan: Plan, state: RunState, stage: HoldStage, gauge: Gauge | null) {
  if (stage.role === 'stretch' && stage.fall && gauge) {
    const limit = fallLimit(stage, gauge);
    return {
      name: `${stage.title}, fall`,
      value: `${breachWords(limit)} is too much`,
      why: { title: stage.title, source: limit.source, text: 'Counted from the last figure of the pumping.' },
    };
  }
  if (stage.role === 'floor' && stage.accept?.low) {
    const low = acceptOf(stage.accept.low, 'low', contextOf(plan, state, stage.part), plan, stage.part);
    return low
      ? {
          name: 'No reading below',
          value: showExact(low.value),
          why: { title: stage.title, source: low.source, text: low.working?.text ?? 'Met at equality.' },
        }
      : null;
  }
  if (stage.role === 'make-up') {
    const rule = stage.permitted?.find((p) => applies(plan, stage.part, p.when));
    return {
      name: 'Make-up',
      value: rule ? 'by formula, met at equality' : 'no limit given',
      why: rule
        ? {
            title: 'Make-up permitted',
            source: rule.source,
            text: `${FORMULAS[rule.volume.formula]?.says(rule.volume.args ?? {}) ?? rule.volume.formula}. The figure stands beside the running hold.`,
          }
        : {
            title: 'No limit given',
            source: plan.procedure.title,
            text: 'Both loss figures are measured; the engineer judges them.',
          },
    };
  }
  return null;
}

/** What the part's judged hold could see, and its minutes by rule, house and need; null before that can be known. */
export function seeing(plan: Plan, state: RunState, part: string | null, judged: Stage | undefined) {
  if (judged?.kind !== 'hold') return null;
  try {
    const times = minutesFor(plan, state, part, judged.minutes, judged.minutesSource, false);
    const level = judged.by === 'level' ? LEVEL_MARK : gaugeOf(plan, state);
    const sees = holdSees(plan, state, part, level);
    if (!sees || judged.role !== 'tightness') return null;
    return {
      leak: sees.figure(times.planned),
      needed: sees.needed(toNumber(leakThatMatters(plan, part))),
      rule: times.rule,
      house: times.house,
    };
  } catch {
    return null; // a fact or reading is still missing; the stage that needs it says so
  }
}

/** What weather does to the reading at test pressure, and what energy stands in the section; null before it is known. */
export function standing(plan: Plan, part: string | null) {
  const found = known(() => testPressure(plan, part));
  if ('missing' in found) return null;
  const { unit } = found.value;
  const pa = gaugePascal(found.value);
  if (pa === null) return null;
  const volume = planVolume(plan, part);
  const weather = movesOf(plan, part).weather(plan.system, pa);
  if (!weather) return null;
  if (weather.stiffness) return standingLiquid(plan, found.value);
  const gas = gasEnergy(volume.value, pa);
  const water = liquidEnergy(pa, volume.value / WATER_BULK_MODULUS);
  const level = energyLevel(gas);
  const show = (v: number) => `${significantText(v, 2)} ${unitLabel(unit)}`;
  return {
    perKelvin: show(convert(weather.perKelvin, 'Pa', unit)),
    perMillibar: show(convert(1, 'mbar', unit)),
    energy: `${significantText(gas, 2)} J`,
    level: level.words,
    why: {
      title: 'Stored energy',
      formula: 'gas: P V/(γ−1) × (1 − (P_atm/P)^((γ−1)/γ)); water: p² V / 2K',
      inputs: [
        { name: 'test pressure', value: showExact(found.value) },
        { name: volume.name, value: showFigure(volume) },
        {
          name: 'with water it would be',
          value: water < 0.001 ? 'less than 0.001 J' : `${significantText(water, 2)} J`,
        },
        { name: 'falling one metre', value: `${significantText(fallingMass(gas), 2)} kg` },
      ],
      source: 'Adiabatic expansion beside elastic water; levels are house figures',
      text: level.exclusion,
    },
  };
}

/** What a millilitre and a kelvin show as at the test pressure of a section full of water; null where walls are not known. */
function standingLiquid(plan: Plan, pressure: Exact) {
  const pa = pascal(pressure);
  const full = systemStiffness(plan.system, pa);
  if (!full) return null;
  const show = (v: number) =>
    `${significantText(convert(v, 'Pa', pressure.unit), 2)} ${unitLabel(pressure.unit)}`;
  const energy = liquidEnergy(pa, full.c);
  return {
    perKelvin: show(full.perKelvin),
    perMillilitre: show(1e-6 / full.c),
    energy: `${significantText(energy, 2)} J`,
    level: energyLevel(energy).words,
    why: {
      title: full.figure.name,
      formula: full.figure.formula,
      inputs: full.figure.inputs,
      source: full.figure.source,
      text: `${showFigure(full.figure)}: so much water moves it by one bar. Temperature first, leak second.`,
    },
  };
}
