import { role } from '../role';

/** A circuit that was pumped empty and stands by itself: how its pressure comes back says what comes back. */
export const vacuum = role('vacuum', {
  title: 'standing vacuum',
  outcomes: () => ['held', 'leak', 'moisture', 'fell', 'unclear'],
  good: () => 'held',
  words: {
    held: 'vacuum held',
    leak: 'rises evenly: a leak',
    moisture: 'rises and flattens: moisture',
    fell: 'fell by itself',
    unclear: 'not clear yet',
  },
  proves: 'held',
  decides: true,
  bounded: true,
  comesBack: true,
  endsEarly: 'leak',
  against: 'shape',
  drawn: true,
  paper: 'inspector',
  check: (hold, { fail }) => {
    if (!hold.vacuum) fail('vacuum', 'Say up to which pressure it may stand, and which even rise is a leak.');
  },
});
