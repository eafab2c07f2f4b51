import type { Stage } from '@/core/kinds';
import type { Plan } from '@/core/plan/plan';
import { momentOf, type PlacedEvent, type RunEvent } from './events';
import type { RunState } from './state';
import { coarseBarometer } from './barometer';
import { misfit } from './gate';
import { clearsJointsAfter, currentVisit, expectation, runningHold, stageOf } from './read';
import { breakHold, close, enter, follow, no, overtaken, returnToFill, type Refusal } from './transition';
import { LATE_AFTER_MS, endHold, fill, keepReading, mark, skip, startHold, topUp } from './apply-hold';
import { check, chooseGauge, proceed, zero } from './apply-lists';
import {
  addJoint,
  dialInput,
  endDial,
  keepInventory,
  lookAtJoint,
  measureVolume,
  startDial,
} from './apply-found';
import { drawDown, pumpFailed, pumpLook, pumpStep, witness } from './apply-water';
import { unheld } from './apply-unheld';
import { classUnsafe, clearDebt, correct, sign, stream } from './apply-closing';

/** A run that has just begun: nothing entered, its first stage open. */
export function begin(plan: Plan): RunState {
  const state: RunState = {
    phase: 'running',
    visits: [],
    gauge: null,
    ownKit: null,
    debts: [],
    claims: {},
    ending: null,
    denied: [],
    spoiled: [],
    repeats: 0,
    fails: 0,
    passes: 0,
    rises: 0,
    smallFalls: 0,
    tapped: null,
    taken: {},
    kept: {},
    keptReadings: {},
    findings: [],
    watch: null,
    photos: [],
    imports: [],
    joints: [],
    observations: [],
    inventory: [],
    volume: null,
    valves: {},
    reports: [],
    followUps: [],
    unsafe: null,
    notes: [],
    signatures: [],
    withoutEffect: [],
    clockMarks: [],
    events: 0,
    lastAt: 0,
  };
  enter(plan, state, plan.procedure.first, Date.parse(plan.made.at));
  return state;
}

/**
 * One entry taken into the state, which it changes: it takes effect or is set aside with a reason. Total: any schema-valid
 * event in any state. @returns why it had no effect, or null
 */
export function step(plan: Plan, state: RunState, event: RunEvent): Refusal | null {
  const refusal = apply(plan, state, event);
  if (refusal) state.withoutEffect.push({ id: event.id, ...refusal });
  if (Math.abs(event.offset) > LATE_AFTER_MS)
    mark(
      state,
      `The clock of a device stood ${offsetWords(event.offset)} the server; server time was used for the holds, both are kept.`,
    );
  state.events += 1;
  state.lastAt = Math.max(state.lastAt, momentOf(event));
  return refusal;
}

/**
 * Derives the state of a run from its log. Pure: the same events in any order, with any repeats, give the same
 * state. Placed events come first, by position; unsent ones last, by device and its sequence.
 */
