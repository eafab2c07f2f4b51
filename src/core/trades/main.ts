import { waterBrief, waterPlain } from './briefs';
import type { Trade } from './trade';

export const main: Trade = {
  name: 'main',
  carries: ['water'],
  serves: { main: 'buried main' },
  called: 'water pipework',
  fuel: false,
  pressed: true,
  stiff: true,
  source: 'supply',
  palette: ['tee', 'valve', 'cap', 'vent', 'point', 'fitting', 'joint', 'meter', 'source'],
  whole: ['designPressure', 'gasInside'],
  heights: ['testPoint', 'highest', 'lowest'],
  protection: ['raise', 'fluid'],
  plain: waterPlain,
  brief: waterBrief,
  watch: [
    'Soft ground, a wet trench or a pump that runs more often: call.',
    'The test says nothing about water quality.',
  ],
  face: ({ section, working, pipes }) => [
    ...working(),
    ...pipes(),
    ...section('Loss', 'losses', 2),
    ...section('Level', 'level', 1),
  ],
  first: {
    things: null,
    supplyValve: 'blank flange towards the live network',
    owner: 'water works',
    testPoint: 'test point at the pump',
    inScope: ['main between its two ends'],
    notCovered: ['service pipes'],
  },
};
