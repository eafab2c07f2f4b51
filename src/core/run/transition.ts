/** How a run moves on: entering stages, following the pack's graph, breaking holds. */
import { known } from '@/core/formula';
import { hiddenIn, minutesFor } from './hold-spec';
import { worthTelling } from './hidden';
import { edgesOf } from '@/core/grammar/edges';
import type { Edge } from '@/core/grammar/rule';
import type { IsolateStage, Stage } from '@/core/kinds';
import type { Part } from '@/core/pack/schema';
import { applies, type Plan } from '@/core/plan/plan';
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
    pumped: [],
    trace: [],
    inputs: [],
  };
  if (stage.kind === 'isolate-and-repeat') visit.cycles.push(firstCycle(plan, stage));
  // joints that the procedure itself opens stand in the list: none of them can be forgotten
  if (stage.kind === 'joints' && plan.format > 1)
    for (const name of stage.always ?? []) {
      const id = `always-${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`;
      if (!state.joints.some((j) => j.id === id)) state.joints.push({ id, name, place: '', looks: [] });
    }
  state.visits.push(visit);
  // a hold that begins with a reading already taken runs from that reading: nothing may lie between
  const since = stage.kind === 'hold' ? stage.since : undefined;
  const start = since ? state.keptReadings[since] : undefined;
  if (!start || stage.kind !== 'hold') return;
  const found = known(() => minutesFor(plan, state, stage.part, stage.minutes, stage.minutesSource, false));
  if ('missing' in found) return;
  visit.holds.push({
    role: stage.role,
    minutes: found.value.planned,
    rule: found.value.rule,
    gauge: state.gauge ?? '',
    start,
    startedAt: start.readMoment,
    startClock: start.clock,
    since: true,
    topUps: [],
    temperature: {},
    barometer: {},
    witness: {},
  });
}

export function firstCycle(plan: Plan, stage: IsolateStage): Cycle {
  if (stage.subjects === 'pipework') return { subject: 'pipework', name: 'Pipework', positions: false };
  const first = plan.system.appliances[0];
  return { subject: first?.id ?? 'none', name: first?.name ?? 'No appliance', positions: false };
}

/** Where an outcome leads from here. @param times how often it has come, this time counted */
export const edgeOf = (
  plan: Plan,
  state: RunState,
  stage: Stage,
  outcome: string,
  times: number,
): Edge | undefined =>
  edgesOf(stage.on[outcome]).find(
    (e: Edge) =>
      applies(plan, stage.part, e.when) &&
      (e.upTo === undefined || times <= e.upTo) &&
      (e.whileRepeats === undefined || state.repeats < e.whileRepeats) &&
      (!e.mayHide || (!plan.outside && worthTelling(hiddenIn(plan, state, stage.part)))),
  );

/** Ends the present stage with an outcome and follows the pack's graph. */
export function follow(plan: Plan, state: RunState, outcome: string, at: number): void {
  const visit = currentVisit(state)!;
  const stage = stageOf(plan, visit);
  visit.left = at;
  visit.outcome = outcome;
  const key = `${visit.stage}.${outcome}`;
  const times = (state.taken[key] = (state.taken[key] ?? 0) + 1);
  const part = stage.part ?? '';
  const edge = edgeOf(plan, state, stage, outcome, times) ?? UNSAID[outcome] ?? STANDS_STILL;
  if (edge.repeat) state.repeats += 1;
  if (edge.resets) {
    state.repeats = state.fails = state.passes = state.smallFalls = 0;
  }
  if (edge.finds)
    state.claims[part] = {
      finding: edge.finds,
      ...(edge.because ? { because: edge.because } : {}),
      stage: visit.stage,
      outcome,
      visit: visit.ordinal,
      ...(edge.use ? { use: edge.use } : {}),
      ...(edge.plain ? { plain: edge.plain } : {}),
      ...(edge.danger ? { danger: true } : {}),
    };
  if (edge.spoils && !state.spoiled.includes(edge.spoils)) state.spoiled.push(edge.spoils);
  if (edge.report && !state.reports.some((r) => r.text === edge.report!.text))
    state.reports.push(edge.report);
  if (edge.followUp) state.followUps.push(edge.followUp);
  if (!edge.close) return enter(plan, state, edge.to!, at);
  const next = nextPart(plan, part);
  if (!next || !endedWell(state, part)) return close(state, at, 'graph');
  state.repeats = state.fails = state.passes = state.rises = state.smallFalls = 0;
  // a part that zeroes its own gauge chooses its own gauge
  const zeroes = Object.values(plan.procedure.stages).some(
    (x) => x.kind === 'zero' && x.when === 'before' && x.part === next.key,
  );
  if (zeroes) state.gauge = null;
  enter(plan, state, next.first, at);
}

