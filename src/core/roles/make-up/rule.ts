import { role } from '../role';

/** The water that brings the pressure back, against what may be added. */
export const makeUp = role('make-up', {
  title: 'make-up hold',
  against: 'water',
  outcomes: () => ['nil', 'within', 'beyond', 'no-limit', 'too-far', 'rose'],
  good: () => 'within',
  drawn: true,
  adjusts: true,
  measures: 'added',
  needsFloor: true,
  paper: 'inspector',
  decides: true,
  bounded: true,
  words: {
    nil: 'no movement',
    within: 'within the limit',
    beyond: 'beyond the limit',
    'no-limit': 'measured, no limit given',
    'too-far': 'fell too far to compare',
    rose: 'rose',
  },
  proves: 'nil',
  allows: () => 'within',
  check: (hold, { fail }) => {
    if (!hold.accept?.low) fail('accept.low', 'Say how far it may fall before the comparison is void.');
  },
});
