import type { Trade } from './trade';

export const water: Trade = {
  title: 'water',
  has: (s) => s.medium === 'water' && s.duty !== 'main',
  palette: [
    'tee',
    'valve',
    'appliance',
    'loop',
    'fitting',
    'point',
    'cap',
    'meter',
    'tested',
    'joint',
    'source',
  ],
  source: 'supply',
};
