import type { Trade } from './trade';

export const drain: Trade = {
  has: (s) => s.medium === 'drain',
  palette: ['tee', 'opening', 'cap', 'point', 'joint', 'valve', 'source'],
  first: {
    things: { list: 'surfaces', words: ['closet riser', 'floor drain', 'stack', 'opening filled at'] },
    supplyValve: 'test plug at the outlet',
    owner: 'owner of the house',
    testPoint: 'opening filled at',
    inScope: ['drain above the test plug'],
    notCovered: ['anything beyond the test plug'],
  },
};
