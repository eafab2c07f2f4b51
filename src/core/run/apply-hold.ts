/** Events of filling and holding: fill, start, end, reading, top-up, skip. */
import { PIPE_LIST_UNCERTAINTY } from '@/core/adequacy/rate';
import type { Gauge } from '@/core/instrument/gauge';
import type { HoldStage, IsolateStage, Stage } from '@/core/pack/types';
import { acceptOf, inBand, ruleOf, type Plan } from '@/core/plan/plan';
import { known, wanted } from '@/core/plan/formulas';
import { enteredCaps } from '@/core/plan/weakest';
import {
  breaks,
  compare,
  magnitude,
  parseWithUnit,
  showExact,
  subtract,
  toNumber,
  type Exact,
} from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import {
  judgeDecay,
  judgeFloor,
  judgeLetBy,
  judgeLockUp,
  judgeMakeUp,
  judgeRate,
  judgeSettle,
  judgeStrength,
  judgeStretch,
  judgeTightness,
  type HoldFacts,
  type Judgement,
} from '@/core/verdict/judge';
import { fallLimit, lowestOf, madeUp, makeUpLimit } from './water-limits';
import { holdSpec, stageBand, volumeOf } from './hold-spec';
import type { RunEvent } from './events';
import type { Cycle, Hold, Reading, RunState, Visit } from './state';
import {
  contextOf,
  currentCycle,
  gaugeOf,
  letByLimit,
  perceptibleOf,
  permittedDrop,
  runningHold,
  stageOf,
  stepOf,
  temperatureNeeded,
} from './read';
import { breakHold, enter, follow, no, returnToFill, type Refusal } from './transition';

/** An entry older than this when saved is late: kept, marked, never the start or end of a judged hold. House figure. */
export const LATE_AFTER_MS = 60_000;

/** Disagreement of wall and monotonic clock that is printed. */
export const CLOCK_TOLERANCE_MS = 2_000;

export const mark = (state: RunState, text: string) => {
  if (!state.clockMarks.includes(text)) state.clockMarks.push(text);
};

/** Remembers a reading by name: later bands and holds refer to it. */
export function keep(state: RunState, name: string | undefined, reading: Reading): void {
  if (!name) return;
  state.kept[name] = reading.figure;
  state.keptReadings[name] = reading;
}

export const readingFrom = (
  event: Extract<
    RunEvent,
    { kind: 'fill' | 'hold-start' | 'hold-end' | 'reading' | 'pump-step' | 'pump-look' | 'draw-down' }
  >,
  at: number,
): Reading => ({
  id: event.id,
  at,
  readMoment: event.readAt + event.offset,
  figure: event.figure,
  byName: event.byName,
  late: (event.kind === 'reading' && event.late === true) || event.at - event.readAt > LATE_AFTER_MS,
  same: event.same === true,
  streamed: event.streamed === true,
});

/** What a reading above the weakest part in scope says; '' while it is not above it. */
export function passedCap(plan: Plan, figure: Exact): string {
  const [weakest] = enteredCaps(plan);
  if (!weakest || UNITS[weakest.most.unit].dimension !== UNITS[figure.unit].dimension) return '';
  const most = wanted(weakest.most, figure.unit, 'down');
  return compare(figure, most) > 0
    ? `${showExact(figure)} is above what ${weakest.name} permits (${showExact(weakest.most)}). Release now, slowly; look at it before you raise again.`
    : '';
}

export function fill(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Extract<RunEvent, { kind: 'fill' }>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'fill' && stage.kind !== 'isolate-and-repeat')
    return no('wrong-step', 'This stage raises nothing.');
  const found = stageBand(plan, state, stage);
  if ('missing' in found) return no('missing', found.missing);
  const band = found.value;
  const reading = readingFrom(event, at);
  visit.fills.push(reading);
  if (event.figure.unit !== band.low.unit) return no('unit', 'The gauge and the rule use different units.');
  if (!inBand(event.figure, band)) {
    const over = compare(event.figure, band.high) > 0;
    const advice =
      (stage.kind === 'fill' && (over ? stage.over : stage.under)) ||
      (over ? 'Bleed down and raise again.' : 'Raise a little more.');
    return no(
      over ? 'over-band' : 'under-band',
      `${showExact(event.figure)} is ${over ? 'above' : 'below'} the band ${showExact(band.low)} to ${showExact(band.high)}. ${advice}`,
    );
  }
  const cap = passedCap(plan, event.figure);
  if (cap) return no('above-weakest', cap);
  if (stage.kind === 'fill') {
    const late =
      stage.within !== undefined && reading.readMoment > visit.entered + stage.within.minutes * 60_000;
    keep(state, stage.keeps, reading);
    if (
      stage.finding &&
      compare(event.figure, wanted(parseWithUnit(stage.finding.above), event.figure.unit, 'up')) > 0
    )
      state.findings.push(`${showExact(event.figure)}: ${stage.finding.text}`);
    if (stage.leaves && state.gauge)
      state.watch = { figure: event.figure, gauge: state.gauge, at: reading.readMoment };
    follow(plan, state, late ? 'late' : 'in-band', at);
  } else currentCycle(visit)!.fill = reading;
  return null;
}

