import type { Trade } from './trade';

export const gas: Trade = {
  has: (s) => s.medium === 'natural gas' || s.medium === 'air',
  palette: ['tee', 'valve', 'appliance', 'regulator', 'meter', 'point', 'cap', 'joint', 'fitting', 'source'],
  first: {
    things: {
      list: 'appliances',
      words: ['boiler', 'hob', 'oven', 'fire', 'water heater', 'other appliance'],
    },
    supplyValve: 'supply valve at the meter',
    owner: 'gas network',
    testPoint: 'meter outlet',
    inScope: ['meter and pipework from the supply valve to every appliance'],
    notCovered: ['anything upstream of the supply valve'],
  },
};