/** What follows where a pack of the first format says nothing of it: the test ends with what was seen. */
const UNSAID: Readonly<Record<string, Edge>> = {
  falls: {
    close: true,
    finds: 'not-tight',
    because: 'The pressure would not stand, longer than warmth or stretch could explain.',
  },
  'falls-early': {
    close: true,
    finds: 'inconclusive',
    because: 'The pressure kept falling; it was ended while warmth or stretch could still explain it.',
  },
  rises: {
    close: true,
    finds: 'inconclusive',
    because: 'The pressure kept rising: a rise is never proof of tightness.',
  },
  low: {
    close: true,
    finds: 'refer',
    because: 'The pressure stays low with the source open: the supply, not the section, must be looked at.',
  },
};
const STANDS_STILL: Edge = {
  close: true,
  finds: 'void',
  because: 'The procedure does not say what follows here: no result.',
};

/** The part that follows this one, or null. */
export const nextPart = (plan: Plan, part: string): Part | null => {
  const parts = plan.procedure.parts ?? [];
  const index = parts.findIndex((p) => p.key === part);
  return index < 0 ? null : (parts[index + 1] ?? null);
};
/** Whether the next part may begin: a later part says nothing when an earlier one has no good result. */
const endedWell = (state: RunState, part: string): boolean => {
  const claim = state.claims[part];
  return !claim || claim.finding === 'tight' || claim.finding === 'within-allowance';
};

export function close(state: RunState, at: number, by: 'graph' | 'stop'): void {
  if (state.ending) return;
  state.ending = { at, by };
  state.phase = state.debts.some((d) => !d.cleared) ? 'put-back' : 'signing';
}

/** Ends a run at once, wherever it stands. @param why the hold that runs is void for */
export function stopNow(plan: Plan, state: RunState, why: string, at: number): void {
  const visit = currentVisit(state)!;
  breakHold(state, why, at);
  visit.left = at;
  visit.split = why;
  // stopping gives no result, but it does not take back what was already judged, above all not tight
  const part = plan.procedure.stages[visit.stage]?.part ?? '';
  if (state.claims[part]?.finding !== 'not-tight') delete state.claims[part];
  close(state, at, 'stop');
}

/** Opens put-back debts: one each, or one per appliance where the pack asks one by one. */
export function openDebts(
  plan: Plan,
  state: RunState,
  keys: readonly string[] | undefined,
  at: number,
): void {
  for (const key of keys ?? []) {
    const each = plan.procedure.debts[key]?.each === 'appliance' && plan.system.appliances.length > 0;
    const subjects = each ? plan.system.appliances.map((a) => a.id) : [undefined];
    for (const subject of subjects)
      if (!state.debts.some((d) => d.key === key && d.subject === subject && !d.cleared))
        state.debts.push({ key, ...(subject ? { subject } : {}), openedAt: at });
  }
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
  const held = plan.procedure.stages[visit.stage];
  if (held?.kind === 'hold' && held.restart) return enter(plan, state, held.restart, at);
  const part = plan.procedure.stages[visit.stage]?.part;
  const last = [...state.visits]
    .reverse()
    .find((v) => (v.kind === 'fill' || v.kind === 'pump') && plan.procedure.stages[v.stage]?.part === part);
  enter(plan, state, last?.stage ?? visit.stage, at);
}
