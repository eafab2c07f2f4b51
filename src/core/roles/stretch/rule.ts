import { role } from '../role';

/** Plastic pipe gives way under pressure: it may fall by so much, and the fall must slow down. */
export const stretch = role('stretch', {
  title: 'hold without pumping',
  says: 'since pumping ended, a fall of',
  outcomes: (hold) => ['within', 'beyond', 'rose', ...(hold.slowing ? ['slowing', 'unread'] : [])],
  good: () => 'within',
  steps: true,
  drawn: true,
  paper: 'inspector',
  decides: true,
  bounded: true,
  tapped: true,
  words: { within: 'within the limit', beyond: 'beyond the limit', rose: 'rose' },
  proves: 'within',
  allows: (hold) => (hold.slowing ? 'within' : undefined),
  check: (hold, { fail }) => {
    if (!hold.fall) fail('fall', 'Say by how much stretched pipe may fall.');
  },
});
