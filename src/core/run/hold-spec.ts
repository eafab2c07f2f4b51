/** What a hold is: its role, band, and minutes by rule, by house standard and by need. */
import { type FormulaContext, known, minutesOf, type Working } from '@/core/formula';
import { edgesOf } from '@/core/grammar/edges';
import type { BandSpec, Edge, MinutesSpec } from '@/core/grammar/rule';
import type { Gauge } from '@/core/instrument/gauge';
import type { HoldStage, Stage } from '@/core/kinds';
import { bandOf, type ResolvedBand } from '@/core/plan/limits';
import { applies, caseOf, type Plan, ruleOf } from '@/core/plan/plan';
import { type Exact, parseWithUnit, showExact, toNumber } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import { asFlow } from '@/core/trades/circuit/mass';
import { type HoldRole, roleOf } from '@/core/roles';
import { type Hidden, hiddenBehind } from './hidden';
import { holdSees } from './hold-sees';
import { contextOf, currentCycle, currentVisit, gaugeOf, stageOf } from './read';
import type { RunState } from './state';

/** Minutes of a hold, each with where it comes from; the planned ones are counted down. */
export interface HoldMinutes {
  readonly rule: number;
  readonly source: string;
  readonly working?: Working;
  readonly house: number | null;
  readonly houseSource: string;
  /** null: not asked of this hold; 'over-a-day': no hold of a day would be enough. */
  readonly needed: number | 'over-a-day' | null;
  readonly planned: number;
}
export interface HoldSpec {
  readonly role: HoldRole;
  readonly band: ResolvedBand | null;
  /** Why the band is not known yet. */
  readonly missing: string;
  readonly minutes: number;
  readonly times: HoldMinutes;
  readonly source: string;
}

/** The leak that matters in this part's case, l/h. */
export function leakThatMatters(plan: Plan, part?: string | null): Exact {
  const own = parseWithUnit(
    caseOf(plan, part).leakThatMatters ?? ruleOf(plan, part).adequacy.leakThatMatters,
  );
  return UNITS[own.unit].dimension === 'mass-flow' ? asFlow(own, plan.system) : own;
}
/** The same as a rule says it: a circuit's is a mass of its refrigerant. */
export function mattersWords(plan: Plan, part?: string | null): string {
  const own = parseWithUnit(
    caseOf(plan, part).leakThatMatters ?? ruleOf(plan, part).adequacy.leakThatMatters,
  );
  const flow = leakThatMatters(plan, part);
  return own.unit === flow.unit
    ? showExact(own)
    : `${showExact(own)} of refrigerant, ${showExact(flow)} as gas`;
}

/** The rule's own minutes: a figure, or a formula worked out. */
function ruleMinutes(
  plan: Plan,
  part: string | null | undefined,
  spec: MinutesSpec,
  context: FormulaContext,
): { minutes: number; working?: Working } {
  if (typeof spec === 'number') return { minutes: spec };
  const rule = spec.unless?.find((u) => applies(plan, part, u.when))?.rule ?? spec.rule;
  if (typeof rule === 'number') return { minutes: rule };
  return minutesOf(rule, context);
}

/**
 * Rule, house and need of a timed stage. The longest is planned where the pack says so; a need of more than a day is
 * said, not planned.
 */
export function minutesFor(
  plan: Plan,
  state: RunState,
  part: string | null | undefined,
  spec: MinutesSpec,
  source: string,
  judged: boolean,
  judging?: Gauge | null,
): HoldMinutes {
  const { minutes, working } = ruleMinutes(plan, part, spec, contextOf(plan, state, part));
  const { plans, house, houseSource }: Exclude<MinutesSpec, number> =
    typeof spec === 'number' ? { rule: spec, plans: 'rule' } : spec;
  const sees =
    judged && plans === 'longest'
      ? known(() => holdSees(plan, state, part, judging ?? gaugeOf(plan, state)))
      : null;
  const needed =
    sees && 'value' in sees && sees.value
      ? (sees.value.needed(toNumber(leakThatMatters(plan, part))) ?? 'over-a-day')
      : plans === 'apart'
        ? (hiddenIn(plan, state, part)?.holds?.minutes ?? null)
        : null;
  return {
    rule: minutes,
    source,
    ...(working ? { working } : {}),
    house: house ?? null,
    houseSource: houseSource ?? 'House standard',
    needed,
    planned:
      plans === 'rule' ? minutes : Math.max(minutes, house ?? 0, typeof needed === 'number' ? needed : 0),
  };
}

