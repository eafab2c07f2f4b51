import { role } from '../role';

/** Never below a pressure, the whole time. */
export const floor = role('floor', {
  title: 'hold without pumping',
  against: 'bounds',
  says: 'nobody pumps; no reading may lie below the line; a rise is normal here.',
  outcomes: () => ['kept', 'below', 'above'],
  good: () => 'kept',
  drawn: true,
  needsFloor: true,
  paper: 'inspector',
  decides: true,
  bounded: true,
  words: { kept: 'stays above its floor', below: 'fell below its floor', above: 'rose above its band' },
  proves: 'kept',
  check: (hold, { fail }) => {
    if (!hold.accept?.low) fail('accept.low', 'Say below which pressure it may not fall.');
  },
});
