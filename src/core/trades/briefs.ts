/** What several trades say alike to the people in the building. */
import type { Brief, Trade } from './trade';

export const fuelBrief: Brief = {
  meanwhile:
    'Until we say that it is over: please do not use any gas appliance, do not light or relight anything, and do not turn gas taps. The gas is off for part of the time.',
  noticed: 'you have smelt gas',
  without: 'heating or hot water',
  afterwards: (emergency) =>
    `If you smell gas when we are gone: no switches, no flames, open a window, leave and call from outside${emergency ? `: ${emergency}` : ''}.`,
};
export const waterBrief: Brief = {
  meanwhile:
    'Until we say that it is over: please draw no water, flush no toilet and start no machine. One draw ends the test and it begins again.',
  noticed: 'you have seen damp or heard water run',
  without: 'water',
  afterwards: () =>
    'If you see water where there should be none when we are gone, shut the stop valve and call us.',
};
export const fuelPlain: Trade['plain'] = {
  tight: 'The gas pipework and appliances inside the test lost no gas that the gauge could show.',
  'within-allowance':
    'The appliances let a small amount of gas by, within what the rule allows for this existing installation. The pipework itself lost none that the gauge could show.',
  'not-tight': 'The installation loses gas. It must not be used until it is repaired and tested again.',
};
export const waterPlain: Trade['plain'] = {
  tight: 'What is inside the test lost no water that could be seen or measured.',
  'within-allowance': 'It lost a little water, within what the rule allows.',
  'not-tight': 'It loses water. It must not be relied on until it is repaired and tested again.',
};
