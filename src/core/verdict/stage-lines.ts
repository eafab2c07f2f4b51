import type { Plan } from '@/core/plan/plan';
import { COURSES } from '@/core/run/courses';
import type { RunState } from '@/core/run/state';

/** A stage of the record in its own words. */
export interface StageLine {
  readonly key: string;
  readonly title: string;
  readonly word: string;
  readonly text: string;
}

/** Each course of the run in the words of its stage. */
export const stageLines = (plan: Plan, state: RunState): StageLine[] =>
  state.visits.map((visit) => ({
    key: `${visit.ordinal}-${visit.stage}`,
    title: visit.title,
    ...(visit.skipped
      ? { word: 'skipped', text: `${visit.skipped.reason}: ${visit.skipped.text}` }
      : COURSES[visit.kind](visit, plan)),
  }));