export function startHold(
  plan: Plan,
  state: RunState,
  visit: Visit,
  event: Extract<RunEvent, { kind: 'hold-start' }>,
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
  const hold: Hold = {
    role: spec.role,
    minutes: spec.minutes,
    rule: spec.times.rule,
    gauge: judging.id,
    start,
    startedAt: at,
    startClock: { mono: event.mono, pageLoad: event.pageLoad, offset: event.offset },
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

export function endHold(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Extract<RunEvent, { kind: 'hold-end' }>,
  at: number,
): Refusal | null {
  const hold = runningHold(state);
  const gauge = gaugeOf(plan, state);
  if (!hold || !gauge) return no('no-hold', 'No hold is running.');
  const end = readingFrom(event, at);
  if (end.late) return no('late-end', 'An earlier reading cannot end a hold. Read the gauge now.');
  const toGo = hold.startedAt + hold.rule * 60000 - end.readMoment;
  const decided = hold.role === 'leak-rate' && worstClassCertain(plan, state, stage, hold, end);
  if (toGo > 0 && !decided)
    return no(
      'too-early',
      `${Math.ceil(toGo / 1000)} s too early. Read the gauge when the time has run out.`,
    );
  const early = !decided && end.readMoment < hold.startedAt + hold.minutes * 60000;
  if (early && !event.short)
    return no(
      'shortened',
      `The rule's ${hold.rule} min have passed, the ${hold.minutes} min planned have not. Wait, or end it now with a reason that prints.`,
    );
  if (hold.role === 'settle') {
    const refused = unsettled(plan, state, visit, stage, hold, end, gauge);
    if (refused) return refused;
  }
  if (temperatureNeeded(state, hold))
    return no(
      'temperature-needed',
      'This hold repeats an unexplained rise: log the pipe temperature at its start and end first, then read the gauge.',
    );
  if (barometerNeeded(stage, hold))
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
    hold.role === 'make-up' &&
    breaks(subtract(hold.start.figure, end.figure), perceptibleOf(plan, gauge, stage.part))
  )
    return no(
      'not-restored',
      `Bring it back to ${showExact(hold.start.figure)} first and log the water that takes: the make-up counts up to the starting pressure.`,
    );
  const monoGap = event.mono - hold.startClock.mono - (at - hold.startedAt);
  if (event.pageLoad === hold.startClock.pageLoad && Math.abs(monoGap) > CLOCK_TOLERANCE_MS) {
    hold.clockMark = `The device's clocks disagreed by ${(Math.abs(monoGap) / 1000).toFixed(1)} s over this hold.`;
    mark(state, hold.clockMark);
  }
  if (early && event.short) hold.short = event.short;
  hold.end = end;
  hold.endedAt = at;
  const { start: t0, end: t1 } = hold.temperature;
  const { start: b0, end: b1 } = hold.barometer;
  const facts: HoldFacts = {
    start: hold.start.figure,
    end: end.figure,
    elapsedMs: end.readMoment - hold.startedAt,
    ...(t0 && t1 ? { temperature: [t0, t1] as const } : {}),
    ...(b0 && b1 ? { barometer: [b0, b1] as const } : {}),
  };
  hold.judgement = judged(plan, state, stage, hold, facts);
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

/**
 * Whether a fall already puts the whole 95 % interval into the worst class: waiting for a finer figure would only let
 * more gas out.
 */
function worstClassCertain(plan: Plan, state: RunState, stage: Stage, hold: Hold, end: Reading): boolean {
  const classes = ruleOf(plan, stage.part).classes ?? [];
  const bound = classes[classes.length - 2]?.below;
  const elapsedMs = end.readMoment - hold.startedAt;
  if (!bound || elapsedMs <= 0) return false;
  const rate = judged(plan, state, stage, hold, {
    start: hold.start.figure,
    end: end.figure,
    elapsedMs,
  }).rate;
  const figure = parseWithUnit(bound);
  return rate !== undefined && rate.low >= convert(toNumber(figure), figure.unit, 'l/h');
}

/** What keeps a settling period from ending: outside the band, or (where it must be steady) still moving. */
function unsettled(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  hold: Hold,
  end: Reading,
  gauge: Gauge,
): Refusal | null {
  if (stage.kind !== 'hold' && stage.kind !== 'isolate-and-repeat') return null;
  const found = stageBand(plan, state, stage);
  const band = 'missing' in found ? null : found.value;
  if (band && !inBand(end.figure, band))
    return no(
      'out-of-band',
      `${showExact(end.figure)} is outside the band ${showExact(band.low)} to ${showExact(band.high)}. Re-adjust into it (it is logged), then read again.`,
    );
  if (stage.kind !== 'hold' || stage.until !== 'steady') return null;
  const window = steadyWindow(hold.minutes);
  const lastTopUp = hold.topUps[hold.topUps.length - 1];
  // each refused end reading stays as a reading, so that the next one can be compared with it
  const earlier = [
    { figure: hold.start.figure, at: hold.start.readMoment },
    ...visit.readings
      .filter((r) => !r.late)
      .map((r) => ({ figure: (r.corrected ?? r).figure, at: r.readMoment })),
    ...(lastTopUp ? [{ figure: lastTopUp.after, at: lastTopUp.at }] : []),
  ]
    .filter((r) => r.at >= (lastTopUp?.at ?? 0) && end.readMoment - r.at >= window)
    .sort((a, b) => a.at - b.at)
    .pop();
  visit.readings.push(end);
  if (!earlier)
    return no(
      'not-steady-yet',
      `Steady is shown by two readings ${window / 1000} s apart with no re-adjustment between them. This one is kept; read again in ${window / 1000} s.`,
    );
  const moved = magnitude(subtract(end.figure, earlier.figure));
  if (breaks(moved, perceptibleOf(plan, gauge, stage.part)))
    return no(
      'not-steady',
      `It still moves: ${showExact(moved)} in the last ${Math.round((end.readMoment - earlier.at) / 1000)} s. This reading is kept; wait and read again.`,
    );
  return null;
}
/** Window in which a settling pressure must stand still: the larger of 60 s and a tenth of the period, ms. General rules of judging. */
/** The window over which a settling period must stand still, ms: max(60 s, a tenth of it). */
export const steadyWindow = (minutes: number): number => Math.max(60_000, (minutes * 60_000) / 10);

/** Whether a long hold still lacks the barometer its pack asks for. */
export const barometerNeeded = (stage: Stage, hold: Hold): boolean =>
  stage.kind === 'hold' &&
  stage.barometerOver !== undefined &&
  hold.minutes > stage.barometerOver &&
  !hold.barometer.none &&
  !(hold.barometer.start && hold.barometer.end);

/** Judges a finished hold by its role. */
function judged(plan: Plan, state: RunState, stage: Stage, hold: Hold, facts: HoldFacts): Judgement {
  const gauge = gaugeOf(plan, state)!;
  const part = stage.part;
  const perceptible = perceptibleOf(plan, gauge, part);
  const own = stage.kind === 'hold' ? stage : null;
  const context = contextOf(plan, state, part);
  switch (hold.role) {
    case 'settle':
      return judgeSettle(facts, perceptible);
    case 'let-by':
      return judgeLetBy(facts, perceptible, letByLimit(plan, own as HoldStage, gauge));
    case 'strength':
      return judgeStrength(facts, perceptible);
    case 'lock-up':
    case 'flow':
      return judgeLockUp(facts, perceptible, {
        low: acceptOf(own?.accept?.low, 'low', context, plan, part),
        high: acceptOf(own?.accept?.high, 'high', context, plan, part),
        vent: acceptOf(own?.accept?.vent, 'low', context, plan, part),
        creep: hold.role === 'lock-up',
      });
    case 'leak-rate': {
      const rule = ruleOf(plan, part);
      return judgeRate(facts, perceptible, {
        classes: rule.classes ?? [],
        volume: volumeOf(plan, state, part),
        volumeUncertainty: state.volume?.uncertainty ?? PIPE_LIST_UNCERTAINTY,
        resolution: gauge.resolution,
        working: plan.system.workingPressure,
        temperature: (minutes) => context.temperature(minutes),
      });
    }
    case 'floor':
      return judgeFloor(facts, perceptible, lowestOf(state, hold, facts.end), {
        low: acceptOf(own?.accept?.low, 'low', context, plan, part)!,
        high: acceptOf(own?.accept?.high, 'high', context, plan, part),
      });
    case 'stretch':
      return judgeStretch(facts, perceptible, fallLimit(own!, gauge));
    case 'decay':
      return judgeDecay(facts, perceptible);
    case 'make-up':
      return judgeMakeUp(
        facts,
        perceptible,
        madeUp(hold),
        makeUpLimit(plan, state, own!, facts),
        lowestOf(state, hold, facts.end),
        acceptOf(own?.accept?.low, 'low', context, plan, part)!,
      );
    case 'tightness':
      if (own?.witness && hold.witness.end?.seen === 'fell')
        return {
          ...judgeTightness(facts, { perceptible, permitted: null, minutes: hold.minutes, lateAfter: 0 }),
          outcome: 'witness',
        };
      return judgeTightness(facts, {
        perceptible,
        permitted: own?.allowance ? permittedDrop(plan, state, part) : null,
        minutes: hold.minutes,
        lateAfter: own?.lateAfter ?? 0,
      });
  }
}

/** Counts failing and passing holds: a pass after fails must be confirmed by as many passes in a row as the rule says. */
export function confirmed(state: RunState, outcome: string, needed = 1): string {
  if (outcome === 'beyond' || outcome === 'moved') {
    state.fails += 1;
    state.passes = 0;
    return outcome;
  }
  if (outcome !== 'nil' && outcome !== 'allowance') return outcome;
  if (!state.fails) return outcome;
  state.passes += 1;
  return state.passes < needed ? 'confirm' : outcome;
}

export function endCycle(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: IsolateStage,
  judged: string,
  at: number,
): void {
  const cycle = currentCycle(visit)!;
  const outcome = judged === 'beyond' || judged === 'allowance' ? 'moved' : judged;
  cycle.outcome = outcome;
  const again = (subject: Pick<Cycle, 'subject' | 'name' | 'positions'>) => visit.cycles.push({ ...subject });
  if (stage.subjects === 'pipework') {
    if (confirmed(state, outcome, 2) === 'confirm')
      again({ subject: cycle.subject, name: cycle.name, positions: true });
    else follow(plan, state, outcome, at);
    return;
  }
  const index = plan.system.appliances.findIndex((a) => a.id === cycle.subject);
  const next = plan.system.appliances[index + 1];
  if (next) again({ subject: next.id, name: next.name, positions: false });
  else follow(plan, state, 'done', at);
}

export function keepReading(
  state: RunState,
  visit: Visit,
  event: Extract<RunEvent, { kind: 'reading' }>,
  at: number,
): Refusal | null {
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

export function topUp(
  plan: Plan,
  state: RunState,
  visit: Visit,
  event: Extract<RunEvent, { kind: 'top-up' }>,
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
  if (hold?.role === 'make-up' && !event.added)
    return no('added', 'Type how much water it took: the make-up is what this hold measures.');
  if (event.added && (UNITS[event.added.unit].dimension !== 'volume' || event.added.digits < 0))
    return no('added', 'The water added is a volume of zero or more.');
  if (hold?.role === 'settle' || hold?.role === 'make-up') {
    hold.topUps.push(entry);
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
    if (settle) {
      visit.left = at;
      visit.split = 're-adjusted before the start';
      enter(plan, state, settle.stage, at);
    }
    return null;
  }
  return no('no-hold', 'There is nothing to re-adjust in this step.');
}

export function skip(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Extract<RunEvent, { kind: 'skip' }>,
  at: number,
): Refusal | null {
  if (stage.kind === 'hold' && stage.skip) {
    const reason = stage.skip.reasons.find((r) => r.key === event.reason);
    if (!reason) return no('reason', 'Choose why this stage is skipped.');
    if (!event.text.trim()) return no('reason', 'Describe it in a few words; it is printed.');
    breakHold(state, 'skipped', at);
    visit.skipped = { reason: reason.text, text: event.text, sound: reason.sound };
    follow(plan, state, 'skipped', at);
    return null;
  }
  if (stage.optional) {
    if (stage.kind !== 'isolate-and-repeat' && !event.text.trim())
      return no('reason', 'Say in a few words why it is left out; it is printed.');
    breakHold(state, 'skipped', at);
    visit.skipped = { reason: 'Not done', text: event.text, sound: true };
    follow(plan, state, 'skipped', at);
    return null;
  }
  return no('no-skip', 'This stage cannot be skipped.');
}
