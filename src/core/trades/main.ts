import type { Trade } from './trade';

export const main: Trade = {
  has: (s) => s.medium === 'water' && s.duty === 'main',
  palette: ['tee', 'valve', 'cap', 'point', 'fitting', 'joint', 'meter', 'source'],
  first: {
    things: null,
    supplyValve: 'blank flange towards the live network',
    owner: 'water works',
    testPoint: 'test point at the pump',
    inScope: ['main between its two ends'],
    notCovered: ['service pipes'],
  },
};
