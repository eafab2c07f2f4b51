/** What a plan says before the van leaves: per part its pressure, holds, gauges, and how far weather moves the reading. */
import { movesOf } from '@/core/fillings/moves';
import { known } from '@/core/formula';
import { volumeUncertainty } from '@/core/installation/section';
import { type Gauge, gaugeFit, LEVEL_MARK, type Misfit } from '@/core/instrument/gauge';
import type { HoldStage } from '@/core/kinds';
import { energyLevel, type EnergyLevel, fallingMass, gasEnergy, liquidEnergy } from '@/core/medium/energy';
import { WATER_BULK_MODULUS } from '@/core/medium/water';
import { fillingOf } from '@/core/plan/filling';
import { fitTarget } from '@/core/plan/limits';
import { type Exact, toNumber } from '@/core/quantity/exact';
import { gaugePascal } from '@/core/quantity/pascal';
import { UNITS } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { holdSees } from '@/core/run/hold-sees';
import { type HoldMinutes, leakThatMatters, minutesFor } from '@/core/run/hold-spec';
import { reduce } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import { caseOf, type Plan, planVolume, ruleOf } from './plan';
import { type Sensitivity, sensitivityOf } from './sensitivity';
import { pressurePlan, type PressurePlan } from './weakest';

/** How a gauge of the cabinet would serve a part. */
export interface GaugeProspect {
  readonly gauge: Gauge;
  readonly misfits: readonly Misfit[];
  /** May it judge at all? */ readonly usable: boolean;
  /** Smallest leak at the planned minutes with this gauge, l/h; null where no hold of the part is judged by a fall. */
  readonly sees: number | null;
  readonly needed: number | 'over-a-day' | null;
}
export interface HoldProspect {
  readonly stage: string;
  readonly title: string;
  readonly role: HoldStage['role'];
  readonly times: HoldMinutes;
  /** l/h seen at the minutes of the rule, the house standard, the need and the plan. */
  readonly sees: {
    readonly rule: number;
    readonly house: number | null;
    readonly needed: number | null;
    readonly planned: number;
  };
}
export interface PartProspect {
  readonly part: string | null;
  readonly title: string;
  readonly pressure: PressurePlan;
  readonly gauges: readonly GaugeProspect[];
  /** id of the gauge proposed, the first that may judge, sees most and stands in no other's way */
  readonly best: string | null;
  readonly holds: readonly HoldProspect[];
  /** l/h, and at which pressure it is meant */
  readonly matters: {
    readonly leak: Exact;
    readonly at: 'working' | 'test';
    readonly binding: boolean;
    readonly source: string;
  };
  readonly sensitivity: Sensitivity | null;
  readonly energy: {
    readonly gas: number;
    readonly water: number;
    readonly mass: number;
    readonly level: EnergyLevel;
  } | null;
}

/** A state in which nothing has happened but the choice of the gauge. */
const chosen = (plan: Plan, gauge: string | null): RunState => ({ ...reduce(plan, []), gauge });
const judged = (plan: Plan, part: string | null): [string, HoldStage][] =>
  Object.entries(plan.procedure.stages).flatMap(([key, s]): [string, HoldStage][] =>
    s.kind === 'hold' && (s.part ?? null) === part && roleOf(s.role).decides ? [[key, s]] : [],
  );

/** What a gauge sees in a part, by minutes, l/h; null where the pressure is not known. The setting is worked out once. */
function seeing(plan: Plan, part: string | null, gauge: Gauge): ((minutes: number) => number) | null {
  const found = known(() => holdSees(plan, chosen(plan, gauge.id), part, gauge));
  return 'missing' in found ? null : (found.value?.leak ?? null);
}
/** Smallest leak in l/h that a hold of so many minutes shows with a gauge; null where the pressure is not known. */
export const sees = (plan: Plan, part: string | null, gauge: Gauge, minutes: number): number | null =>
  seeing(plan, part, gauge)?.(minutes) ?? null;
/** The curve of leak seen against minutes, for drawing: from half a minute to `most`, evenly on a log scale. */
export function seenCurve(
  plan: Plan,
  part: string | null,
  gauge: Gauge,
  most: number,
  points = 60,
): [number, number][] {
  const at = seeing(plan, part, gauge);
  if (!at) return [];
  const first = Math.log(0.5);
  const last = Math.log(Math.max(most, 2));
  return Array.from({ length: points }, (_, i): [number, number] => {
    const minutes = Math.exp(first + ((last - first) * i) / (points - 1));
    return [minutes, at(minutes)];
  });
}

