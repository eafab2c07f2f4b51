/** Entries of staged pumping: steps, looks at every joint, and a pressure that is not reached. */
import { capital } from '@/core/quantity/words';
import { wanted } from '@/core/formula';
import { sectionVolume, systemStiffness } from '@/core/installation/section';
import { type PumpStage, type Stage } from '@/core/kinds';
import { trappedAir } from '@/core/medium/liquid';
import { fillingOf } from '@/core/plan/filling';
import { inBand, type ResolvedBand } from '@/core/plan/limits';
import { type Plan } from '@/core/plan/plan';
import {
  breaks,
  compare,
  type Exact,
  magnitude,
  parseWithUnit,
  scaled,
  showExact,
  subtract,
  toNumber,
} from '@/core/quantity/exact';
import { pascal } from '@/core/quantity/pascal';
import { convert, STANDARD_ATMOSPHERE, UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import { type Fold } from '@/core/run/fold';
import { notVolume, onGauge } from '@/core/run/gate';
import { stageBand } from '@/core/run/hold-spec';
import { gaugeOf, perceptibleOf } from '@/core/run/read';
import { keep, passedCap, readingFrom } from '@/core/run/readings';
import { type PumpStep, type Reading, type RunState, type Visit } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const pumpFold: Fold<'pump-step' | 'pump-look' | 'pump-failed'> = {
  'pump-step': {
    transition: true,
    entered: 'pumped',
    misfit: (event, on) => onGauge(on, event.figure) ?? (event.added ? notVolume(event.added) : null),
    apply: (event, { plan, state, visit, stage, at }) => pumpStep(plan, state, visit, stage, event, at),
    words: (event, { plan }) =>
      `${fillingOf(plan).looks.raised} to ${showExact(event.figure)}${event.strokes === undefined ? '' : `, ${event.strokes} strokes`}${event.added ? `, ${showExact(event.added)}` : ''}`,
  },
  'pump-look': {
    transition: true,
    sign: (event) => event.joints === 'drips',
    entered: 'looked at',
    misfit: (event, on) => onGauge(on, event.figure),
    apply: (event, { plan, state, visit, stage, at }) => pumpLook(plan, state, visit, stage, event, at),
    words: (event, { plan }) => {
      const { none, some } = fillingOf(plan).looks;
      return `joints looked at, ${event.joints === 'dry' ? none : `${some}: ${event.where}`}; ${showExact(event.figure)}`;
    },
  },
  'pump-failed': {
    transition: true,
    sign: () => true,
    apply: (event, { plan, state, visit, stage, at }) => pumpFailed(plan, state, visit, stage, event, at),
    words: (event) => `test pressure not reached: ${event.text}`,
    said: () => true,
  },
};

/** A band that was rounded into the gauge's unit is no reason for a step more. */
const ROUNDED = 0.01;
/** What a raise by so much each time may have at most: beyond it somebody meant another unit. */
const MOST_STEPS = 20;
/** The steps of raising to a band: as the rule lists them, or by so much each time until the band is reached. */
export function raisingSteps(
  stage: PumpStage,
  band: ResolvedBand,
): readonly { readonly percent: number; readonly minutes: number }[] {
  const { every } = stage;
  if (!every) return stage.steps ?? [];
  const part = pascal(parseWithUnit(every.by)) / pascal(band.low);
  const count = Math.min(MOST_STEPS, Math.max(1, Math.ceil(1 / part - ROUNDED)));
  return Array.from({ length: count }, (_, i) => ({
    percent: i + 1 === count ? 100 : Math.round(100 * part * (i + 1)),
    minutes: every.minutes,
  }));
}
/**
 * Where a step of staged pumping may stand: its part of the test pressure, 5 percent of the test pressure either way;
 * the last step is the band itself. House figure.
 */
export function pumpBand(stage: PumpStage, band: ResolvedBand, step: number): ResolvedBand {
  const percent = raisingSteps(stage, band)[step]?.percent ?? 100;
  if (percent >= 100) return band;
  const part = (p: number, round: 'down' | 'up') =>
    scaled(band.low, Math.max(0, p), 100, Math.max(1, band.low.scale), round);
  return { low: part(percent - 5, 'up'), high: part(percent + 5, 'down') };
}

/** The step that is pumped to, or waited on, now. */
export const pumpStepNow = (visit: Visit): number => {
  const last = visit.pumped[visit.pumped.length - 1];
  return last && !last.look ? visit.pumped.length - 1 : visit.pumped.length;
};

const readingBefore = (visit: Visit): Reading | null => {
  const last = visit.pumped[visit.pumped.length - 1];
  return last ? (last.look?.reading ?? last.reached) : null;
};

/** Water and wall alone, whatever gas is known to be inside. */
const fullOf = (plan: Plan, pressure: number) =>
  systemStiffness({ ...plan.system, gasInside: parseWithUnit('0 l') }, pressure);

/** Gas that this step squeezed: from what was delivered against the stiffness of water and wall. */
function airOf(plan: Plan, before: Exact | null, after: Exact, added: Exact): PumpStep['air'] | null {
  const p1 = before ? pascal(before) : 0;
  const p2 = pascal(after);
  const full = fullOf(plan, p2);
  if (!full || p2 <= p1) return null;
  const { atmospheric } = trappedAir(
    convert(toNumber(added), added.unit, 'm3'),
    p1 + STANDARD_ATMOSPHERE,
    p2 + STANDARD_ATMOSPHERE,
    full.c,
    STANDARD_ATMOSPHERE,
  );
  const volume = sectionVolume(plan.system).value;
  return { litres: atmospheric * 1000, percent: volume > 0 ? (atmospheric / volume) * 100 : 0 };
}

function pumpStep(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'pump-step'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'pump') return no('wrong-step', 'Nothing is pumped in this stage.');
  if (!gaugeOf(plan, state)) return no('no-gauge', 'Choose and zero the gauge first.');
  const found = stageBand(plan, state, stage);
  if ('missing' in found) return no('missing', found.missing);
  const last = visit.pumped[visit.pumped.length - 1];
  if (last && !last.look) return no('overtaken', 'Look at the joints of the step you are on first.');
  const band = pumpBand(stage, found.value, visit.pumped.length);
  const reading = readingFrom(event, at);
  if (event.figure.unit !== band.low.unit) return no('unit', 'The gauge and the rule use different units.');
  if (event.added && (UNITS[event.added.unit].dimension !== 'volume' || event.added.digits < 0))
    return no('added', 'What the pump delivered is a volume of zero or more.');
  const cap = passedCap(plan, event.figure);
  if (cap) return no('above-weakest', cap);
  if (!inBand(event.figure, band))
    return no(
      compare(event.figure, band.high) > 0 ? 'over-band' : 'under-band',
      `${showExact(event.figure)} is ${compare(event.figure, band.high) > 0 ? 'above' : 'below'} this step's ${showExact(band.low)} to ${showExact(band.high)}. ${compare(event.figure, band.high) > 0 ? 'Bleed down to it' : 'Pump on'}, then read again.`,
    );
  const before = readingBefore(visit);
  const air = event.added ? airOf(plan, before?.figure ?? null, event.figure, event.added) : null;
  const fastest = stage.fastest && wanted(parseWithUnit(stage.fastest.value), event.figure.unit, 'down');
  const minutes = (reading.readMoment - (before?.readMoment ?? visit.entered)) / 60_000;
  const rise = before ? subtract(event.figure, before.figure) : event.figure;
  const fast =
    fastest && minutes > 0 && toNumber(rise) / minutes > toNumber(fastest)
      ? `It rose faster than ${showExact(fastest)} a minute: raise slowly, so that a weak joint shows before it parts.`
      : undefined;
  visit.pumped.push({
    reached: reading,
    ...(event.added ? { added: event.added } : {}),
    ...(event.strokes === undefined ? {} : { strokes: event.strokes }),
    ...(air ? { air } : {}),
    ...(fast ? { fast } : {}),
  });
  return null;
}

