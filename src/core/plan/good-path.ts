/** The way a run takes when all goes well, with the minutes each step asks for: what a visit is planned from. */
import { edgesOf } from '@/core/grammar/edges';
import type { Edge } from '@/core/grammar/rule';
import { kindOf, type Stage } from '@/core/kinds';
import { minutesFor } from '@/core/run/hold-spec';
import { checkLines } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import { nextPart } from '@/core/run/transition';
import type { RunState } from '@/core/run/state';
import { known } from '@/core/formula';
import { applies, ruleOf, type Plan } from './plan';

/** One step: hands on, then waiting, then hands again to read and note. Minutes. */
export interface PathStep {
  readonly stage: string;
  readonly kind: Stage['kind'];
  readonly title: string;
  readonly part: string | null;
  readonly hands: number;
  readonly wait: number;
  readonly close: number;
}

/** Hands-on minutes of what follows every test. House estimates, shown as such. */
const PUT_BACK = { base: 2, perLine: 1 };
const SIGNING = 4;

const edgeOf = (plan: Plan, stage: Stage, outcome: string): Edge | undefined =>
  edgesOf(stage.on[outcome]).find((e) => !e.mayHide && applies(plan, stage.part, e.when));

/** How many lines, joints or appliances a step has to do with, as far as is known before it. */
function countOf(plan: Plan, stage: Stage, of: 'line' | 'joint' | 'appliance'): number {
  switch (of) {
    case 'line':
      return stage.kind === 'checks' ? checkLines(plan, stage).length : 0;
    case 'joint': {
      const always = stage.kind === 'joints' ? (stage.always ?? []) : [];
      return Math.max(2, (plan.system.joints ?? []).length + always.length);
    }
    case 'appliance':
      return Math.max(1, plan.system.appliances.length);
  }
}
/** Minutes of one step, with the judging gauge named where the length depends on it. */
function stepOf(plan: Plan, state: RunState, key: string, stage: Stage): PathStep {
  const { hands, each, wait = 0, close = 0 } = kindOf(stage).work(stage);
  const planned =
    typeof wait === 'number'
      ? { value: wait }
      : known(() => minutesFor(plan, state, stage.part, wait.spec, wait.source, wait.sees).planned);
  return {
    stage: key,
    kind: stage.kind,
    title: stage.title,
    part: stage.part ?? null,
    hands: hands + (each ? each.minutes * countOf(plan, stage, each.of) : 0),
    wait: 'missing' in planned ? 0 : planned.value,
    close,
  };
}

/**
 * Stages from one to the end when each ends well, by key, that one included. Optional stages are part of it; a stage is
 * passed once. @param from absent: the first
 */
export function goodStages(plan: Plan, from?: string): string[] {
  const seen: string[] = [];
  let key: string | undefined = from ?? plan.procedure.first;
  while (key && !seen.includes(key)) {
    const stage: Stage | undefined = plan.procedure.stages[key];
    if (!stage) break;
    seen.push(key);
    const classes = (ruleOf(plan, stage.part).classes ?? []).map((c) => c.key);
    const outcome = kindOf(stage).good(stage, classes);
    const edge: Edge | undefined = outcome ? edgeOf(plan, stage, outcome) : undefined;
    // a part that ended well leads to the first stage of the next
    key = edge?.to ?? (edge?.close ? nextPart(plan, stage.part ?? '')?.first : undefined);
  }
  return seen;
}
/**
 * The same stages with the minutes of each, put back and signing at the end.
 * @param from key of the stage to begin with; absent: the first
 */
export function goodPath(plan: Plan, gauge: string | null = null, from?: string): PathStep[] {
  const state: RunState = { ...reduce(plan, []), gauge };
  const steps = goodStages(plan, from).map((key) => stepOf(plan, state, key, plan.procedure.stages[key]!));
  const debts = Object.keys(plan.procedure.debts).length;
  return [
    ...steps,
    {
      stage: 'put-back',
      kind: 'checks',
      title: 'Put back',
      part: null,
      hands: PUT_BACK.base + PUT_BACK.perLine * debts,
      wait: 0,
      close: 0,
    },
    {
      stage: 'signing',
      kind: 'checks',
      title: 'Sign and seal',
      part: null,
      hands: SIGNING,
      wait: 0,
      close: 0,
    },
  ];
}
/** Minutes of a path: everything, hands and waiting. */
export const pathMinutes = (steps: readonly PathStep[]): { hands: number; wait: number; whole: number } => {
  const hands = steps.reduce((s, x) => s + x.hands + x.close, 0);
  const wait = steps.reduce((s, x) => s + x.wait, 0);
  return { hands, wait, whole: hands + wait };
};
