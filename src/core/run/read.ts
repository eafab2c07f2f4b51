/** What the state of a run says: where it stands, what it waits for, which limits hold. Nothing here changes it. */
import { gaugeClass, perceptibleMovement, type Gauge, type GaugeClass } from '@/core/instrument/gauge';
import type { CheckItem, ChecksStage, HoldStage, IsolateStage, PackLimit, Stage } from '@/core/pack/types';
import { allowanceOf, bandOf, caseOf, type Plan } from '@/core/plan/plan';
import { parseWithUnit, type Exact, type Limit } from '@/core/quantity/exact';
import type { Cycle, Hold, RunState, Visit } from './state';

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

/** Smallest perceptible movement of the judging gauge in this procedure. */
export function perceptibleOf(plan: Plan, gauge: Gauge): Limit {
  return perceptibleMovement(gauge, limitsOf(plan.procedure.perceptible));
}

export const limitsOf = (table: Partial<Record<GaugeClass, PackLimit>>): Partial<Record<GaugeClass, Limit>> =>
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
