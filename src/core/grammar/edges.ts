import type { Edge } from './rule';

/** The edges of an outcome, in order. */
export const edgesOf = (on: Edge | readonly Edge[] | undefined): readonly Edge[] =>
  on === undefined ? [] : Array.isArray(on) ? (on as readonly Edge[]) : [on as Edge];
