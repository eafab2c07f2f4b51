import type { Trade } from './trade';

export const main: Trade = {
  title: 'main',
  has: (s) => s.medium === 'water' && s.duty === 'main',
  palette: ['tee', 'valve', 'cap', 'point', 'fitting', 'joint', 'meter', 'source'],
  source: 'live network',
  first: {
    things: null,
    supplyValve: 'blank flange towards the live network',
    owner: 'water works',
    testPoint: 'test point at the pump',
    inScope: ['main between its two ends'],
    notCovered: ['service pipes'],
  },
};
