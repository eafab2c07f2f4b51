import { role } from '../role';

/** A closed valve watched from the side it must keep pressure off. */
export const letBy = role('let-by', {
  title: 'let-by',
  says: 'a rise of',
  outcomes: () => ['proved', 'suspected', 'fell'],
  good: () => 'proved',
  outside: true,
  steps: true,
  still: true,
  drawn: true,
  paper: 'utility',
  tapped: true,
  apart: true,
  words: { proved: 'proved', suspected: 'suspected', fell: 'not proved' },
  provesBoundary: true,
  check: (hold, { fail }) => {
    if (!hold.limit) fail('limit', 'A let-by hold needs its limit.');
  },
});
