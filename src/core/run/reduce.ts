import { gaugeFit, perceptibleMovement, type Gauge } from '@/core/instrument/gauge';
import { edgesOf } from '@/core/pack/types';
import type {
  CheckItem,
  ChecksStage,
  Edge,
  HoldStage,
  IsolateStage,
  PackLimit,
  Stage,
} from '@/core/pack/types';
import { allowanceOf, bandOf, caseOf, fitTarget, inBand, type Plan } from '@/core/plan/plan';
import {
  breaks,
  compare,
  exact,
  magnitude,
  parseWithUnit,
  showExact,
  type Exact,
  type Limit,
} from '@/core/quantity/exact';
import { gaugeClass, type GaugeClass } from '@/core/instrument/gauge';
import { judgeLetBy, judgeSettle, judgeTightness } from '@/core/verdict/judge';
import { momentOf, type PlacedEvent, type RunEvent } from './events';
import type { Cycle, Hold, Reading, RunState, Visit } from './state';

/** An entry older than this when saved is late: kept, marked, never the start or end of a judged hold. House figure. */
export const LATE_AFTER_MS = 60_000;
/** Disagreement of wall and monotonic clock that is printed. */
export const CLOCK_TOLERANCE_MS = 2_000;

/** Why an event had no effect. `code` 'overtaken': the step it was meant for had already ended. */
export interface Refusal {
  readonly code: string;
  readonly text: string;
}

/**
 * Derives the state of a run from its log. Pure: the same events in any order, with any repeats, give the same
 * state. Placed events come first, by position; unsent ones last, by device and its sequence.
 */
export function reduce(plan: Plan, events: readonly PlacedEvent[]): RunState {
  const state: RunState = {
    phase: 'running',
    visits: [],
    gauge: null,
    debts: [],
    finding: null,
    ending: null,
    denied: [],
    repeats: 0,
    fails: 0,
    passes: 0,
    rises: 0,
    taken: {},
    notes: [],
    signatures: [],
    withoutEffect: [],
    clockMarks: [],
    events: 0,
    lastAt: 0,
  };
  const began = Date.parse(plan.made.at);
  enter(plan, state, plan.procedure.first, began);
  for (const event of inOrder(events)) {
    const refusal = apply(plan, state, event);
    if (refusal) state.withoutEffect.push({ id: event.id, ...refusal });
    if (Math.abs(event.offset) > LATE_AFTER_MS)
      mark(
        state,
        `The clock of a device stood ${clockWords(event.offset)} the server; server time was used for the holds, both are kept.`,
      );
    state.events += 1;
    state.lastAt = Math.max(state.lastAt, momentOf(event));
  }
  return state;
}

/** The log in the order it counts: by position, the unsent last; each id once. */
export function inOrder(events: readonly PlacedEvent[]): PlacedEvent[] {
  const byId = new Map<string, PlacedEvent>();
  for (const e of events)
    if (!byId.has(e.id) || (byId.get(e.id)!.position === undefined && e.position !== undefined))
      byId.set(e.id, e);
  return [...byId.values()].sort(
    (a, b) =>
      (a.position ?? Infinity) - (b.position ?? Infinity) ||
      compareText(a.device, b.device) ||
      a.deviceSeq - b.deviceSeq ||
      compareText(a.id, b.id) ||
      0,
  );
}
const compareText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

const clockWords = (offset: number) => {
  const minutes = Math.round(Math.abs(offset) / 60000);
  return `${minutes} min ${offset > 0 ? 'behind' : 'ahead of'}`;
};
const mark = (state: RunState, text: string) => {
  if (!state.clockMarks.includes(text)) state.clockMarks.push(text);
};

export const currentVisit = (state: RunState): Visit | null =>
  state.phase === 'running' ? (state.visits[state.visits.length - 1] ?? null) : null;
export const stageOf = (plan: Plan, visit: Visit): Stage => plan.procedure.stages[visit.stage]!;
export const gaugeOf = (plan: Plan, state: RunState): Gauge | null =>
  plan.gauges.find((g) => g.id === state.gauge) ?? null;
export const currentCycle = (visit: Visit): Cycle | null => visit.cycles[visit.cycles.length - 1] ?? null;

