/**
 * A tester who follows the bench: answers every line, raises, waits, reads and says what will not stand, whatever the section
 * does. Conducts whole runs: for tests of the judgement, and as the good and bad examples of practice; what the section really does comes from outside.
 */
import type { Stage } from '@/core/kinds';
import type { Plan } from '@/core/plan/plan';
import { checkLines, currentVisit, expectation, stageOf } from '@/core/run/read';
import { type Ended, Hand, type Manner, type Section, Stuck } from './hand';
import { turn } from './turns';

export type { Ended, Manner, Section } from './hand';

/** Conducts a run to its end, or to where it stands still. */
export function conduct(plan: Plan, section: Section, manner: Manner): Ended {
  const hand = new Hand(plan, section, manner);
  const { state } = hand;
  const tries = new Map<number, number>();
  const most = manner.most ?? 6000;
  let stalls = 0;
  try {
    for (let visit = currentVisit(state); visit; visit = currentVisit(state)) {
      if (hand.log.length > most) hand.stuck('too many entries');
      const before = expectation(state);
      const tried = (tries.get(visit.ordinal) ?? 0) + 1;
      tries.set(visit.ordinal, tried);
      const refused = manner.first?.(hand, visit.stage, tried)
        ? null
        : turn(hand, stageOf(plan, visit), tried);
      stalls = expectation(state) === before ? stalls + 1 : 0;
      if (stalls > 60) hand.stuck(refused?.text ?? 'nothing moves');
    }
    return { state, stuck: null, log: hand.log };
  } catch (error) {
    if (!(error instanceof Stuck)) throw error;
    return { state, stuck: error.message, log: hand.log };
  }
}

/** What the lines of a check list ask, for whoever wants to answer them otherwise. */
export const linesOf = (plan: Plan, stage: Extract<Stage, { kind: 'checks' }>) => checkLines(plan, stage);
