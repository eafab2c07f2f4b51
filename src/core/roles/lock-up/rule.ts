import { needsBounds, role } from '../role';

/** A regulator shut tight against no flow. */
export const lockUp = role('lock-up', {
  outcomes: () => ['holds', 'creeps', 'fell', 'too-low', 'too-high'],
  good: () => 'holds',
  anywhere: true,
  check: needsBounds,
});
