/** The way a run takes when all goes well, with the minutes each step asks for: what a visit is planned from. */
import { edgesOf, type Edge, type Stage } from '@/core/pack/types';
import { minutesFor } from '@/core/run/hold-spec';
import { checkLines } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import { nextPart } from '@/core/run/transition';
import type { RunState } from '@/core/run/state';
import { known } from './formulas';
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

/** Hands-on minutes of a step of each kind. House estimates, shown as such; own last times stand beside them. */
export const EFFORT = {
  checks: { base: 1, perLine: 0.5 },
  zero: 2,
  fill: 3,
  holdStart: 1,
  holdEnd: 1,
  joints: { base: 2, perJoint: 1.5 },
  inventory: { base: 1, perItem: 4 },
  volume: 4,
  observe: 2,
  dial: 2,
  putBack: { base: 2, perLine: 1 },
  signing: 4,
  pump: { base: 3, perStep: 3 },
  'draw-down': 6,
} as const;

/** The outcome that leads on when nothing is wrong. */
function goodOutcome(stage: Stage, classes: readonly string[]): string | null {
  switch (stage.kind) {
    case 'checks':
    case 'inventory':
      return 'done';
    case 'zero':
      return 'zeroed';
    case 'fill':
      return 'in-band';
    case 'joints':
      return 'clear';
    case 'volume':
      return 'known';
    case 'pump':
      return 'raised';
    case 'draw-down':
      return 'measured';
    case 'dial':
      return stage.role === 'leak' ? 'still' : 'done';
    case 'observe':
      return stage.results[0]?.key ?? null;
    case 'isolate-and-repeat':
      return stage.subjects === 'pipework' ? 'nil' : 'done';
    case 'hold':
      return {
        settle: 'settled',
        'let-by': 'proved',
        tightness: 'nil',
        strength: 'withstood',
        'lock-up': 'holds',
        flow: 'holds',
        'leak-rate': classes[0] ?? '',
        floor: 'kept',
        stretch: 'within',
        'make-up': 'within',
        decay: 'fell',
      }[stage.role];
  }
}
const edgeOf = (plan: Plan, stage: Stage, outcome: string): Edge | undefined =>
  edgesOf(stage.on[outcome]).find((e) => applies(plan, stage.part, e.when));

/** Minutes of one step, with the judging gauge named where the length depends on it. */
function stepOf(plan: Plan, state: RunState, key: string, stage: Stage): PathStep {
  const own = { stage: key, kind: stage.kind, title: stage.title, part: stage.part ?? null };
  const timed = (hands: number, minutes: () => number, close: number): PathStep => {
    const found = known(minutes);
    return { ...own, hands, wait: 'missing' in found ? 0 : found.value, close };
  };
  const held = (hands: number): PathStep => ({ ...own, hands, wait: 0, close: 0 });
  switch (stage.kind) {
    case 'checks':
      return held(EFFORT.checks.base + EFFORT.checks.perLine * checkLines(plan, stage).length);
    case 'joints':
      return held(
        EFFORT.joints.base +
          EFFORT.joints.perJoint *
            Math.max(2, (plan.system.joints ?? []).length + (stage.always ?? []).length),
      );
    case 'inventory':
      return held(
        EFFORT.inventory.base + EFFORT.inventory.perItem * Math.max(1, plan.system.appliances.length),
      );
    case 'hold':
      return timed(
        EFFORT.holdStart,
        () =>
          minutesFor(
            plan,
            state,
            stage.part,
            stage.minutes,
            stage.minutesSource,
            stage.role === 'tightness' || stage.role === 'strength',
          ).planned,
        EFFORT.holdEnd,
      );
    case 'pump':
      return {
        ...own,
        hands: EFFORT.pump.base + EFFORT.pump.perStep * stage.steps.length,
        wait: stage.steps.reduce((s, x) => s + x.minutes, 0),
        close: 1,
      };
    case 'dial':
      return timed(
        EFFORT.dial,
        () => minutesFor(plan, state, stage.part, stage.minutes, stage.minutesSource, false).planned,
        1,
      );
    case 'isolate-and-repeat':
      return {
        ...own,
        hands: EFFORT.fill + EFFORT.holdStart,
        wait: stage.settleMinutes + stage.minutes,
        close: 1,
      };
    default:
      return held(EFFORT[stage.kind]);
  }
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
    const outcome = goodOutcome(stage, classes);
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
      hands: EFFORT.putBack.base + EFFORT.putBack.perLine * debts,
      wait: 0,
      close: 0,
    },
    {
      stage: 'signing',
      kind: 'checks',
      title: 'Sign and seal',
      part: null,
      hands: EFFORT.signing,
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
