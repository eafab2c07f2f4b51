import { needsBounds, role } from '../role';

/** A regulator shut tight against no flow. */
export const lockUp = role('lock-up', {
  title: 'lock-up watch',
  against: 'bounds',
  regulator: true,
  outcomes: () => ['holds', 'creeps', 'fell', 'too-low', 'too-high'],
  good: () => 'holds',
  paper: 'utility',
  words: {
    holds: 'holds',
    creeps: 'creeps',
    fell: 'fell',
    'too-low': 'too low',
    'too-high': 'too high',
    vents: 'reaches the vent setting',
  },
  anywhere: true,
  check: needsBounds,
});
