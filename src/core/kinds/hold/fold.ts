/** Entries of a hold: its start and end, readings, top-ups, weather, the level at a second place. */
import { known } from '@/core/formula';
import { type IsolateStage, type Stage } from '@/core/kinds';
import { tappedEnd, unsettled, worstClassCertain } from '@/core/kinds/hold/ending';
import { boundMissing, confirmed, factsOf, judged } from '@/core/kinds/hold/judged';
import { holdText } from '@/core/kinds/hold/text';
import { endCycle } from '@/core/kinds/isolate-and-repeat/fold';
import { inBand } from '@/core/plan/limits';
import { type Plan } from '@/core/plan/plan';
import { breaks, exact, type Exact, showExact, subtract, toNumber } from '@/core/quantity/exact';
import { inZone } from '@/core/quantity/in-zone';
import { fromKelvin, toKelvin, UNITS } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { makeUpDecided } from '@/core/roles/make-up/judge';
import { barometerNeeded, coarseBarometer } from '@/core/run/barometer';
import { clockPoint, clockWords, elapsedBetween } from '@/core/run/clock';
import type { Course } from '@/core/run/course';
import { type EventOf, momentOf } from '@/core/run/events';
import { type Fold } from '@/core/run/fold';
import { notBarometer, notTemperature, notVolume, onGauge } from '@/core/run/gate';
import { holdSpec } from '@/core/run/hold-spec';
import {
  currentCycle,
  gaugeOf,
  perceptibleOf,
  runningHold,
  stageOf,
  stepOf,
  temperatureNeeded,
} from '@/core/run/read';
import { keep, mark, readingFrom, wasShown } from '@/core/run/readings';
import { type Hold, type RunState, type Visit } from '@/core/run/state';
import { breakHold, enter, follow, no, type Refusal, returnToFill } from '@/core/run/transition';

export const holdFold: Fold<
  | 'hold-start'
  | 'hold-end'
  | 'reading'
  | 'extend'
  | 'top-up'
  | 'temperature'
  | 'barometer'
  | 'witness'
  | 'disturbance'
> = {
  'hold-start': {
    transition: true,
    entered: 'hold begun',
    misfit: (event, on) => onGauge(on, event.figure),
    apply: (event, { plan, state, visit, at }) => startHold(plan, state, visit, event, at),
    words: (event) => `hold started at ${showExact(event.figure)}`,
  },
  'hold-end': {
    transition: true,
    entered: 'hold ended',
    sign: (_, before) => runningHold(before)?.role !== 'settle',
    misfit: (event, on) => onGauge(on, event.figure),
    apply: (event, { plan, state, visit, stage, at }) => endHold(plan, state, visit, stage, event, at),
    words: (event) =>
      `hold ended at ${showExact(event.figure)}${event.short ? `, before the planned time: ${event.short}` : ''}`,
    said: (event) => !!event.short,
  },
  extend: {
    transition: true,
    apply: (event, { state, at }) => extendHold(state, event, at),
    words: (event) => `the hold goes on for ${event.minutes} min more: ${event.why}`,
    said: () => true,
  },
  reading: {
    misfit: (event, on) => onGauge(on, event.figure),
    apply: (event, { state, visit, at }) => keepReading(state, visit, event, at),
    words: (event, { state }) =>
      `reading ${showExact(event.figure)}${event.late ? `, read ${inZone(event.readAt, event.zone)} (late entry)` : ''}${event.same ? ', same as before' : ''}${wasShown(state, readingFrom(event, momentOf(event))) ? ', from the display' : ''}`,
  },
  'top-up': {
    transition: true,
    misfit: (event, on) =>
      onGauge(on, event.before, event.after) ?? (event.added ? notVolume(event.added) : null),
    apply: (event, { plan, state, visit, at }) => topUp(plan, state, visit, event, at),
    words: (event) =>
      `re-adjusted from ${showExact(event.before)} to ${showExact(event.after)}${event.added ? `, ${showExact(event.added)} added` : ''}`,
  },
  temperature: {
    transition: true,
    entered: 'temperature',
    misfit: (event) => (event.figure ? notTemperature(event.figure) : null),
    apply: (event, { state, at }) => logTemperature(state, event, at),
    words: (event) =>
      event.figure
        ? `${event.place ?? 'pipe temperature'} ${event.when === 'between' ? 'in between' : `at the ${event.when}`}: ${showExact(event.figure)}`
        : 'no thermometer at hand',
  },
  barometer: {
    transition: true,
    entered: 'barometer',
    misfit: (event) => (event.figure ? notBarometer(event.figure) : null),
    apply: (event, { plan, state, stage }) => {
      const hold = runningHold(state);
      if (!hold) return no('no-hold', 'Log the barometer while a hold runs.');
      if (event.none) hold.barometer.none = true;
      else if (event.figure) {
        const coarse = coarseBarometer(plan, state, stage, hold, event.figure);
        if (coarse) return coarse;
        hold.barometer[event.when] = event.figure;
      } else return no('figure', 'Type the barometer, or say that there is none at hand.');
      return null;
    },
    words: (event) =>
      event.figure
        ? `barometer at the ${event.when}: ${showExact(event.figure)}${event.from ? ` (from ${event.from})` : ''}`
        : 'no barometer at hand',
  },
  witness: {
    transition: true,
    apply: (event, { state, stage, at }) => witness(state, stage, event, at),
    words: (event) =>
      `second place at the ${event.when}: ${SEEN_WORDS[event.seen]}${event.text ? `, ${event.text}` : ''}`,
    said: (event) => !!event.text,
  },
  disturbance: {
    apply: (event, { plan, state, at }) => {
      state.notes.push({
        at,
        byName: event.byName,
        text: [event.what, event.text].filter(Boolean).join(': '),
        kind: 'disturbance',
      });
      const hold = runningHold(state);
      if (hold && hold.role !== 'settle') {
        breakHold(state, event.what, at);
        returnToFill(plan, state, at);
      }
      return null;
    },
    words: (event) => `disturbance: ${event.what}${event.text ? `, ${event.text}` : ''}`,
    said: () => true,
  },
};
/** What was seen of a level, in words. */
export const SEEN_WORDS = { same: 'unchanged', fell: 'fell', rose: 'rose' } as const;

