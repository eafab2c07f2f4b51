/**
 * A finished test that was held with another instrument and another program: from its log and from what was said about it
 * the entries are made that the bench would have made, so that the same rules judge it. It is never a certificate.
 */
import { kindOf } from '@/core/kinds';
import { goodPath } from '@/core/plan/good-path';
import type { Plan } from '@/core/plan/plan';
import { exact, showExact, type Exact } from '@/core/quantity/exact';
import type { EventBase, Payload, RunEvent } from './events';
import { checkLines, currentVisit, expectation, gaugeOf, stageOf } from './read';
import { begin, step } from './reduce';

export interface OutsideStage {
  readonly stage: string;
  readonly title: string;
}
/**
 * The holds whose beginning and end must be shown in the log, in order, and the lists that whoever held the test must
 * answer for; `trouble` says why a log is not enough for this procedure.
 */
export function outsideNeeds(plan: Plan): {
  readonly holds: readonly OutsideStage[];
  readonly lines: readonly string[];
  readonly trouble: string;
} {
  const path = goodPath(plan);
  // putting back and signing close the way; they are done on the bench
  const stages = path.flatMap((step) => {
    const stage = plan.procedure.stages[step.stage];
    return stage ? [{ step, stage }] : [];
  });
  // the lines of a list are taken as whoever held the test says
  const odd = stages.find(({ stage }) => !kindOf(stage).outside?.(stage));
  return {
    holds: stages
      .filter(({ stage }) => stage.kind === 'hold')
      .map(({ step }) => ({ stage: step.stage, title: step.title })),
    lines: stages.flatMap(({ stage }) =>
      stage.kind === 'checks'
        ? checkLines(plan, stage).map((l) => (l.subject ? `${l.item.text} (${l.subject.name})` : l.item.text))
        : [],
    ),
    trouble: odd
      ? `A log is not enough for this procedure: it also asks for “${odd.step.title}”, which only somebody on the bench can do.`
      : '',
  };
}

/** Where a hold began and ended in the log: ms UTC, and the figure in steps of the gauge. */
export interface OutsideHold {
  readonly stage: string;
  readonly start: { readonly at: number; readonly digits: number };
  readonly end: { readonly at: number; readonly digits: number };
}
export interface OutsideTest {
  readonly holds: readonly OutsideHold[];
  /** Readings between, for the trace: ms UTC and steps of the gauge. */
  readonly points: readonly (readonly [number, number])[];
  readonly gauge: string;
}
/** Why the marks do not make a test. */
export class OutsideError extends Error {
  constructor(text: string) {
    super(text);
    this.name = 'OutsideError';
  }
}
const AT_ONCE = 600;
const SECOND = 1000;

/**
 * The entries of the test up to its end; put-back list and signatures follow on the bench.
 * @param base who writes it; `id` gives a fresh event id for a counter  @throws OutsideError saying what does not fit
 */
export function outsideEvents(
  plan: Plan,
  test: OutsideTest,
  base: Pick<EventBase, 'device' | 'zone' | 'pageLoad' | 'by' | 'byName'> & {
    readonly id: (n: number) => string;
  },
): RunEvent[] {
  const gauge = plan.gauges.find((g) => g.id === test.gauge);
  if (!gauge || !plan.outside) throw new OutsideError('Choose the gauge that the log came from.');
  for (const [i, h] of test.holds.entries()) {
    if (h.end.at <= h.start.at) throw new OutsideError('Each hold must end after it began.');
    const before = test.holds[i - 1];
    if (before && h.start.at < before.end.at)
      throw new OutsideError('The holds must follow one another in the log.');
  }
  const { unit, scale } = gauge.resolution;
  const figure = (digits: number): Exact => exact(digits, scale, unit);
  const events: RunEvent[] = [];
  const state = begin(plan);
  const add = (payload: Payload, at: number) => {
    const n = events.length + 1;
    const { id, ...who } = base;
    const event = {
      ...payload,
      ...who,
      id: id(n),
      run: plan.run,
      deviceSeq: n,
      at,
      offset: 0,
      mono: Math.max(0, at - first),
      expects: expectation(state),
    } as RunEvent;
    events.push(event);
    const refused = step(plan, state, event);
    if (refused) throw new OutsideError(refused.text);
  };
  const first = (test.holds[0]?.start.at ?? 0) - 60 * SECOND;
  add(
    {
      kind: 'note',
      text: `Held by ${plan.outside.by} with another program; entered from the file ${plan.outside.file}. Lists and zero stand as ${plan.outside.by} said.`,
    },
    first,
  );
  let at = first + SECOND;
  let next = 0;
  for (let guard = 0; guard < 400; guard++) {
    const visit = currentVisit(state);
    if (state.phase !== 'running' || !visit) break;
    const stage = stageOf(plan, visit);
    const hold = test.holds[next];
    if (stage.kind === 'checks') {
      for (const line of checkLines(plan, stage))
        add(
          {
            kind: 'check',
            item: line.item.key,
            ...(line.subject ? { subject: line.subject.id } : {}),
            // a question with no answer that must be given is answered with no: nothing was out of order
            answer: line.item.ask ? (line.item.must?.answer ?? 'no') : 'done',
          },
          at,
        );
      add({ kind: 'proceed' }, at);
    } else if (stage.kind === 'zero') {
      if (state.gauge !== gauge.id) add({ kind: 'gauge', gauge: gauge.id }, at);
      add({ kind: 'zero', figure: figure(0), openToAir: true }, at);
    } else if (stage.kind === 'fill' && hold) {
      at = Math.max(at, hold.start.at - SECOND);
      add({ kind: 'fill', confirmed: true, figure: figure(hold.start.digits), readAt: at }, at);
    } else if (stage.kind === 'hold' && hold?.stage === visit.stage) {
      if (gaugeOf(plan, state)?.id !== gauge.id) add({ kind: 'gauge', gauge: gauge.id }, at);
      add({ kind: 'hold-start', figure: figure(hold.start.digits), readAt: hold.start.at }, hold.start.at);
      const within = test.points.filter(([t]) => t > hold.start.at && t < hold.end.at);
      for (let i = 0; i < within.length; i += AT_ONCE)
        add(
          {
            kind: 'stream',
            gauge: gauge.id,
            simulated: false,
            unit,
            scale,
            points: within.slice(i, i + AT_ONCE),
            imported: { file: plan.outside.file, hash: plan.outside.hash },
          },
          hold.end.at,
        );
      add({ kind: 'hold-end', figure: figure(hold.end.digits), readAt: hold.end.at }, hold.end.at);
      at = hold.end.at + SECOND;
      next += 1;
    } else {
      // the log shows nothing of what would come next: the test ends where it is
      add({ kind: 'stop' }, at);
      add(
        {
          kind: 'stop-reason',
          reason: 'abandoned',
          text: `The log shows nothing of “${stage.title}”${hold ? `; the next hold shown begins with ${showExact(figure(hold.start.digits))}` : ''}`,
        },
        at,
      );
    }
  }
  return events;
}
