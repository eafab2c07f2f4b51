import { role } from '../role';

/** Higher than any later pressure: does it burst, part or give way? */
export const strength = role('strength', {
  outcomes: () => ['withstood', 'fell', 'rose'],
  good: () => 'withstood',
  words: { withstood: 'withstood', fell: 'did not withstand', rose: 'rose' },
  sees: true,
});