/** One figure for the whole, or one for each place: then their mean stands for the whole. */
function logTemperature(state: RunState, event: EventOf<'temperature'>, at: number): Refusal | null {
  const hold = runningHold(state);
  if (!hold) return no('no-hold', 'Log the temperature while a hold runs.');
  const { when, figure, place, none } = event;
  if (none) {
    hold.noThermometer = true;
    return null;
  }
  if (!figure) return no('figure', 'Type the temperature, or say that there is no thermometer at hand.');
  if (place) {
    (hold.places ??= []).push({ when, place, figure, at });
    if (when !== 'between') hold.temperature[when] = meanAt(hold, when);
  } else if (when === 'between') return no('place', 'Say where it was read.');
  else hold.temperature[when] = figure;
  return null;
}
/** No hold is longer, extended or not: a week, min. */
const MOST_MINUTES = 10_080;
function extendHold(state: RunState, event: EventOf<'extend'>, at: number): Refusal | null {
  const hold = runningHold(state);
  if (!hold) return no('no-hold', 'A hold is extended while it runs.');
  if (hold.role === 'settle')
    return no('settle', 'Settling goes on until it stands still: nothing need be extended.');
  if (hold.minutes + event.minutes > MOST_MINUTES)
    return no('too-long', 'A hold runs for a week at most. Leave the section under a watch instead.');
  const { minutes, why, byName } = event;
  (hold.extended ??= []).push({ minutes, why, at, byName });
  hold.minutes += minutes;
  return null;
}
/** The mean of the places at one end of a hold, to a hundredth of a degree: of those read at both ends, where there are any. */
function meanAt(hold: Hold, when: 'start' | 'end'): Exact {
  const newest = (which: 'start' | 'end') =>
    new Map((hold.places ?? []).filter((p) => p.when === which).map((p) => [p.place, p.figure]));
  const [own, other] = [newest(when), newest(when === 'start' ? 'end' : 'start')];
  const common = [...own.keys()].filter((p) => other.has(p));
  if (common.length && when === 'end') hold.temperature.start = meanOf(common.map((p) => other.get(p)!));
  const figures = (common.length ? common : [...own.keys()]).map((p) => own.get(p)!);
  return meanOf(figures);
}
const meanOf = (figures: readonly Exact[]): Exact => {
  const unit = figures[0]!.unit;
  const sum = figures.reduce((s, f) => s + fromKelvin(toKelvin(toNumber(f), f.unit), unit), 0);
  return exact(Math.round((sum / figures.length) * 100), 2, unit);
};

