import { fuelBrief, fuelPlain } from './briefs';
import type { Trade } from './trade';

export const gas: Trade = {
  name: 'gas',
  carries: ['natural gas', 'air'],
  serves: {},
  called: 'gas pipework',
  fuel: true,
  pressed: true,
  stiff: false,
  source: 'supply',
  palette: ['tee', 'valve', 'appliance', 'regulator', 'meter', 'point', 'cap', 'joint', 'fitting', 'source'],
  whole: ['setPressure', 'ventSetting', 'heatingValue', 'designPressure'],
  heights: [],
  protection: ['metalwork', 'raise', 'fluid'],
  plain: fuelPlain,
  brief: fuelBrief,
  watch: [
    'If you smell gas: touch no switch, open windows, leave, and call from outside.',
    'Tell the tester before a part of it is changed, moved or added: what was tested is only what stood there that day.',
  ],
  face: ({ medium, working, meter, regulators, volume, pipes }) => [
    ...medium(),
    ...working(),
    ...meter(),
    ...regulators(),
    ...volume(),
    ...pipes(),
  ],
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