const timesOf = (plan: Plan, part: string | null, gauge: Gauge, stage: HoldStage) =>
  known(() =>
    minutesFor(
      plan,
      chosen(plan, gauge.id),
      part,
      stage.minutes,
      stage.minutesSource,
      roleOf(stage.role).sees ?? false,
      gauge,
    ),
  );

const seesAbout = (g: GaugeProspect): number =>
  g.sees === null ? Infinity : Math.round(Math.log(g.sees) / Math.log(1.2));
/** Of gauges that read the same quantity the finer comes first. */
const stepOf = (g: Gauge): number => toNumber(g.resolution) * UNITS[g.resolution.unit].si;

function gaugesOf(plan: Plan, part: string | null, day: string): GaugeProspect[] {
  const target = known(() => fitTarget(plan, part));
  const [hold] = judged(plan, part).filter(([, s]) => s.role !== 'strength');
  return plan.gauges
    .map((gauge): GaugeProspect => {
      const misfits = 'missing' in target ? [] : gaugeFit(gauge, target.value, day);
      const usable = !misfits.some((m) => m.blocks);
      if (!usable || !hold) return { gauge, misfits, usable, sees: null, needed: null };
      const times = timesOf(plan, part, gauge, hold[1]);
      if ('missing' in times) return { gauge, misfits, usable, sees: null, needed: null };
      return {
        gauge,
        misfits,
        usable,
        sees: sees(plan, part, gauge, times.value.planned),
        needed: times.value.needed,
      };
    })
    .sort(
      (a, b) =>
        Number(b.usable) - Number(a.usable) ||
        a.misfits.length - b.misfits.length ||
        // of gauges that see about as much, the finer
        seesAbout(a) - seesAbout(b) ||
        stepOf(a.gauge) - stepOf(b.gauge) ||
        a.gauge.name.localeCompare(b.gauge.name),
    );
}

/** One part of the plan as it stands with a gauge (absent: the best of the cabinet). @param day ISO date of the test */
export function partProspect(plan: Plan, part: string | null, day: string, gauge?: string): PartProspect {
  const rule = ruleOf(plan, part);
  const pressure = pressurePlan(plan, part);
  const filling = fillingOf(plan, part);
  const gauges = filling.mark ? [] : gaugesOf(plan, part, day);
  const best = gauges.find((g) => g.usable)?.gauge.id ?? null;
  const judging = filling.mark ? LEVEL_MARK : (plan.gauges.find((g) => g.id === (gauge ?? best)) ?? null);
  const holds = judging
    ? judged(plan, part).flatMap(([key, stage]): HoldProspect[] => {
        const times = timesOf(plan, part, judging, stage);
        if ('missing' in times) return [];
        const at = (m: number | null) => (m === null ? null : sees(plan, part, judging, m));
        const planned = at(times.value.planned);
        if (planned === null) return [];
        return [
          {
            stage: key,
            title: stage.title,
            role: stage.role,
            times: times.value,
            sees: {
              rule: at(times.value.rule)!,
              house: at(times.value.house),
              needed: typeof times.value.needed === 'number' ? at(times.value.needed) : null,
              planned,
            },
          },
        ];
      })
    : [];
  const volume =
    planVolume(plan, part).value * (1 + volumeUncertainty(plan.system, caseOf(plan, part).appliances));
  const pa = pressure.pressure && gaugePascal(pressure.pressure);
  const stiffness = pa === null ? undefined : movesOf(plan, part).weather(plan.system, pa)?.stiffness;
  const water = pa === null ? 0 : liquidEnergy(pa, stiffness ?? volume / WATER_BULK_MODULUS);
  const gas = pa === null ? 0 : gasEnergy(volume, pa);
  return {
    part,
    title: plan.procedure.parts?.find((p) => p.key === part)?.title ?? plan.procedure.title,
    pressure,
    gauges,
    best,
    holds,
    matters: {
      leak: leakThatMatters(plan, part),
      at: rule.adequacy.at ?? 'working',
      binding: rule.adequacy.binding,
      source: rule.adequacy.source,
    },
    sensitivity: judging && pressure.pressure ? sensitivityOf(plan, part, judging, pressure.pressure) : null,
    energy:
      pa === null || !filling.stores
        ? null
        : {
            gas,
            water,
            mass: fallingMass(filling.stores === 'water' ? water : gas),
            level: energyLevel(filling.stores === 'water' ? water : gas),
          },
  };
}
/** Every part that has a pressure of its own to plan; the whole where there are no parts. */
export const planParts = (plan: Plan): (string | null)[] =>
  plan.procedure.parts?.length ? plan.procedure.parts.map((p) => p.key) : [null];