export type Step = 'answer' | 'zero' | 'fill' | 'start' | 'run' | 'choose' | 'positions' | 'over';
/** What the current stage waits for. */
export function stepOf(state: RunState): Step {
  const visit = currentVisit(state);
  if (!visit) return 'over';
  switch (visit.kind) {
    case 'checks':
      return 'answer';
    case 'zero':
      return 'zero';
    case 'fill':
      return 'fill';
    case 'observe':
      return 'choose';
    case 'hold':
      return runningHold(state) ? 'run' : 'start';
    case 'isolate-and-repeat': {
      const cycle = currentCycle(visit);
      if (!cycle?.positions) return 'positions';
      if (!cycle.fill) return 'fill';
      return runningHold(state) ? 'run' : 'start';
    }
  }
}

/** The hold that is being timed now, if one is. */
export function runningHold(state: RunState): Hold | null {
  const visit = currentVisit(state);
  if (!visit) return null;
  const open = (h?: Hold) => (h && !h.end && !h.broken ? h : null);
  if (visit.kind === 'isolate-and-repeat') {
    const cycle = currentCycle(visit);
    return open(cycle?.settle) ?? open(cycle?.hold);
  }
  return open(visit.holds[visit.holds.length - 1]);
}
/** Whether a judged hold still lacks the temperatures that the repeat after an unexplained rise needs. */
export const temperatureNeeded = (state: RunState, hold: Hold): boolean =>
  hold.role === 'tightness' && state.rises > 0 && !(hold.temperature.start && hold.temperature.end);
/** When the running hold may be read at its end, ms on the server's line. */
export const holdEnds = (hold: Hold): number => hold.startedAt + hold.minutes * 60000;

/** The name of the present step: what a transition event must carry in `expects`. */
export function expectation(state: RunState): string {
  const visit = currentVisit(state);
  if (!visit) return state.phase;
  const tries =
    visit.holds.length + visit.cycles.reduce((n, c) => n + (c.settle ? 1 : 0) + (c.hold ? 1 : 0) + 1, 0);
  return `${visit.ordinal}:${visit.stage}:${stepOf(state)}:${tries}`;
}

/** What the next or running hold is: its role, band and minutes; null where the stage holds nothing. */
export function holdSpec(
  plan: Plan,
  state: RunState,
): { role: Hold['role']; band: { low: Exact; high: Exact }; minutes: number; source: string } | null {
  const visit = currentVisit(state);
  if (!visit) return null;
  const stage = stageOf(plan, visit);
  if (stage.kind === 'hold')
    return {
      role: stage.role,
      band: bandOf(stage.band),
      minutes: stage.minutes,
      source: stage.minutesSource,
    };
  if (stage.kind === 'isolate-and-repeat') {
    const settled = currentCycle(visit)?.settle?.judgement !== undefined;
    return {
      role: settled ? 'tightness' : 'settle',
      band: bandOf(stage.band),
      minutes: settled ? stage.minutes : stage.settleMinutes,
      source: stage.minutesSource,
    };
  }
  return null;
}

/** The check lines of a stage for this plan, spread over the appliances they ask about. */
export function checkLines(
  plan: Plan,
  stage: ChecksStage,
): { id: string; item: CheckItem; subject?: { id: string; name: string; place: string } }[] {
  return stage.items.flatMap((item) => {
    if (!item.each) return [{ id: item.key, item }];
    if (!caseOf(plan).appliances) return [];
    return plan.system.appliances
      .filter((a) => (item.each === 'pilot' ? a.hasPilot : item.each === 'lid' ? a.hasLid : true))
      .map((a) => ({ id: `${item.key}/${a.id}`, item, subject: { id: a.id, name: a.name, place: a.place } }));
  });
}
/** Lines still open. */
export const openLines = (plan: Plan, visit: Visit) => {
  const stage = stageOf(plan, visit) as ChecksStage;
  return checkLines(plan, stage).filter(
    (l) => !visit.answers[l.id] || visit.answers[l.id]!.answer === 'undone',
  );
};

