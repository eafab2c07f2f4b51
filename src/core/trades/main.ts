import type { Trade } from './trade';

export const main: Trade = {
  title: 'main',
  has: (s) => s.medium === 'water' && s.duty === 'main',
  palette: ['tee', 'valve', 'cap', 'point', 'fitting', 'joint', 'meter', 'source'],
  source: 'live network',
};
