/** What a role knows of a finished hold when it judges it. */
import type { FormulaContext } from '@/core/formula';
import type { Gauge } from '@/core/instrument/gauge';
import type { HoldStage } from '@/core/kinds';
import type { Plan } from '@/core/plan/plan';
import type { Limit } from '@/core/quantity/exact';
import type { Hold, RunState } from '@/core/run/state';
import type { HoldFacts, Judgement } from '@/core/verdict/judge';

export interface Judging {
  readonly plan: Plan;
  readonly state: RunState;
  readonly hold: Hold;
  readonly facts: HoldFacts;
  readonly gauge: Gauge;
  readonly part: string | undefined;
  readonly perceptible: Limit;
  readonly context: FormulaContext;
  /** The stage of the hold; null for one that a stage of another kind repeats. */
  readonly own: HoldStage | null;
}
export type RoleJudge = (j: Judging) => Judgement;

/** What a fall and a rise are judged by, for words and drawings; `nil`: nothing but the smallest movement that counts. */
export interface HoldLimits {
  readonly fall: Limit;
  readonly rise: Limit;
  readonly nil: boolean;
}
/** Limits of a role of its own. @param hold the hold itself where it runs: a floor counts from its start */
export type RoleLimits = (on: {
  readonly plan: Plan;
  readonly state: RunState;
  readonly stage: HoldStage;
  readonly gauge: Gauge;
  readonly hold: Hold | null;
  /** The smallest movement that counts. */
  readonly pm: Limit;
}) => HoldLimits;