export function reduce(plan: Plan, events: readonly PlacedEvent[]): RunState {
  const state = begin(plan);
  for (const event of inOrder(events)) step(plan, state, event);
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

export const compareText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

export const offsetWords = (offset: number) => {
  const minutes = Math.round(Math.abs(offset) / 60000);
  return `${minutes} min ${offset > 0 ? 'behind' : 'ahead of'}`;
};

/** Kinds that change the step and therefore must be meant for the present one. */
export const TRANSITIONS = new Set([
  'check',
  'proceed',
  'zero',
  'fill',
  'hold-start',
  'hold-end',
  'unheld',
  'observe',
  'skip',
  'top-up',
  'temperature',
  'barometer',
  'volume',
  'dial-start',
  'dial-end',
  'pump-step',
  'pump-look',
  'pump-failed',
  'draw-down',
  'witness',
]);

function apply(plan: Plan, state: RunState, event: RunEvent): Refusal | null {
  const at = momentOf(event);
  if (event.kind === 'note') {
    state.notes.push({ at, byName: event.byName, text: event.text, kind: 'note' });
    return null;
  }
  if (event.kind === 'photo') {
    if (!state.photos.some((p) => p.hash === event.hash && p.caption === event.caption))
      state.photos.push({
        hash: event.hash,
        caption: event.caption,
        ...(event.shows ? { shows: event.shows } : {}),
        ...(event.beside ? { beside: event.beside } : {}),
        visit: state.visits.length,
        at,
        byName: event.byName,
      });
    return null;
  }
  if (event.kind === 'stop') {
    if (state.phase !== 'running') return overtaken();
    const visit = currentVisit(state)!;
    breakHold(state, 'stopped', at);
    visit.left = at;
    visit.split = 'stopped';
    // stopping gives no result, but it does not take back what was already judged, above all not tight
    const part = plan.procedure.stages[visit.stage]?.part ?? '';
    if (state.claims[part]?.finding !== 'not-tight') delete state.claims[part];
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
  if (event.kind === 'debt') return clearDebt(plan, state, event, at);
  if (event.kind === 'signature') return sign(plan, state, event, at);
  if (event.kind === 'unsafe') return classUnsafe(plan, state, event, at);
  if (event.kind === 'inventory') return keepInventory(state, event, at);
  if (event.kind === 'stream') return misfit(plan, state, event) ?? stream(plan, state, event);
  if (event.kind === 'correction') return misfit(plan, state, event) ?? correct(state, event, at);
  if (event.kind === 'joint' || event.kind === 'joint-look') {
    if (plan.format > 1 && clearsJointsAfter(state))
      return event.kind === 'joint' ? addJoint(state, event) : lookAtJoint(state, event, at);
  }
  const visit = currentVisit(state);
  if (!visit) return overtaken();
  if (TRANSITIONS.has(event.kind) && event.expects !== expectation(state)) return overtaken();
  const refused = misfit(plan, state, event);
  if (refused) return refused;
  const stage = stageOf(plan, visit);
  switch (event.kind) {
    case 'check':
      return check(plan, state, visit, stage, event, at);
    case 'proceed':
      return proceed(plan, state, visit, stage, at);
    case 'gauge':
      return chooseGauge(plan, state, visit, event.gauge, at);
    case 'kit':
      if (event.kit.some((id) => !plan.ownKit?.some((k) => k.id === id)))
        return no('unknown-kit', 'This hose or rig is not in the plan. Choose from those listed.');
      state.ownKit = { kit: [...new Set(event.kit)], at, byName: event.byName };
      return null;
    case 'zero':
      return zero(plan, state, visit, stage, event.figure, at);
    case 'fill':
      return fill(plan, state, visit, stage, event, at);
    case 'hold-start':
      return startHold(plan, state, visit, event, at);
    case 'hold-end':
      return endHold(plan, state, visit, stage, event, at);
    case 'unheld':
      return unheld(plan, state, visit, stage, event, at);
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
    case 'barometer': {
      const hold = runningHold(state);
      if (!hold) return no('no-hold', 'Log the barometer while a hold runs.');
      if (event.none) hold.barometer.none = true;
      else if (event.figure) {
        const coarse = coarseBarometer(plan, state, stage, hold, event.figure);
        if (coarse) return coarse;
        hold.barometer[event.when] = event.figure;
      } else return no('figure', 'Type the barometer, or say that there is none at hand.');
      return null;
    }
    case 'joint':
      return addJoint(state, event);
    case 'joint-look':
      return lookAtJoint(state, event, at, { plan, visit, stage });
    case 'observation':
      state.observations.push({ what: event.what, text: event.text, at, byName: event.byName });
      return null;
    case 'volume':
      return measureVolume(plan, state, stage, event, at);
    case 'pump-step':
      return pumpStep(plan, state, visit, stage, event, at);
    case 'pump-look':
      return pumpLook(plan, state, visit, stage, event, at);
    case 'pump-failed':
      return pumpFailed(plan, state, visit, stage, event, at);
    case 'draw-down':
      return drawDown(plan, state, visit, stage, event, at);
    case 'witness':
      return witness(state, stage, event, at);
    case 'dial-start':
      return startDial(plan, state, visit, stage, event, at);
    case 'dial-end':
      return endDial(plan, state, visit, stage, event, at);
    case 'dial-input':
      return dialInput(plan, visit, stage, event);
    case 'observe':
      return observe(plan, state, stage, event, at);
    case 'skip':
      return skip(plan, state, visit, stage, event, at);
  }
}

function observe(
  plan: Plan,
  state: RunState,
  stage: Stage,
  event: Extract<RunEvent, { kind: 'observe' }>,
  at: number,
): Refusal | null {
  const result = stage.kind === 'observe' ? stage.results.find((r) => r.key === event.result) : undefined;
  if (!result) return no('wrong-step', 'That is not one of the answers.');
  const owed = (result.reasonBefore ?? 0) - state.repeats;
  if (owed > 0 && !event.text?.trim())
    return no(
      'reason',
      `The rule asks for ${owed} more ${owed === 1 ? 'repeat' : 'repeats'} first. To let the result stand now, say why: the reason is printed.`,
    );
  if (event.text?.trim())
    state.notes.push({
      at,
      byName: event.byName,
      text: `${result.text}: ${event.text.trim()}`,
      kind: 'note',
    });
  follow(plan, state, event.result, at);
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
