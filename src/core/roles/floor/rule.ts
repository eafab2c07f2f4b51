import { role } from '../role';

/** Never below a pressure, the whole time. */
export const floor = role('floor', {
  outcomes: () => ['kept', 'below', 'above'],
  good: () => 'kept',
  proves: 'kept',
  check: (hold, { fail }) => {
    if (!hold.accept?.low) fail('accept.low', 'Say below which pressure it may not fall.');
  },
});
