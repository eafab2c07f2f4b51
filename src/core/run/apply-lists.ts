/** Events of check lists, valve positions, gauge and zero. */
import { gaugeFit } from '@/core/instrument/gauge';
import type { IsolateStage, Stage } from '@/core/kinds';
import { fitTarget, ruleOf, type Plan } from '@/core/plan/plan';
import { breaks, compare, exact, magnitude, type Exact } from '@/core/quantity/exact';
import { dayOf } from '@/core/plan/plan';
import type { RunEvent } from './events';
import type { RunState, Visit } from './state';
import {
  checkLines,
  UNKNOWN,
  currentCycle,
  gaugeOf,
  openJoints,
  openLines,
  perceptibleOf,
  positionLines,
} from './read';
import { missingInventory } from './inventory';
import { breakHold, enter, follow, no, openDebts, type Refusal } from './transition';

export function check(
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
  if (line.item.must && ['yes', 'no'].includes(event.answer) && event.answer !== line.item.must.answer)
    return no('must', line.item.must.text);
  visit.answers[id] = answer;
  if (line.item.position && line.subject && line.subject.id !== UNKNOWN) {
    if (event.answer === 'undone') delete state.valves[line.subject.id];
    else state.valves[line.subject.id] = line.item.position;
  }
  if (line.item.denies) {
    state.denied = state.denied.filter((d) => d !== line.item.denies);
    if (event.answer === 'yes') state.denied.push(line.item.denies);
  }
  if (event.answer !== 'undone' && !line.item.ask) {
    openDebts(plan, state, line.item.opens, at);
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

/** Ends a list: every line answered, every joint cleared, every required thing written down. */
export function proceed(plan: Plan, state: RunState, visit: Visit, stage: Stage, at: number): Refusal | null {
  switch (stage.kind) {
    case 'checks':
      if (openLines(plan, visit).length) return no('unanswered', 'Answer every line first.');
      openDebts(plan, state, stage.opens, at);
      follow(plan, state, 'done', at);
      return null;
    case 'joints': {
      const open = openJoints(state);
      if (open.length)
        return no('joints', `Leak fluid has not cleared: ${open.map((j) => j.name).join(', ')}.`);
      follow(plan, state, 'clear', at);
      return null;
    }
    case 'inventory': {
      const owed = missingInventory(plan, state);
      if (owed.length) return no('inventory', `Still to be written down: ${owed.join(', ')}.`);
      follow(plan, state, 'done', at);
      return null;
    }
    case 'dial':
      if (stage.role !== 'input') return no('wrong-step', 'Look at the dial and say whether it moved.');
      if (!visit.inputs.length)
        return no('unanswered', 'Measure one appliance, or leave it out with a reason.');
      follow(plan, state, 'done', at);
      return null;
    default:
      return no('wrong-step', 'There is nothing to confirm here.');
  }
}

export function positions(
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
  openDebts(plan, state, stage.opens, answer.at);
  cycle.positions = lines.every((l) => visit.answers[l.id]?.answer === 'done');
  return null;
}

export function chooseGauge(
  plan: Plan,
  state: RunState,
  visit: Visit,
  id: string,
  at: number,
): Refusal | null {
  const gauge = plan.gauges.find((g) => g.id === id);
  if (!gauge) return no('unknown-gauge', 'This gauge is not in the plan. Choose one of those listed.');
  const part = plan.procedure.stages[visit.stage]?.part;
  const misfit = gaugeFit(gauge, fitTarget(plan, part), dayOf(plan)).find((m) => m.blocks);
  if (misfit) return no('gauge-' + misfit.code, misfit.text);
  if (state.gauge === id) return null;
  const begun = state.visits.some((v) => v.zeros.some((z) => z.good));
  state.gauge = id;
  if (begun && visit.kind !== 'zero') {
    // another gauge is another test: prove it and begin again from its zero
    breakHold(state, 'the gauge was changed', at);
    visit.left = at;
    visit.split = 'gauge changed';
    state.repeats = state.fails = state.passes = state.rises = state.smallFalls = 0;
    state.tapped = null;
    delete state.claims[part ?? ''];
    const zeroes = Object.entries(plan.procedure.stages).filter(
      ([, s]) => s.kind === 'zero' && s.when === 'before',
    );
    const zeroStage = zeroes.find(([, s]) => s.part === part) ?? zeroes[0]!;
    enter(plan, state, zeroStage[0], at);
  }
  return null;
}

export function zero(
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
    gauge.resolution.digits * ruleOf(plan, stage.part).zeroTolerance.steps,
    gauge.resolution.scale,
    gauge.resolution.unit,
  );
  const good = compare(size, tolerance) <= 0;
  visit.zeros.push({ gauge: gauge.id, figure, at, good });
  if (stage.when === 'after')
    follow(plan, state, breaks(size, perceptibleOf(plan, gauge, stage.part)) ? 'off-zero' : 'zeroed', at);
  else if (good) follow(plan, state, 'zeroed', at);
  return null;
}