function pumpLook(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'pump-look'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'pump') return no('wrong-step', 'Nothing is pumped in this stage.');
  const step = visit.pumped[visit.pumped.length - 1];
  if (!step || step.look) return no('wrong-step', 'Reach the step first.');
  const found = stageBand(plan, state, stage);
  if ('missing' in found) return no('missing', found.missing);
  const steps = raisingSteps(stage, found.value);
  const index = visit.pumped.length - 1;
  const pause = steps[Math.min(index, steps.length - 1)]!.minutes;
  const reading = readingFrom(event, at);
  const toGo = step.reached.readMoment + pause * 60_000 - reading.readMoment;
  if (event.joints === 'dry' && toGo > 0)
    return no(
      'too-early',
      `${Math.ceil(toGo / 1000)} s too early. Look at every joint, then read the gauge when the pause is over.`,
    );
  if (event.joints === 'drips' && !event.where.trim())
    return no('where', `${fillingOf(plan, stage.part).looks.say}: it is what you will mend.`);
  step.look = { reading, joints: event.joints, where: event.where };
  if (event.joints === 'drips') {
    const { some } = fillingOf(plan, stage.part).looks;
    const text = `${capital(some)}: ${event.where}`;
    state.notes.push({ at, byName: event.byName, text, kind: 'note' });
    follow(plan, state, 'drips', at);
    return null;
  }
  if (index + 1 < steps.length) return null;
  keep(state, stage.keeps, reading);
  follow(plan, state, tooMuchAir(plan, visit, stage) ? 'air' : 'raised', at);
  return null;
}

