import { fuelBrief, fuelPlain } from './briefs';
import type { Trade } from './trade';

export const propane: Trade = {
  name: 'propane',
  carries: ['propane'],
  serves: {},
  called: 'gas pipework',
  fuel: true,
  pressed: true,
  stiff: false,
  source: 'cylinder or tank',
  palette: ['tee', 'valve', 'appliance', 'regulator', 'tank', 'point', 'cap', 'joint', 'fitting', 'source'],
  whole: ['setPressure', 'ventSetting', 'heatingValue', 'designPressure'],
  heights: [],
  protection: ['metalwork', 'raise', 'fluid'],
  plain: fuelPlain,
  brief: fuelBrief,
  watch: [
    'If you smell gas: touch no switch, shut the container valve if you can reach it safely, leave, and call from outside.',
    'A new container, hose or regulator is a new joint: have it looked at.',
  ],
  face: ({ working, tank, regulators, volume, pipes }) => [
    ...working(),
    ...tank(),
    ...regulators(),
    ...volume(),
    ...pipes(),
  ],
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