/** Smallest perceptible movement of the judging gauge in this procedure. */
export function perceptibleOf(plan: Plan, gauge: Gauge): Limit {
  return perceptibleMovement(gauge, limitsOf(plan.procedure.perceptible));
}
const limitsOf = (table: Partial<Record<GaugeClass, PackLimit>>): Partial<Record<GaugeClass, Limit>> =>
  Object.fromEntries(
    Object.entries(table).map(([k, l]) => [
      k,
      { value: parseWithUnit(l.value), broken: l.broken, source: l.source },
    ]),
  );

/** The limit of a let-by hold for this gauge, with the plan's answer to how equality counts. */
export function letByLimit(plan: Plan, stage: HoldStage, gauge: Gauge): Limit {
  const own = limitsOf(stage.limit ?? {})[gaugeClass(gauge)] ?? perceptibleOf(plan, gauge);
  const answer = stage.comparatorChoice ? plan.choices[stage.comparatorChoice] : undefined;
  return answer === 'at' || answer === 'above' ? { ...own, broken: answer } : own;
}
/** The drop permitted in this run as far as its answers allow: null = nil. */
export function permittedDrop(plan: Plan, state: RunState): Limit | null {
  return state.denied.length ? null : allowanceOf(plan).limit;
}

function enter(plan: Plan, state: RunState, key: string, at: number): void {
  const stage = plan.procedure.stages[key]!;
  const visit: Visit = {
    stage: key,
    kind: stage.kind,
    title: stage.title,
    ordinal: state.visits.length + 1,
    entered: at,
    answers: {},
    zeros: [],
    fills: [],
    holds: [],
    cycles: [],
    readings: [],
    trace: [],
  };
  if (stage.kind === 'isolate-and-repeat') visit.cycles.push(firstCycle(plan, stage));
  state.visits.push(visit);
}
function firstCycle(plan: Plan, stage: IsolateStage): Cycle {
  if (stage.subjects === 'pipework') return { subject: 'pipework', name: 'Pipework', positions: false };
  const first = plan.system.appliances[0];
  return { subject: first?.id ?? 'none', name: first?.name ?? 'No appliance', positions: false };
}

/** Ends the present stage with an outcome and follows the pack's graph. */
function follow(plan: Plan, state: RunState, outcome: string, at: number): void {
  const visit = currentVisit(state)!;
  const stage = stageOf(plan, visit);
  visit.left = at;
  visit.outcome = outcome;
  const key = `${visit.stage}.${outcome}`;
  const times = (state.taken[key] = (state.taken[key] ?? 0) + 1);
  const edge = edgesOf(stage.on[outcome]).find(
    (e: Edge) =>
      (e.upTo === undefined || times <= e.upTo) &&
      (e.whileRepeats === undefined || state.repeats < e.whileRepeats),
  )!;
  if (edge.repeat) state.repeats += 1;
  if (edge.resets) {
    state.repeats = 0;
    state.fails = 0;
    state.passes = 0;
  }
  if (edge.finds)
    state.finding = {
      finding: edge.finds,
      ...(edge.because ? { because: edge.because } : {}),
      stage: visit.stage,
      outcome,
      visit: visit.ordinal,
    };
  if (edge.close) close(state, at, 'graph');
  else enter(plan, state, edge.to!, at);
}
function close(state: RunState, at: number, by: 'graph' | 'stop'): void {
  state.ending = { at, by };
  state.phase = state.debts.some((d) => !d.cleared) ? 'put-back' : 'signing';
}

function openDebts(state: RunState, keys: readonly string[] | undefined, at: number): void {
  for (const key of keys ?? [])
    if (!state.debts.some((d) => d.key === key && !d.cleared)) state.debts.push({ key, openedAt: at });
}

const no = (code: string, text: string): Refusal => ({ code, text });
const overtaken = () =>
  no(
    'overtaken',
    'This step had already been ended. Your entry is kept in the log; look at the present step.',
  );

/** Kinds that change the step and therefore must be meant for the present one. */
const TRANSITIONS = new Set([
  'check',
  'proceed',
  'zero',
  'fill',
  'hold-start',
  'hold-end',
  'observe',
  'skip',
  'top-up',
  'temperature',
]);

