import type { Trade } from './trade';

export const drain: Trade = {
  title: 'drain',
  has: (s) => s.medium === 'drain',
  palette: ['tee', 'opening', 'cap', 'point', 'joint', 'valve', 'source'],
  source: 'sewer',
};
