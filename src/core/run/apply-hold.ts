/** Events of filling and holding: fill, start, end, reading, top-up, skip. */
import type { HoldStage, IsolateStage, Stage } from '@/core/pack/types';
import { bandOf, inBand, type Plan } from '@/core/plan/plan';
import { compare, showExact } from '@/core/quantity/exact';
import { judgeLetBy, judgeSettle, judgeTightness } from '@/core/verdict/judge';
import type { RunEvent } from './events';
import type { Cycle, Hold, Reading, RunState, Visit } from './state';
import {
  currentCycle,
  gaugeOf,
  holdEnds,
  holdSpec,
  letByLimit,
  perceptibleOf,
  permittedDrop,
  runningHold,
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

export const readingFrom = (
  event: Extract<RunEvent, { kind: 'fill' | 'hold-start' | 'hold-end' | 'reading' }>,
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
  const band = bandOf(stage.band);
  const reading = readingFrom(event, at);
  visit.fills.push(reading);
  if (event.figure.unit !== band.low.unit) return no('unit', 'The gauge and the rule use different units.');
  if (!inBand(event.figure, band)) {
    const over = compare(event.figure, band.high) > 0;
    return no(
      over ? 'over-band' : 'under-band',
      `${showExact(event.figure)} is ${over ? 'above' : 'below'} the band ${showExact(band.low)} to ${showExact(band.high)}. ${over ? (stage.kind === 'fill' && stage.over) || 'Bleed down and raise again.' : 'Raise a little more.'}`,
    );
  }
  if (stage.kind === 'fill') follow(plan, state, 'in-band', at);
  else currentCycle(visit)!.fill = reading;
  return null;
}

export function startHold(
  plan: Plan,
  state: RunState,
  visit: Visit,
  event: Extract<RunEvent, { kind: 'hold-start' }>,
  at: number,
): Refusal | null {
  const spec = holdSpec(plan, state);
  if (!spec || stepOf(state) !== 'start') return no('wrong-step', 'There is no hold to start here.');
  if (!state.gauge) return no('no-gauge', 'Choose and zero the gauge first.');
  const start = readingFrom(event, at);
  if (start.late) return no('late-start', 'The start reading is too old. Read the gauge now and start.');
  if (!inBand(event.figure, spec.band))
    return no(
      'out-of-band',
      `${showExact(event.figure)} is outside the band ${showExact(spec.band.low)} to ${showExact(spec.band.high)}. A hold starts only inside it: re-adjust first.`,
    );
  const hold: Hold = {
    role: spec.role,
    minutes: spec.minutes,
    start,
    startedAt: at,
    startClock: { mono: event.mono, pageLoad: event.pageLoad, offset: event.offset },
    topUps: [],
    temperature: {},
  };
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
  const toGo = holdEnds(hold) - end.readMoment;
  if (toGo > 0)
    return no(
      'too-early',
      `${Math.ceil(toGo / 1000)} s too early. Read the gauge when the time has run out.`,
    );
  const band = holdSpec(plan, state)!.band;
  if (hold.role === 'settle' && !inBand(event.figure, band))
    return no(
      'out-of-band',
      `${showExact(event.figure)} is outside the band ${showExact(band.low)} to ${showExact(band.high)}. Re-adjust into it (it is logged), then read again.`,
    );
  if (temperatureNeeded(state, hold))
    return no(
      'temperature-needed',
      'This hold repeats an unexplained rise: log the pipe temperature at its start and end first, then read the gauge.',
    );
  const monoGap = event.mono - hold.startClock.mono - (at - hold.startedAt);
  if (event.pageLoad === hold.startClock.pageLoad && Math.abs(monoGap) > CLOCK_TOLERANCE_MS) {
    hold.clockMark = `The device's clocks disagreed by ${(Math.abs(monoGap) / 1000).toFixed(1)} s over this hold.`;
    mark(state, hold.clockMark);
  }
  hold.end = end;
  hold.endedAt = at;
  const { start: t0, end: t1 } = hold.temperature;
  const facts = {
    start: hold.start.figure,
    end: end.figure,
    elapsedMs: end.readMoment - hold.startedAt,
    ...(t0 && t1 ? { temperature: [t0, t1] as const } : {}),
  };
  const perceptible = perceptibleOf(plan, gauge);
  if (hold.role === 'settle') hold.judgement = judgeSettle(facts, perceptible);
  else if (hold.role === 'let-by')
    hold.judgement = judgeLetBy(facts, perceptible, letByLimit(plan, stage as HoldStage, gauge));
  else {
    const permitted = stage.kind === 'hold' && stage.allowance ? permittedDrop(plan, state) : null;
    hold.judgement = judgeTightness(facts, {
      perceptible,
      permitted,
      minutes: hold.minutes,
      lateAfter: (stage.kind === 'hold' && stage.lateAfter) || 0,
    });
  }
  if (hold.judgement.outcome === 'rose') state.rises += 1;
  if (stage.kind === 'hold') {
    follow(plan, state, confirmed(state, hold.judgement.outcome, stage.confirmPasses), at);
    return null;
  }
  if (hold.role === 'tightness')
    endCycle(plan, state, visit, stage as IsolateStage, hold.judgement.outcome, at);
  return null;
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
  const entry = { before: event.before, after: event.after, at, byName: event.byName };
  if (hold?.role === 'settle') {
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
  if (stage.kind === 'isolate-and-repeat' && stage.optional) {
    breakHold(state, 'skipped', at);
    visit.skipped = { reason: 'Not done', text: event.text, sound: true };
    follow(plan, state, 'skipped', at);
    return null;
  }
  return no('no-skip', 'This stage cannot be skipped.');
}
