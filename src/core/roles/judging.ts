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