function startHold(
  plan: Plan,
  state: RunState,
  visit: Visit,
  event: EventOf<'hold-start'>,
  at: number,
): Refusal | null {
  const found = known(() => holdSpec(plan, state));
  if ('missing' in found) return no('missing', found.missing);
  const spec = found.value;
  if (!spec || stepOf(state) !== 'start') return no('wrong-step', 'There is no hold to start here.');
  const judging = gaugeOf(plan, state);
  if (!judging) return no('no-gauge', 'Choose and zero the gauge first.');
  const start = readingFrom(event, at);
  if (start.late) return no('late-start', 'The start reading is too old. Read the gauge now and start.');
  if (spec.missing) return no('missing', spec.missing);
  if (spec.band && !inBand(event.figure, spec.band))
    return no(
      'out-of-band',
      `${showExact(event.figure)} is outside the band ${showExact(spec.band.low)} to ${showExact(spec.band.high)}. A hold starts only inside it: re-adjust first.`,
    );
  state.tapped = null;
  const hold: Hold = {
    role: spec.role,
    minutes: spec.minutes,
    rule: spec.times.rule,
    gauge: judging.id,
    start,
    startedAt: at,
    startClock: clockPoint(event),
    topUps: [],
    temperature: {},
    barometer: {},
    witness: {},
  };
  const held = stageOf(plan, visit);
  if (held.kind === 'hold') keep(state, held.keepsStart, start);
  if (visit.kind === 'hold') visit.holds.push(hold);
  else if (spec.role === 'settle') currentCycle(visit)!.settle = hold;
  else currentCycle(visit)!.hold = hold;
  return null;
}

function endHold(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'hold-end'>,
  at: number,
): Refusal | null {
  const hold = runningHold(state);
  const gauge = gaugeOf(plan, state);
  if (!hold || !gauge) return no('no-hold', 'No hold is running.');
  const end = readingFrom(event, at);
  if (end.late) return no('late-end', 'An earlier reading cannot end a hold. Read the gauge now.');
  const elapsed = elapsedBetween(hold.startClock, end.clock);
  const toGo = hold.rule * 60000 - elapsed.ms;
  const decided =
    (hold.role === 'leak-rate' && worstClassCertain(plan, state, stage, hold, end, elapsed.ms)) ||
    makeUpDecided(plan, state, stage, hold, end.figure);
  if (toGo > 0 && !decided)
    return no(
      'too-early',
      `${Math.ceil(toGo / 1000)} s too early. Read the gauge when the time has run out.`,
    );
  const early = !decided && elapsed.ms < hold.minutes * 60000;
  if (hold.role === 'settle') {
    const refused = unsettled(plan, state, visit, stage, hold, end, gauge);
    if (refused) return refused;
  }
  if (temperatureNeeded(plan, state, hold))
    return no(
      'temperature-needed',
      stage.kind === 'hold' && stage.judge
        ? 'Warmth moves this pressure more than a leak does: log pipe and room at start and end, two places or more, or say that there is no thermometer. Then read the gauge.'
        : 'This hold repeats a movement that warmth could explain: log the pipe temperature at its start and end first, then read the gauge.',
    );
  if (barometerNeeded(plan, state, stage, hold, plan.format < 2 ? hold.minutes : elapsed.ms / 60_000))
    return no(
      'barometer-needed',
      'A hold this long needs the barometer at its start and end: log both, or say that there is none at hand. Then read the gauge.',
    );
  if (stage.kind === 'hold' && stage.witness && hold.role === 'tightness' && !hold.witness.end)
    return no(
      'witness-needed',
      `Look at the second place too (${stage.witness}) and say what its level did. Then read the mark.`,
    );
  if (
    !decided &&
    roleOf(hold.role).measures === 'added' &&
    breaks(subtract(hold.start.figure, end.figure), perceptibleOf(plan, gauge, stage.part))
  )
    return no(
      'not-restored',
      `Bring it back to ${showExact(hold.start.figure)} first and log the water that takes: the make-up counts up to the starting pressure.`,
    );
  if (elapsed.apart) {
    hold.clockMark = clockWords(elapsed.apart);
    mark(state, hold.clockMark);
  }
  const unknown = boundMissing(plan, state, stage, hold);
  if (unknown) return no('missing', unknown);
  const read = tappedEnd(plan, state, visit, stage, hold, end, gauge);
  if ('code' in read) return read;
  if (early && event.short) hold.short = event.short;
  hold.end = read;
  hold.endedAt = at;
  hold.judgement = judged(
    plan,
    state,
    stage,
    hold,
    factsOf(plan, state, stage, hold, read.figure, elapsed.ms),
  );
  if (hold.judgement.outcome === 'small-fall') {
    state.smallFalls += 1;
    state.fails += 1;
    state.passes = 0;
  }
  if (stage.kind === 'hold') keep(state, stage.keeps, end);
  if (hold.judgement.outcome === 'rose') state.rises += 1;
  if (stage.kind === 'hold') {
    follow(plan, state, confirmed(state, hold.judgement.outcome, stage.confirmPasses), at);
    return null;
  }
  if (hold.role === 'tightness')
    endCycle(plan, state, visit, stage as IsolateStage, hold.judgement.outcome, at);
  return null;
}

