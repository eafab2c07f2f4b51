import { role } from '../role';

/** Higher than any later pressure: does it burst, part or give way? */
export const strength = role('strength', {
  title: 'strength test',
  outcomes: () => ['withstood', 'fell', 'rose'],
  good: () => 'withstood',
  outside: true,
  still: true,
  drawn: true,
  paper: 'inspector',
  decides: true,
  endsEarly: 'fell',
  tapped: true,
  words: { withstood: 'withstood', fell: 'did not withstand', rose: 'rose' },
  named: 'withstood',
  sees: true,
});