/** Why the section holds more air than the pack allows, '' when it does not or nothing was measured. */
export function tooMuchAir(plan: Plan, visit: Visit, stage: PumpStage): string {
  const most = stage.airMost;
  if (!most) return '';
  const worst = visit.pumped.reduce((w, s) => Math.max(w, s.air?.percent ?? 0), 0);
  if (most.percent !== undefined && worst > most.percent)
    return `Trapped air is ${worst.toFixed(1)} % of the volume, more than ${most.percent} %.`;
  const last = visit.pumped[visit.pumped.length - 1];
  if (most.times === undefined || !last || !visit.pumped.every((s) => s.added)) return '';
  const full = fullOf(plan, pascal(last.reached.figure));
  if (!full) return '';
  const taken = visit.pumped.reduce((sum, s) => sum + convert(toNumber(s.added!), s.added!.unit, 'm3'), 0);
  const alone = full.c * pascal(last.reached.figure);
  return taken > Number(most.times) * alone
    ? `It took ${(taken * 1000).toFixed(2)} l to raise; water and wall alone take ${(alone * 1000).toFixed(2)} l, and more than ${most.times} times that means trapped air.`
    : '';
}

/** A first, low step that drops: a joint that was never made, more likely than anything else. */
export function firstStepDrops(plan: Plan, state: RunState, visit: Visit): Exact | null {
  const first = visit.pumped[0];
  const gauge = gaugeOf(plan, state);
  if (!first?.look || !gauge) return null;
  const change = subtract(first.look.reading.figure, first.reached.figure);
  return change.digits < 0 && breaks(magnitude(change), perceptibleOf(plan, gauge)) ? change : null;
}

function pumpFailed(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'pump-failed'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'pump') return no('wrong-step', 'Nothing is pumped in this stage.');
  state.notes.push({
    at,
    byName: event.byName,
    text: `Test pressure not reached: ${event.text}`,
    kind: 'note',
  });
  visit.split = 'not reached';
  follow(plan, state, 'not-reached', at);
  return null;
}

const WORDS: Readonly<Record<string, string>> = {
  air: 'too much air',
  'not-reached': 'not reached',
};
export const pumpCourse: Course = (visit, plan) => {
  const { none, some } = fillingOf(plan, plan.procedure.stages[visit.stage]?.part).looks;
  const words: Readonly<Record<string, string>> = {
    ...WORDS,
    raised: `raised, joints ${none === 'dry' ? 'dry' : `show ${none}`}`,
    drips: some === 'drips' ? 'a joint drips' : `a joint shows ${some}`,
  };
  const last = visit.pumped[visit.pumped.length - 1];
  return {
    word: words[visit.outcome ?? ''] ?? 'open',
    text: last
      ? `${visit.pumped.length} ${visit.pumped.length === 1 ? 'step' : 'steps'} to ${showExact((last.look?.reading ?? last.reached).figure)}`
      : (visit.split ?? ''),
  };
};
