import { circuitNetwork } from './circuit/first';
import { asMassWords } from './circuit/mass';
import type { Trade } from './trade';

export const refrigerant: Trade = {
  name: 'refrigerant',
  carries: ['refrigerant'],
  serves: {},
  called: 'refrigerant circuit',
  fuel: false,
  pressed: false,
  stiff: false,
  parted: 'sides',
  practice: { section: 'circuit', whole: 'circuit' },
  massOf: asMassWords,
  source: 'condensing unit',
  palette: [
    'condensing',
    'valve',
    'evaporator',
    'expansion',
    'receiver',
    'tee',
    'joint',
    'point',
    'fitting',
    'tested',
    'cap',
  ],
  whole: [],
  heights: [],
  protection: ['nitrogen', 'raise', 'fluid'],
  brief: {
    meanwhile:
      'Keep away from the pipes and the unit until we say that it is over: they stand under high pressure for part of the time. Leave doors and windows of the plant room open.',
    noticed: 'somebody has felt dizzy or smelt something sweet near the unit',
    without: 'cooling',
    afterwards: (emergency) =>
      `If somebody feels unwell near the unit when we are gone: leave the room, let air in from outside, and call${emergency ? `: ${emergency}` : ' for help'}.`,
  },
  plain: {
    tight: 'The pipes and joints inside the test lost nothing that the gauge could show.',
    'within-allowance': 'A little was lost, within what the rule allows.',
    'not-tight': 'The circuit leaks. It must not be charged until it is mended and tested again.',
  },
  watch: [
    'Oil on a joint, ice where there was none, or a unit that runs without end: call.',
    'The test says nothing of the unit’s own inside, nor of how it cools.',
  ],
  face: ({ section, volume, pipes }) => [
    ...section('Circuit', 'circuit', 4),
    ...volume(),
    ...pipes(),
    ...section('Raised to', 'raised', 2),
  ],
  first: {
    things: { list: 'evaporators', words: ['evaporator', 'solenoid valve', 'receiver'] },
    drawn: circuitNetwork,
    usual: { workingPressure: '0 bar', table: 'copper-thin', nominal: '22 × 0.9' },
    supplyValve: 'service valves',
    owner: 'owner of the unit',
    testPoint: 'gauge port',
    inScope: ['pipes, joints and evaporators between the service valves'],
    notCovered: [],
  },
};
