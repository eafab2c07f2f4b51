import { role } from '../role';

/** A closed section without any movement that counts, or within a permitted drop. */
export const tightness = role('tightness', {
  outcomes: (hold) => [
    'nil',
    'beyond',
    'rose',
    'disagree',
    'confirm',
    ...(hold.allowance ? ['allowance', 'late'] : []),
    ...(hold.witness ? ['witness'] : []),
  ],
  good: () => 'nil',
  proves: 'nil',
  may: ['small-fall'],
  sees: true,
});
