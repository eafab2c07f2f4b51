import type { VisitTask } from '@/core/visit/types';

/** A task of a visit that needs nothing and waits for nothing. */
export const task = (id: string, hands: number, more: Partial<VisitTask> = {}): VisitTask => ({
  id,
  title: id,
  kind: 'other',
  hands,
  wait: 0,
  close: 0,
  after: [],
  takes: [],
  frees: [],
  ...more,
});
