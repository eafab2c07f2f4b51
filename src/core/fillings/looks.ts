/** How a joint under pressure is looked at: dry or dripping, as records have always said it; with leak fluid under nitrogen. */
import type { Looks } from './filling';

export const DRIPS: Looks = {
  raised: 'pumped',
  none: 'dry',
  some: 'drips',
  where: 'Where does it drip?',
  say: 'Say where it drips',
  how: 'Look at every joint.',
  stopped: 'Pump stopped.',
};
export const BUBBLES: Looks = {
  raised: 'raised',
  none: 'no bubbles',
  some: 'bubbles',
  where: 'Where are the bubbles?',
  say: 'Say where the bubbles are',
  how: 'From the side, goggles on: listen, look for bubbles and a falling gauge.',
  stopped: 'Manifold shut.',
};
