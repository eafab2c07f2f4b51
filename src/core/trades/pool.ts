import { OUTLET_WORDS } from '@/core/installation/parts';
import { poolNetwork } from './pool/first';
import type { Trade } from './trade';

export const pool: Trade = {
  name: 'pool',
  carries: ['pool water'],
  serves: {},
  called: 'pool',
  fuel: false,
  pressed: true,
  stiff: true,
  parted: 'lines',
  practice: { section: 'pool-line', whole: 'pool-joins' },
  pressureOf: 'Pump working pressure',
  source: 'hose',
  palette: ['outlet', 'connection', 'equipment', 'tee', 'valve', 'fitting', 'joint', 'cap', 'point'],
  whole: ['surface'],
  heights: [],
  protection: ['raise'],
  brief: {
    meanwhile: 'Pump, heater and blower stay off and nobody bathes until you are told.',
    noticed: 'you have topped the pool up lately, seen wet ground, or air at the returns',
    without: 'the pool and its circulation',
    afterwards: (emergency) =>
      `If the level falls again, or air comes at the returns, call ${emergency || 'whoever looks after the pool'}.`,
  },
  plain: {
    tight: 'This line kept its water at the test pressure.',
    'within-allowance': 'This line lost a little water, within what the procedure allows.',
    'not-tight': 'This line loses water. It has to be found and mended before it is used.',
  },
  watch: [
    'Mark the level once a week, with the pump off, before topping up.',
    'Wet ground, a hollow beside the pool or air at the returns: call.',
  ],
  face: ({ section, pipes, working }) => [
    ...section('Lines', 'lines', 4),
    ...section('Place', 'place', 1),
    ...pipes(),
    ...working(),
    ...section('Plugs', 'plugs', 3),
  ],
  first: {
    things: { list: 'outlets', words: Object.values(OUTLET_WORDS) },
    drawn: poolNetwork,
    usual: { workingPressure: '0 psi', table: 'pvc-sch40', nominal: '2 in' },
    supplyValve: 'hose tap',
    owner: 'owner of the pool',
    testPoint: 'pump pot',
    inScope: ['lines of the pool'],
    notCovered: ['filter, pump and heater: equipment not tested', 'shell and liner'],
  },
};
