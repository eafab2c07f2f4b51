/** How a run moves on: entering stages, following the pack's graph, breaking holds. */
import { edgesOf, type Edge, type IsolateStage } from '@/core/pack/types';
import type { Plan } from '@/core/plan/plan';
import type { Cycle, RunState, Visit } from './state';
import { currentCycle, currentVisit, runningHold, stageOf } from './read';

/** Why an event had no effect. `code` 'overtaken': the step it was meant for had already ended. */
export interface Refusal {
  readonly code: string;
  readonly text: string;
}

export const no = (code: string, text: string): Refusal => ({ code, text });

export const overtaken = () =>
  no(
    'overtaken',
    'This step had already been ended. Your entry is kept in the log; look at the present step.',
  );

export function enter(plan: Plan, state: RunState, key: string, at: number): void {
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

export function firstCycle(plan: Plan, stage: IsolateStage): Cycle {
  if (stage.subjects === 'pipework') return { subject: 'pipework', name: 'Pipework', positions: false };
  const first = plan.system.appliances[0];
  return { subject: first?.id ?? 'none', name: first?.name ?? 'No appliance', positions: false };
}

/** Ends the present stage with an outcome and follows the pack's graph. */
export function follow(plan: Plan, state: RunState, outcome: string, at: number): void {
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

export function close(state: RunState, at: number, by: 'graph' | 'stop'): void {
  state.ending = { at, by };
  state.phase = state.debts.some((d) => !d.cleared) ? 'put-back' : 'signing';
}

export function openDebts(state: RunState, keys: readonly string[] | undefined, at: number): void {
  for (const key of keys ?? [])
    if (!state.debts.some((d) => d.key === key && !d.cleared)) state.debts.push({ key, openedAt: at });
}

/** Breaks the running hold: it stays in the record as void, with the reason. */
export function breakHold(state: RunState, reason: string, at: number): void {
  const hold = runningHold(state);
  if (!hold) return;
  hold.broken = { reason, at };
}

/** After a broken hold: raise, settle and hold again from the last fill. */
export function returnToFill(plan: Plan, state: RunState, at: number): void {
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
