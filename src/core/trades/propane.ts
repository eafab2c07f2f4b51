import type { Trade } from './trade';

export const propane: Trade = {
  title: 'propane',
  has: (s) => s.medium === 'propane',
  palette: ['tee', 'valve', 'appliance', 'regulator', 'tank', 'point', 'cap', 'joint', 'fitting', 'source'],
  source: 'cylinder or tank',
};