function apply(plan: Plan, state: RunState, event: RunEvent): Refusal | null {
  const at = momentOf(event);
  if (event.kind === 'note') {
    state.notes.push({ at, byName: event.byName, text: event.text, kind: 'note' });
    return null;
  }
  if (event.kind === 'stop') {
    if (state.phase !== 'running') return overtaken();
    const visit = currentVisit(state)!;
    breakHold(state, 'stopped', at);
    visit.left = at;
    visit.split = 'stopped';
    // stopping gives no result, but it does not take back a hold that was already judged not tight
    if (state.finding?.finding !== 'not-tight') state.finding = null;
    close(state, at, 'stop');
    return null;
  }
  if (event.kind === 'stop-reason') {
    if (state.ending?.by !== 'stop') return no('not-stopped', 'The run was not stopped.');
    if (state.ending.reason) return no('overtaken', 'The reason for stopping was already given.');
    state.ending.reason = event.reason;
    state.ending.text = event.text;
    return null;
  }
  if (event.kind === 'debt') return clearDebt(state, event, at);
  if (event.kind === 'signature') return sign(state, event, at);
  if (event.kind === 'stream') return stream(plan, state, event);
  if (event.kind === 'correction') return correct(state, event, at);
  const visit = currentVisit(state);
  if (!visit) return overtaken();
  if (TRANSITIONS.has(event.kind) && event.expects !== expectation(state)) return overtaken();
  const stage = stageOf(plan, visit);
  switch (event.kind) {
    case 'check':
      return check(plan, state, visit, stage, event, at);
    case 'proceed':
      if (stage.kind !== 'checks') return no('wrong-step', 'There is nothing to confirm here.');
      if (openLines(plan, visit).length) return no('unanswered', 'Answer every line first.');
      follow(plan, state, 'done', at);
      return null;
    case 'gauge':
      return chooseGauge(plan, state, visit, event.gauge, at);
    case 'zero':
      return zero(plan, state, visit, stage, event.figure, at);
    case 'fill':
      return fill(plan, state, visit, stage, event, at);
    case 'hold-start':
      return startHold(plan, state, visit, event, at);
    case 'hold-end':
      return endHold(plan, state, visit, stage, event, at);
    case 'reading':
      return keepReading(state, visit, event, at);
    case 'top-up':
      return topUp(plan, state, visit, event, at);
    case 'disturbance': {
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
    }
    case 'temperature': {
      const hold = runningHold(state);
      if (!hold) return no('no-hold', 'Log the temperature while a hold runs.');
      hold.temperature[event.when] = event.figure;
      return null;
    }
    case 'observe':
      if (stage.kind !== 'observe' || !stage.results.some((r) => r.key === event.result))
        return no('wrong-step', 'That is not one of the answers.');
      follow(plan, state, event.result, at);
      return null;
    case 'skip':
      return skip(plan, state, visit, stage, event, at);
  }
}

function check(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Extract<RunEvent, { kind: 'check' }>,
  at: number,
): Refusal | null {
  const id = event.subject ? `${event.item}/${event.subject}` : event.item;
  const answer = { answer: event.answer, at, byName: event.byName };
  if (stage.kind === 'isolate-and-repeat') return positions(plan, state, visit, stage, id, answer);
  if (stage.kind !== 'checks') return no('wrong-step', 'This stage has no check list.');
  const lines = checkLines(plan, stage);
  const line = lines.find((l) => l.id === id);
  if (!line) return no('unknown-line', 'This line is not in the list.');
  if (event.answer !== 'undone' && (event.answer === 'done') === (line.item.ask === true))
    return no(
      'answer',
      line.item.ask ? 'Answer this line with yes or no.' : 'This line is done or not done.',
    );
  if (line.item.ordered) {
    const before = lines.filter((l) => l.item.ordered);
    const open = before.find((l) => !visit.answers[l.id] || visit.answers[l.id]!.answer === 'undone');
    if (open && before.indexOf(open) < before.indexOf(line) && event.answer !== 'undone')
      return no('order', `First: ${open.item.text}.`);
  }
  visit.answers[id] = answer;
  if (line.item.denies) {
    state.denied = state.denied.filter((d) => d !== line.item.denies);
    if (event.answer === 'yes') state.denied.push(line.item.denies);
  }
  if (event.answer !== 'undone' && !line.item.ask) {
    openDebts(state, line.item.opens, at);
    if (
      line.item.settles &&
      lines.every((l) => l.item !== line.item || visit.answers[l.id]?.answer === 'done')
    )
      for (const debt of state.debts)
        if (line.item.settles.includes(debt.key) && !debt.cleared)
          debt.cleared = { at, byName: event.byName, text: line.item.text };
  }
  if (line.item.yes && event.answer === 'yes') {
    visit.split = line.item.text;
    follow(plan, state, line.item.yes, at);
  }
  return null;
}

