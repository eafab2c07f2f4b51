import { waterBrief, waterPlain } from './briefs';
import type { Trade } from './trade';

export const drain: Trade = {
  name: 'drain',
  carries: ['drain'],
  serves: {},
  called: 'drain',
  fuel: false,
  pressed: false,
  stiff: false,
  source: 'supply',
  palette: ['tee', 'opening', 'cap', 'point', 'joint', 'valve', 'source'],
  whole: [],
  heights: ['slab', 'rim', 'fixture', 'lowest'],
  protection: ['sewage'],
  plain: waterPlain,
  brief: waterBrief,
  watch: [
    'Wet patches, gurgling or a smell near the drain: call.',
    'The test says nothing about slope, blockage or roots.',
  ],
  face: ({ section, pipes }) => [...section('Level', 'level', 3), ...pipes()],
  first: {
    things: { list: 'surfaces', words: ['closet riser', 'floor drain', 'stack', 'opening filled at'] },
    supplyValve: 'test plug at the outlet',
    owner: 'owner of the house',
    testPoint: 'opening filled at',
    inScope: ['drain above the test plug'],
    notCovered: ['anything beyond the test plug'],
  },
};
