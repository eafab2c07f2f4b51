import type { Trade } from './trade';

export const water: Trade = {
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
  first: {
    things: { list: 'loops', words: ['loop'] },
    supplyValve: 'stop valve',
    owner: 'owner of the house',
    testPoint: 'test point at the pump',
    inScope: ['pipework behind the stop valve'],
    notCovered: ['anything upstream of the stop valve'],
  },
};