/** Lines of an isolate-and-repeat stage's valve positions for its present subject. */
export function positionLines(
  plan: Plan,
  stage: IsolateStage,
  cycle: Cycle,
): { id: string; text: string; name: string }[] {
  const appliances = plan.system.appliances;
  return stage.subjects === 'pipework'
    ? appliances.map((a) => ({ id: `closed/${a.id}`, text: 'Isolating valve CLOSED', name: a.name }))
    : appliances
        .filter((a) => a.id === cycle.subject)
        .map((a) => ({ id: `open/${a.id}`, text: 'Isolating valve OPEN, all others closed', name: a.name }));
}
function positions(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: IsolateStage,
  id: string,
  answer: Visit['answers'][string],
): Refusal | null {
  const cycle = currentCycle(visit)!;
  const lines = positionLines(plan, stage, cycle);
  if (!lines.some((l) => l.id === id)) return no('unknown-line', 'This line is not in the list.');
  visit.answers[id] = answer;
  openDebts(state, stage.opens, answer.at);
  cycle.positions = lines.every((l) => visit.answers[l.id]?.answer === 'done');
  return null;
}

function chooseGauge(plan: Plan, state: RunState, visit: Visit, id: string, at: number): Refusal | null {
  const gauge = plan.gauges.find((g) => g.id === id);
  if (!gauge) return no('unknown-gauge', 'This gauge is not in the plan. Choose one of those listed.');
  const misfit = gaugeFit(gauge, fitTarget(plan), plan.made.at.slice(0, 10)).find((m) => m.blocks);
  if (misfit) return no('gauge-' + misfit.code, misfit.text);
  if (state.gauge === id) return null;
  const begun = state.visits.some((v) => v.zeros.some((z) => z.good));
  state.gauge = id;
  if (begun && visit.kind !== 'zero') {
    // another gauge is another test: prove it and begin again from its zero
    breakHold(state, 'the gauge was changed', at);
    visit.left = at;
    visit.split = 'gauge changed';
    state.repeats = state.fails = state.passes = state.rises = 0;
    state.finding = null;
    const zeroStage = Object.entries(plan.procedure.stages).find(
      ([, s]) => s.kind === 'zero' && s.when === 'before',
    )![0];
    enter(plan, state, zeroStage, at);
  }
  return null;
}

function zero(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  figure: Exact,
  at: number,
): Refusal | null {
  if (stage.kind !== 'zero')
    return no('wrong-step', 'The gauge is zeroed open to air before it is connected.');
  const gauge = gaugeOf(plan, state);
  if (!gauge) return no('no-gauge', 'Choose the gauge first.');
  const size = magnitude(figure);
  const tolerance = exact(
    gauge.resolution.digits * plan.procedure.zeroTolerance.steps,
    gauge.resolution.scale,
    gauge.resolution.unit,
  );
  const good = compare(size, tolerance) <= 0;
  visit.zeros.push({ gauge: gauge.id, figure, at, good });
  if (stage.when === 'after')
    follow(plan, state, breaks(size, perceptibleOf(plan, gauge)) ? 'off-zero' : 'zeroed', at);
  else if (good) follow(plan, state, 'zeroed', at);
  return null;
}

