/** Events of check lists, valve positions, gauge and zero. */
import { gaugeFit } from '@/core/instrument/gauge';
import type { IsolateStage, Stage } from '@/core/pack/types';
import { fitTarget, type Plan } from '@/core/plan/plan';
import { breaks, compare, exact, magnitude, type Exact } from '@/core/quantity/exact';
import type { RunEvent } from './events';
import type { RunState, Visit } from './state';
import { checkLines, currentCycle, gaugeOf, perceptibleOf, positionLines } from './read';
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
  openDebts(state, stage.opens, answer.at);
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