function keepReading(state: RunState, visit: Visit, event: EventOf<'reading'>, at: number): Refusal | null {
  const reading = readingFrom(event, at);
  if (!reading.late && !event.expects.startsWith(`${visit.ordinal}:`))
    return no(
      'wrong-stage',
      'This reading was meant for a stage that has ended. It is in the log; write it as a note if it matters.',
    );
  // a late entry belongs to the course that was standing when the gauge was read
  const home = reading.late
    ? ([...state.visits].reverse().find((v) => v.entered <= reading.readMoment) ?? visit)
    : visit;
  home.readings.push(reading);
  return null;
}

function topUp(
  plan: Plan,
  state: RunState,
  visit: Visit,
  event: EventOf<'top-up'>,
  at: number,
): Refusal | null {
  const hold = runningHold(state);
  const entry = {
    before: event.before,
    after: event.after,
    ...(event.added ? { added: event.added } : {}),
    at,
    byName: event.byName,
  };
  if (hold && roleOf(hold.role).measures === 'added' && !event.added)
    return no('added', 'Type how much water it took: the make-up is what this hold measures.');
  if (event.added && (UNITS[event.added.unit].dimension !== 'volume' || event.added.digits < 0))
    return no('added', 'The water added is a volume of zero or more.');
  if (hold && roleOf(hold.role).adjusts) {
    hold.topUps.push(entry);
    // a settling period that keeps its start keeps the figure it was last brought to
    const own = hold.role === 'settle' ? stageOf(plan, visit) : null;
    if (own?.kind === 'hold' && own.keepsStart)
      keep(state, own.keepsStart, {
        ...hold.start,
        id: event.id,
        at,
        readMoment: at,
        figure: event.after,
        clock: clockPoint(event),
      });
    return null;
  }
  if (hold) {
    hold.topUps.push(entry);
    breakHold(state, 'pressure was re-adjusted during the hold', at);
    returnToFill(plan, state, at);
    return null;
  }
  if (stepOf(state) === 'start' && visit.kind === 'hold') {
    // re-adjusting before the judged hold starts: settle again
    const settle = [...state.visits].reverse().find((v) => v.holds.some((h) => h.role === 'settle'));
    state.notes.push({
      at,
      byName: event.byName,
      text: `Re-adjusted from ${showExact(event.before)} to ${showExact(event.after)} before the hold`,
      kind: 'note',
    });
    const own = stageOf(plan, visit);
    // water put in before it is measured: a section that loses it all the time can be measured all the same
    const measures = own.kind === 'hold' && roleOf(own.role).measures !== undefined;
    if (settle && !(plan.format > 1 && measures)) {
      visit.left = at;
      visit.split = 're-adjusted before the start';
      enter(plan, state, settle.stage, at);
    }
    return null;
  }
  return no('no-hold', 'There is nothing to re-adjust in this step.');
}

function witness(state: RunState, stage: Stage, event: EventOf<'witness'>, at: number): Refusal | null {
  const hold = runningHold(state);
  if (stage.kind !== 'hold' || !stage.witness || !hold)
    return no('no-hold', 'The second place is looked at while the level is held.');
  if (event.when === 'start' && hold.witness.start) return no('overtaken', 'The start was already noted.');
  hold.witness[event.when] = { seen: event.seen, text: event.text, at };
  return null;
}

export const holdCourse: Course = (visit) => {
  const hold = visit.holds[visit.holds.length - 1];
  if (!hold) return { word: visit.split ? 'void' : 'open', text: visit.split ?? '' };
  if (hold.broken) return { word: 'void', text: holdText(hold) };
  const outcome = hold.judgement?.outcome ?? 'open';
  return {
    word: hold.judgement?.rate?.title ?? roleOf(hold.role).words[outcome] ?? outcome,
    text: holdText(hold),
  };
};