const readingFrom = (
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

function fill(
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

function startHold(
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

function endHold(
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
function confirmed(state: RunState, outcome: string, needed = 1): string {
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

function endCycle(
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

function keepReading(
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

function topUp(
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

/** Breaks the running hold: it stays in the record as void, with the reason. */
function breakHold(state: RunState, reason: string, at: number): void {
  const hold = runningHold(state);
  if (!hold) return;
  hold.broken = { reason, at };
}
/** After a broken hold: raise, settle and hold again from the last fill. */
function returnToFill(plan: Plan, state: RunState, at: number): void {
  const visit = currentVisit(state)!;
  visit.split = visit.holds[visit.holds.length - 1]?.broken?.reason ?? 'broken';
  if (visit.kind === 'isolate-and-repeat') {
    const cycle = currentCycle(visit)!;
    cycle.outcome = 'void';
    visit.cycles.push({ subject: cycle.subject, name: cycle.name, positions: true });
    return;
  }
  visit.left = at;
  visit.outcome = 'broken';
  const last = [...state.visits].reverse().find((v) => v.kind === 'fill');
  enter(plan, state, last?.stage ?? visit.stage, at);
}

function correct(
  state: RunState,
  event: Extract<RunEvent, { kind: 'correction' }>,
  at: number,
): Refusal | null {
  for (const visit of state.visits) {
    const reading = visit.readings.find((r) => r.id === event.of);
    if (reading) {
      reading.corrected = { figure: event.figure, reason: event.reason, byName: event.byName, at };
      return null;
    }
    const judged = [...visit.holds, ...visit.cycles.flatMap((c) => [c.settle, c.hold])].some(
      (h) => h?.start.id === event.of || h?.end?.id === event.of,
    );
    if (judged)
      return no(
        'judged',
        'A reading that started or ended a hold cannot be changed. Log a disturbance and repeat the hold; the old one stays in the record.',
      );
  }
  return no('unknown-reading', 'The reading to correct is not in this run.');
}

function skip(
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

function stream(plan: Plan, state: RunState, event: Extract<RunEvent, { kind: 'stream' }>): Refusal | null {
  const visit = currentVisit(state);
  if (!visit) return overtaken();
  if (event.gauge !== state.gauge)
    return no('other-gauge', 'The stream came from another gauge than the one that judges.');
  for (const [t, digits] of event.points) visit.trace.push([t + event.offset, digits]);
  return null;
}

function clearDebt(state: RunState, event: Extract<RunEvent, { kind: 'debt' }>, at: number): Refusal | null {
  if (state.phase === 'running') return no('still-running', 'Put back after the test has ended.');
  const debt = state.debts.find((d) => d.key === event.debt && !d.cleared);
  if (!debt) return no('overtaken', 'This line is already cleared.');
  debt.cleared = { at, byName: event.byName, text: event.text };
  if (state.phase === 'put-back' && state.debts.every((d) => d.cleared)) state.phase = 'signing';
  return null;
}

function sign(state: RunState, event: Extract<RunEvent, { kind: 'signature' }>, at: number): Refusal | null {
  if (state.phase === 'running') return no('still-running', 'The test has not ended.');
  if (state.phase === 'put-back') return no('debts', 'Clear the put-back list first.');
  if (state.signatures.some((s) => s.role === event.role))
    return no('overtaken', 'This signature is already there.');
  if (state.ending?.by === 'stop' && !state.ending.reason)
    return no('stop-reason', 'Say first why the run was stopped.');
  if (event.role === 'tester' && !event.strokes) return no('strokes', 'The tester must sign.');
  if (!event.strokes && !event.refused?.trim())
    return no('strokes', 'Sign, or write why the signature is refused.');
  state.signatures.push({
    role: event.role,
    name: event.name,
    at,
    by: event.by,
    ...(event.strokes ? { strokes: event.strokes } : {}),
    ...(event.refused ? { refused: event.refused } : {}),
  });
  if (state.signatures.length === 2) state.phase = 'signed';
  return null;
}

/**
 * What a new event would do: its refusal, or null when it takes effect. The bench asks before it appends, so that a
 * message can be shown and nothing typed is lost.
 */
export function tryEvent(plan: Plan, events: readonly PlacedEvent[], event: RunEvent): Refusal | null {
  const found = reduce(plan, [...events, event]).withoutEffect.find((w) => w.id === event.id);
  return found ? { code: found.code, text: found.text } : null;
}
