import type { Trade } from './trade';

export const propane: Trade = {
  has: (s) => s.medium === 'propane',
  palette: ['tee', 'valve', 'appliance', 'regulator', 'tank', 'point', 'cap', 'joint', 'fitting', 'source'],
  first: {
    things: {
      list: 'appliances',
      words: ['hob', 'heater', 'refrigerator', 'water heater', 'grill', 'other appliance'],
    },
    supplyValve: 'container valve',
    owner: 'customer',
    testPoint: 'test port behind the regulator',
    inScope: ['pipework from the container valve to every appliance'],
    notCovered: ['the container itself'],
  },
};
