import { role } from '../role';

/** A closed section without any movement that counts, or within a permitted drop. */
export const tightness = role('tightness', {
  title: 'tightness hold',
  outcomes: (hold) => [
    'nil',
    'beyond',
    'rose',
    hold.judge ? 'unclear' : 'disagree',
    'confirm',
    ...(hold.allowance ? ['allowance', 'late'] : []),
    ...(hold.witness ? ['witness'] : []),
  ],
  good: () => 'nil',
  moves: true,
  outside: true,
  steps: true,
  still: true,
  drawn: true,
  paper: 'inspector',
  decides: true,
  endsEarly: 'beyond',
  tapped: true,
  words: {
    nil: 'no movement',
    allowance: 'within allowance',
    beyond: 'beyond the limit',
    rose: 'rose',
    disagree: 'readings disagree',
    unclear: 'not clear',
    late: 'read too late',
    confirm: 'pass, to be confirmed',
    witness: 'second place fell',
  },
  proves: 'nil',
  may: ['small-fall'],
  sees: true,
});
