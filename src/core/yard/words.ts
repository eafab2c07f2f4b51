/** What a person who practises can conclude: each cause in the words that stand on the sheet. */
export const CAUSES = {
  sound: 'Nothing: it is sound',
  'pipe-leak': 'A leak in the pipework',
  'appliance-leak': 'A leak at an appliance or end',
  'valve-passes': 'A closed valve passes',
  'valve-and-leak': 'A closed valve passes, and there is a leak',
  kit: 'Own kit: hose, connection, plug, fan',
  gauge: 'The gauge',
  temperature: 'Temperature',
  stretch: 'Stretch of the pipe',
  air: 'Trapped air',
  drawn: 'Somebody used it meanwhile',
  'left-out': 'A part was kept out of the test',
  regulator: 'The regulator',
  moisture: 'Moisture',
  supply: 'What was brought is wrong: gas, jet, fan ring',
  joins: 'Lines that are joined',
  unknown: 'Cannot tell from this test',
} as const;
export type Cause = keyof typeof CAUSES;
/** What is asked of a conduct, in the order in which it is told. */
export const ABOUT = {
  safety: 'Safety',
  boundary: 'Boundary proved',
  gauge: 'Gauge',
  waits: 'Waits',
  readings: 'Readings',
  verdict: 'Verdict',
  cause: 'Cause',
  place: 'Place',
  'put-back': 'Put back',
  words: 'Words to people',
} as const;
export type About = keyof typeof ABOUT;
/** What a scenario trains: the traps there are. */
export const TRAPS = {
  balance: 'Let-by and leak in balance',
  allowance: 'A fall inside the allowance that is pipe',
  gauge: 'A gauge that is wrong',
  kit: 'Own kit that leaks',
  closed: 'A part that was kept out',
  temperature: 'Warmth and cold',
  occupants: 'People in the building',
  air: 'Trapped air',
  stretch: 'Pipe that stretches',
  smell: 'Smell of gas',
  pressed: 'Being pressed to skip',
  regulator: 'Regulators',
  electricity: 'Voltage and bond',
  plug: 'Plugs and thrust',
  level: 'Levels and bounce',
  joins: 'Lines that are joined',
  dye: 'Signs that prove nothing',
  range: 'Below the range',
  moisture: 'Moisture or leak',
  'wrong-thing': 'Wrong gas, wrong ring',
  sound: 'Leaving a sound system alone',
  record: 'A record to be refused',
} as const;
export type Trap = keyof typeof TRAPS;

/** How it ended, from best to worst. */
export const ENDS = {
  mastered: 'Mastered',
  right: 'Right, with gaps',
  lucky: 'Right, without proof',
  wrong: 'Wrong',
  dangerous: 'Stopped: dangerous',
  unfinished: 'Not finished',
} as const;
export type End = keyof typeof ENDS;
/** How it is practised. */
export const WAYS = {
  guided: 'Guided: the bench says why at each step',
  free: 'Free: as on site',
  exam: 'Exam: sealed, timed, without hints',
  replay: 'Again from where it went wrong',
} as const;
export type Way = keyof typeof WAYS;
/** Ways in which a scenario can be begun or set; the last takes up one that is over. */
export const BEGUN = ['guided', 'free', 'exam'] as const satisfies readonly Way[];
