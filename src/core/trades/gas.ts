import type { Trade } from './trade';

export const gas: Trade = {
  title: 'gas',
  has: (s) => s.medium === 'natural gas' || s.medium === 'air',
  palette: ['tee', 'valve', 'appliance', 'regulator', 'meter', 'point', 'cap', 'joint', 'fitting', 'source'],
  source: 'supply',
};
