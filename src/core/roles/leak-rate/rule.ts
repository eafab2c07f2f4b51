import { role } from '../role';

/** A fall turned into a rate, and the rate into a class of the procedure. */
export const leakRate = role('leak-rate', {
  title: 'measurement',
  against: 'nothing',
  says: 'the fall gives the leak rate; a rise gives none',
  outcomes: (_, classes) => [...classes, 'rose'],
  good: (classes) => classes[0] ?? '',
  moves: true,
  paper: 'inspector',
  decides: true,
  words: { rose: 'rose' },
  allows: (_, classes) => classes[0],
  check: (_, { classed, fail }) => {
    if (!classed) fail('role', 'A leak-rate hold needs the classes of the procedure.');
  },
});
