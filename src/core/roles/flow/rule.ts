import { needsBounds, role } from '../role';

/** The pressure that stands while gas flows. */
export const flow = role('flow', {
  outcomes: () => ['holds', 'too-low', 'too-high'],
  good: () => 'holds',
  anywhere: true,
  check: needsBounds,
});
