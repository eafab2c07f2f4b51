/** What our own methods are called where a figure names its source, each in one place. */
export const SOURCES = {
  gasLeak: 'Smallest visible leak of a closed gas section',
  liquidLeak: 'Smallest visible leak of a section full of liquid',
  levelLeak: 'All free surfaces at the level, not the opening alone',
  elastic: 'Elastic water and pipe wall',
  surfaces: 'All free surfaces at the level',
  makeUp: 'Make-up at test pressure',
} as const;

/** The same sources as records of the first format carry them: such a record is judged again in its own words. */
const FIRST_FORMAT: readonly (readonly [string, string])[] = [
  [SOURCES.gasLeak, `${SOURCES.gasLeak}; measurement chapter 7.3`],
  [SOURCES.liquidLeak, `${SOURCES.liquidLeak}; measurement chapter 7.3`],
  [SOURCES.levelLeak, `${SOURCES.levelLeak}; water chapter 3.2`],
  [SOURCES.elastic, `${SOURCES.elastic}; measurement chapter 7.2`],
  [SOURCES.surfaces, `${SOURCES.surfaces}; water chapter 3.2`],
  [SOURCES.makeUp, `${SOURCES.makeUp}; water chapter 3.6`],
  [
    'Ideal gas in a closed section (Boyle and Charles)',
    'Ideal gas in a closed section (Boyle and Charles); measurement chapter 7.1',
  ],
  ['Meter dial as a flow meter', 'Meter dial as a flow meter; fuel gas chapter 2.4'],
];
/** A source in the words of the first record format. */
export const sourceOfFirstFormat = (source: string): string =>
  FIRST_FORMAT.find(([now]) => now === source)?.[1] ?? source;
