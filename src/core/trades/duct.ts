import { ductNetwork } from './duct/first';
import type { Trade } from './trade';

export const duct: Trade = {
  name: 'duct',
  carries: ['ducted air'],
  serves: {},
  called: 'duct system',
  fuel: false,
  pressed: false,
  stiff: false,
  unpiped: true,
  staysInUse: true,
  practice: { section: 'duct', whole: 'duct' },
  source: 'air handler',
  palette: ['handler', 'register', 'intake', 'valve', 'tee', 'joint', 'point', 'tested'],
  whole: ['floorServed', 'ductSurface', 'ductPressure'],
  heights: [],
  protection: ['ducts'],
  brief: {
    meanwhile:
      'Keep doors as we leave them, open nothing that is masked, and start no heating, cooling or extractor until we say that it is over.',
    noticed: 'a register has always blown weakly, or the house is dusty or draughty when the fan runs',
    without: 'heating and cooling',
    afterwards: (emergency) =>
      `If heating or cooling does not start as it did before: call${emergency ? ` ${emergency}` : ' us'}.`,
  },
  plain: {
    tight: 'No air was lost that the fan could show.',
    'within-allowance': 'Some air is lost from the ducts, no more than the rule permits.',
    'not-tight':
      'The ducts lose more air than the rule permits. They should be sealed and tested again while they can be reached.',
  },
  watch: [
    'Dust, draughts or a room that stays cold: call, with the name of the register.',
    'Measured at one pressure throughout: it is not what the ducts lose while the fan of the house runs.',
  ],
  face: ({ section }) => [...section('Duct system', 'duct', 4)],
  first: {
    things: {
      list: 'registers',
      words: ['supply register', 'return grille', 'damper', 'outdoor air intake'],
    },
    drawn: ductNetwork,
    asks: ['floorServed'],
    supplyValve: '',
    owner: '',
    testPoint: 'fan at the air handler',
    inScope: ['ducts and plenums from the air handler to every register'],
    notCovered: ['what the ducts lose in service, at pressures that differ from place to place'],
  },
};
