import { waterBrief } from './briefs';
import type { Trade } from './trade';

export const water: Trade = {
  name: 'water',
  has: (s) => s.medium === 'water' && s.duty !== 'main',
  called: 'water pipework',
  fuel: false,
  pressed: true,
  stiff: true,
  source: 'supply',
  palette: [
    'tee',
    'valve',
    'appliance',
    'loop',
    'fitting',
    'point',
    'tap',
    'vent',
    'cap',
    'meter',
    'tested',
    'joint',
    'source',
  ],
  protection: ['raise', 'fluid'],
  brief: waterBrief,
  watch: [
    'Look at ceilings, floors and the manifold for damp in the first weeks.',
    'A pressure that has to be filled up again and again, or a meter that turns with everything shut, is a loss: call.',
  ],
  face: ({ section, working, pipes }) => [
    ...section('Applied', 'applied', 1),
    ...working(),
    ...pipes(),
    ...section('Loops', 'loops', 3),
    ...section('Left under watch', 'watch', 1),
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
