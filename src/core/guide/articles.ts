/**
 * What stands behind a figure of the bench or of a record, in words: one article for each "why?". The formulas and the published
 * sources stand beside it on the guide's page, as the Desk knows them; nothing here repeats a figure that a rule may change.
 */
export interface Article {
  readonly title: string;
  readonly text: readonly string[];
  /** Lines of the Desk that work it out. */
  readonly desk: readonly string[];
  /** Words of the guide that belong to it. */
  readonly words?: readonly string[];
}
const articles = {
  'leak-rate': {
    title: 'Leak rate from a fall',
    text: [
      'A closed section of known volume loses gas as its pressure falls. What left is the volume times the fall over the atmosphere, told at the conditions of free air; over the time of the hold it becomes a rate.',
      'A liquid hardly gives: there the fall times the stiffness of water, wall and trapped air says how much left.',
      'The rate at test pressure is not the rate at work. It is carried to the working pressure by the law of a pore (laminar) or of a hole (orifice); where nobody knows which, the record says both.',
    ],
    desk: ['leak-rate', 'rate-at-pressure', 'loss-from-fall', 'decay-loss', 'other-gas'],
    words: ['hold', 'permitted-drop'],
  },
  'smallest-leak': {
    title: 'What a hold could have shown',
    text: [
      'Every hold has a smallest leak that it shows: the movement that the gauge can honestly show, widened by its steps and by what an unlogged temperature may do, over the volume and the time.',
      'It is asked that a leak of that size would have been seen nineteen times of twenty. A longer hold, a smaller section or a finer gauge shows smaller leaks.',
      'It stands on every record beside the result, as a line of its own: the rule judges, and the line says what the rule’s hold could not have seen. Where no published rule exists it may be binding; then a hold that could not have seen the leak that matters ends Inconclusive.',
    ],
    desk: ['smallest-leak-gas', 'smallest-leak-liquid', 'needed-hold-gas', 'needed-hold-liquid'],
    words: ['perceptible', 'adequacy'],
  },
  'leak-that-matters': {
    title: 'The leak that matters',
    text: [
      'Not every leak is worth finding: each procedure names the smallest that it is asked to find, in litres an hour or in flow, with where that figure comes from.',
      'Before a test the plan shows whether section, gauge and minutes can show it, and what would have to change if not.',
    ],
    desk: ['needed-hold-gas', 'needed-hold-liquid', 'refrigerant-loss'],
    words: ['adequacy'],
  },
  'hold-length': {
    title: 'How long a hold lasts',
    text: [
      'Three lengths are compared and the longest stands: the minutes of the rule, those of the house, and those that this gauge needs in this volume to show the leak that matters.',
      'A permitted drop belongs to the rule’s own minutes: read later it passes only if it is still inside, otherwise the hold is made again. Where nothing may move, a longer hold counts as well.',
    ],
    desk: [
      'needed-hold-gas',
      'needed-hold-liquid',
      'new-line-hold',
      'air-test-hold',
      'dry-hold',
      'dial-watch',
    ],
    words: ['hold', 'house'],
  },
  volume: {
    title: 'Volume of the section',
    text: [
      'Bore times length of each pipe, with what the meter and the appliances hold. Lengths are mostly paced, so that it is known to about a tenth; the figure says so.',
      'Better is measured: shut the supply, draw a known amount, and see by how much the pressure falls; or count the strokes of a pump whose stroke was measured.',
    ],
    desk: ['pipe-volume', 'drawn-volume', 'stroke-volume'],
    words: ['section'],
  },
  stiffness: {
    title: 'Stiffness of a full section',
    text: [
      'How much more water a full section takes for one more bar: the water itself gives a little, the wall gives some, trapped air gives most. Little means that a drop lost shows at once; much means that air or soft pipe hides it.',
      'By the same figure warmth is reckoned: water stretches more than the pipe around it, so that one kelvin moves the gauge by tenths of a bar in rigid pipe.',
    ],
    desk: ['stiffness', 'pipe-stiffness', 'trapped-air', 'liquid-fall', 'liquid-temperature'],
    words: ['stretch'],
  },
  'test-pressure': {
    title: 'Test pressure',
    text: [
      'The rule names a multiple of the working pressure or a figure of its own; the weakest part in scope caps it. Through appliances it is the lowest maximum inlet pressure on any plate.',
      'Along a slope the gauge does not stand where the pressure is highest: the height between both is counted.',
    ],
    desk: [
      'air-test-pressure',
      'hydraulic-pressure',
      'strength-pressure',
      'pool-pressure',
      'main-heights',
      'lock-up',
    ],
    words: ['weakest-element', 'strength-test'],
  },
  band: {
    title: 'The band a stage stands in',
    text: [
      'A hold begins only inside its band; both ends count as inside. Below it a leak may not show, above it something could be damaged.',
      'A band that cannot be reached or held with the source closed is a finding: the section loses what was put in.',
    ],
    desk: ['seepage-start', 'plastic-school-a', 'gauge-part'],
    words: ['settle'],
  },
  permitted: {
    title: 'What may move, and which way',
    text: [
      'Nil unless the rule says otherwise: then a fall as large as the gauge can honestly show is a leak. A permitted drop holds for exactly the case that it was written for, and the record names that case.',
      'Every limit says whether it is broken at the figure or above it. A rise is never proof: something let pressure in, or something warmed.',
    ],
    desk: ['plastic-school-b', 'drain-loss', 'drain-level', 'duct-floor-limit', 'duct-surface-limit'],
    words: ['permitted-drop', 'perceptible'],
  },
  'make-up': {
    title: 'Water that a main may take',
    text: [
      'A main is brought back to its test pressure and what it took is measured. Schools differ in what it may take: one reckons by length, bore and the root of the pressure, another by what wall and water give over a set fall.',
    ],
    desk: ['main-loss-us', 'main-loss-eu', 'main-air-check'],
    words: ['make-up'],
  },
  temperature: {
    title: 'Temperature against the limit',
    text: [
      'Gas in a closed section follows its absolute temperature: at test pressures of gas pipe a tenth of a kelvin moves more than the gauge shows. That is why one waits for it to settle, and logs it where the hold is long.',
      'A logged temperature explains and warns; what was read judges. Where both say otherwise the result is Inconclusive, and the hold is made again.',
    ],
    desk: ['gas-temperature', 'liquid-temperature', 'nitrogen-temperature', 'water-density'],
    words: ['settle'],
  },
  explained: {
    title: 'How long warmth or stretch could explain a fall',
    text: [
      'After filling, gas cools and plastic gives way: the gauge falls though nothing leaves. Both die away in a time that is known at most.',
      'Ended before that time a fall answers nothing. After it, it is a leak: own kit first, then the repeats that the rule asks for.',
    ],
    desk: ['stretch', 'gas-temperature'],
    words: ['settle', 'stretch'],
  },
  'kit-loss': {
    title: 'What your own kit loses',
    text: [
      'Hoses, adaptors and plugs leak too. Before pipe is accused they are soaped, or tested alone; where a flow is measured, what they lose is measured by itself and told beside the result.',
    ],
    desk: ['duct-reading', 'decay-loss'],
    words: ['blank-test'],
  },
  'valve-difference': {
    title: 'The difference across a valve',
    text: [
      'A closed valve is proved by letting the section stand clearly below its supply and looking for a rise. With nearly equal pressures nothing would flow through a valve that passes, and a leak beyond it may take away what comes in.',
      'Two holds at two pressures tell them apart: what comes in changes otherwise than what goes out.',
    ],
    desk: ['two-slopes', 'balance-pressure'],
    words: ['let-by', 'seepage'],
  },
  regulator: {
    title: 'The regulator of a cylinder',
    text: [
      'It must reach the test pressure and stop there: one whose range ends far above lets a slip of the hand raise the section beyond its weakest part. It is wound out before the cylinder is opened.',
    ],
    desk: ['stored-energy'],
    words: ['weakest-element'],
  },
  energy: {
    title: 'What stands under pressure',
    text: [
      'Compressed gas gives back all that was put into it, at once; water gives back next to nothing. The figure is reckoned for this section at this pressure, and beside it what the same section holds full of water.',
    ],
    desk: ['stored-energy', 'pool-thrust'],
  },
  'dial-watch': {
    title: 'Watching a meter’s dial',
    text: [
      'A dial that stands still shows that less than its smallest visible part went through in the time it was watched. How long that takes depends on how much one turn is.',
    ],
    desk: ['dial-watch', 'dial-rate'],
    words: ['seepage'],
  },
  'appliance-input': {
    title: 'Input of an appliance by the dial',
    text: [
      'One appliance runs alone; what the dial counts in a time, times what the gas carries, is its input.',
    ],
    desk: ['dial-rate'],
  },
  vacuum: {
    title: 'A standing vacuum',
    text: [
      'With the pump shut off a dry and tight circuit rises a little and flattens. An even rise is a leak; one that flattens far up is water boiling off.',
    ],
    desk: ['standing-vacuum'],
    words: ['vacuum'],
  },
  ps: {
    title: 'PS of a side',
    text: [
      'The most that a side of a circuit may ever see: what its plate says, otherwise the pressure at which its refrigerant begins to boil at the design temperature of that side.',
    ],
    desk: ['saturation', 'strength-pressure'],
    words: ['ps'],
  },
  'duct-limit': {
    title: 'What ducts may lose',
    text: [
      'One school counts floor area at one pressure, another the surface of the duct at the test pressure by classes. A reading at another pressure is carried over by the exponent of the openings.',
    ],
    desk: [
      'duct-floor-limit',
      'duct-surface-limit',
      'duct-flow',
      'duct-halving',
      'duct-exponent',
      'duct-range',
    ],
    words: ['exponent'],
  },
  level: {
    title: 'Litres per millimetre',
    text: [
      'Where a level is read, what is lost is the fall times all free surfaces that fall with it: the opening one looks at, and every other one that stands open.',
    ],
    desk: ['drain-level', 'drain-head', 'pool-volume', 'pool-bucket'],
    words: ['level'],
  },
  heading: {
    title: 'Where a hold is heading',
    text: [
      'A line through what was read so far, with how far it may be off. It advises: to look for the reason, or to put another gauge on. It never ends a hold and never makes anything tight.',
    ],
    desk: ['leak-rate', 'stretch', 'gas-temperature'],
    words: ['analysis'],
  },
  limit: {
    title: 'Limits of a record',
    text: [
      'Each limit that a record was judged by stands with its source and with whether it is broken at the figure or above it. Sources name an edition: look which one is in force where you work.',
    ],
    desk: [],
    words: ['permitted-drop', 'pack'],
  },
} as const satisfies Readonly<Record<string, Article>>;
/** Names an article. */
export type ArticleId = keyof typeof articles;
export const ARTICLES: Readonly<Record<ArticleId, Article>> = articles;
