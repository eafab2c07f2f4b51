/** What a record says in figures and names, for lists and courses over the years: taken from its plan and state once, when it is sealed. */
import type { Plan } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { type Exact, showChange, showExact } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import { gaugeOfHold, gaugesUsed } from '@/core/run/read';
import type { RunState } from '@/core/run/state';
import { stepTimes } from '@/core/run/step-times';
import { decidingHold, type Verdict } from '@/core/verdict/verdict';
import { limitsOf } from './face';

export interface LedgerFacts {
  /** When the test was begun and ended, ms; 0 where it has not ended. */
  readonly begun: number;
  readonly ended: number;
  readonly customer: string;
  readonly address: string;
  /** Of the judged hold: at what it began, how it moved, how long it took. */
  readonly pressure: string;
  readonly change: string;
  readonly held: string;
  readonly limits: readonly string[];
  readonly leak: string;
  readonly gaugeSerials: readonly string[];
  /** Of meter and appliances. */
  readonly serials: readonly string[];
  /** Minutes of each step. */
  readonly steps: readonly { readonly stage: string; readonly title: string; readonly minutes: number }[];
  /** What each gauge showed open to the air. */
  readonly zeros: readonly { readonly gauge: string; readonly at: number; readonly figure: Exact }[];
}
const present = (texts: readonly (string | undefined)[]): string[] => [
  ...new Set(texts.filter((t): t is string => !!t)),
];

/** @param verdict as sealed */
export function ledgerFacts(plan: Plan, state: RunState, verdict: Pick<Verdict, 'leakRate'>): LedgerFacts {
  const deciding = decidingHold(plan, state);
  const hold = deciding?.hold ?? null;
  const judging = hold && gaugeOfHold(plan, hold);
  const part = (deciding && plan.procedure.stages[deciding.visit.stage]?.part) ?? null;
  const used = gaugesUsed(state);
  return {
    begun: Date.parse(plan.made.at),
    ended: state.ending?.at ?? 0,
    customer: plan.site.customer,
    address: plan.site.address,
    pressure: hold ? showExact(hold.start.figure) : '',
    change: hold?.judgement ? showChange(hold.judgement.change) : '',
    held: hold?.judgement ? duration(hold.judgement.elapsedMs) : '',
    limits: judging ? limitsOf(plan, state, judging, part, hold).map((l) => `${l.name}: ${l.value}`) : [],
    leak: verdict.leakRate ? showFigure(verdict.leakRate) : '',
    gaugeSerials: present(plan.gauges.filter((g) => used.includes(g.id)).map((g) => g.serial)),
    serials: present([
      plan.system.meter.serial,
      ...[...plan.system.appliances, ...state.inventory].map((a) => a.serial),
    ]),
    steps: stepTimes(state).map(({ stage, title, minutes }) => ({
      stage,
      title,
      minutes: Number(minutes.toFixed(2)),
    })),
    zeros: state.visits.flatMap((v) => v.zeros).map(({ gauge, at, figure }) => ({ gauge, at, figure })),
  };
}
