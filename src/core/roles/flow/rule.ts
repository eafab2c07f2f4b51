import { needsBounds, role } from '../role';

/** The pressure that stands while gas flows. */
export const flow = role('flow', {
  title: 'flow test',
  against: 'bounds',
  regulator: true,
  outcomes: () => ['holds', 'too-low', 'too-high'],
  good: () => 'holds',
  paper: 'utility',
  words: { holds: 'holds', 'too-low': 'too low', 'too-high': 'too high', vents: 'reaches the vent setting' },
  anywhere: true,
  check: needsBounds,
});