/** What a passing valve could hide from the let-by as held and the tightness test as planned. */
export function hiddenIn(plan: Plan, state: RunState, part: string | null | undefined): Hidden | null {
  const tight = Object.values(plan.procedure.stages).find(
    (s): s is HoldStage =>
      s.kind === 'hold' && roleOf(s.role).sees === true && (s.part ?? null) === (part ?? null),
  );
  const times = tight && known(() => minutesFor(plan, state, part, tight.minutes, tight.minutesSource, true));
  if (!times || 'missing' in times) return null;
  const matters = leakThatMatters(plan, part);
  return hiddenBehind(
    plan,
    state,
    part,
    times.value.planned,
    convert(toNumber(matters), matters.unit, 'm3/s'),
  );
}
/** The band of a stage, null where it has none; or what is still missing to know it. */
export function stageBand<S extends { readonly part?: string; readonly band?: BandSpec }>(
  plan: Plan,
  state: RunState,
  stage: S,
) {
  type Found = S extends { readonly band: BandSpec } ? ResolvedBand : ResolvedBand | null;
  const context = contextOf(plan, state, stage.part);
  return known(() => (stage.band ? bandOf(stage.band, context, plan, stage.part) : null) as Found);
}

/**
 * The window over which a settling period must stand still, ms: max(60 s, a tenth of the hold that follows it). Source:
 * general rules of judging
 */
export const steadyWindow = (holdMinutes: number): number => Math.max(60_000, (holdMinutes * 60_000) / 10);

/** Minutes of the hold that a settling period leads to; its own where none follows. */
export function heldAfter(plan: Plan, state: RunState, stage: HoldStage, own: number): number {
  // plans of the first format took a tenth of the settling period itself
  if (plan.format < 2) return own;
  const seen = new Set<string>();
  let next: Stage | undefined = stage;
  for (let outcome = 'settled'; next; outcome = next ? goodEnd(next) : '') {
    const edge: Edge | undefined = edgesOf(next.on[outcome]).find((e) => applies(plan, stage.part, e.when));
    const key: string | undefined = edge?.to;
    if (!key || seen.has(key)) return own;
    seen.add(key);
    next = plan.procedure.stages[key];
    if (next?.kind === 'hold' && next.role !== 'settle') {
      const { role, part, minutes, minutesSource } = next;
      const sees = roleOf(role).sees ?? false;
      const found = known(() => minutesFor(plan, state, part, minutes, minutesSource, sees));
      // what a coarse gauge would need is not what the rule, or the firm, calls the hold
      return 'missing' in found ? own : Math.max(found.value.rule, found.value.house ?? 0);
    }
  }
  return own;
}
const goodEnd = (stage: Stage): string =>
  stage.kind === 'fill'
    ? 'in-band'
    : stage.kind === 'zero'
      ? 'zeroed'
      : stage.kind === 'hold'
        ? 'settled'
        : 'done';

/** How long a hold of this stage is, each figure with where it comes from. */
export function lengthOf(plan: Plan, state: RunState, stage: HoldStage) {
  const sees = roleOf(stage.role).sees ?? false;
  const times = minutesFor(plan, state, stage.part, stage.minutes, stage.minutesSource, sees);
  // a settling period counts down to where its window can be full
  const minutes =
    stage.until === 'steady' && plan.format >= 2
      ? Math.max(times.planned, steadyWindow(heldAfter(plan, state, stage, times.planned)) / 60_000)
      : times.planned;
  return { times, minutes };
}

/** What the next or running hold is; null where the stage holds nothing. */
export function holdSpec(plan: Plan, state: RunState): HoldSpec | null {
  const visit = currentVisit(state);
  if (!visit) return null;
  const stage = stageOf(plan, visit);
  if (stage.kind !== 'hold' && stage.kind !== 'isolate-and-repeat') return null;
  const found = stageBand(plan, state, stage);
  const [band, missing] = 'missing' in found ? [null, found.missing] : [found.value, ''];
  if (stage.kind === 'hold')
    return { role: stage.role, band, missing, ...lengthOf(plan, state, stage), source: stage.minutesSource };
  const settled = currentCycle(visit)?.settle?.judgement !== undefined;
  const minutes = settled ? stage.minutes : stage.settleMinutes;
  const times = minutesFor(plan, state, stage.part, minutes, stage.minutesSource, false);
  return {
    role: settled ? 'tightness' : 'settle',
    band,
    missing,
    minutes,
    times,
    source: stage.minutesSource,
  };
}
