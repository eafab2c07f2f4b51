/** Words of the trade and of the product, as the screens use them. */
export interface GuideWord {
  readonly term: string;
  readonly text: string;
  /** Other names under which somebody looks for it. */
  readonly also?: string;
}
const words = {
  'gauge-pressure': {
    term: 'gauge pressure',
    text: 'Pressure above the atmosphere: what a gauge shows. Absolute pressure is that and the barometer together; vacuum is read absolute.',
    also: 'absolute atmosphere barometer abs',
  },
  'let-by': {
    term: 'let-by',
    text: 'A closed valve that passes. The let-by test looks for a rise on the closed section, which stands clearly below its supply. Words of the stage: proved, suspected, not proved.',
    also: 'passing valve letting by',
  },
  settle: {
    term: 'settle (stabilisation)',
    text: 'The wait in which temperature and stretch even out. Re-adjusting is allowed and written down. A section that will not settle is a finding, not a delay.',
    also: 'stabilise steady wait',
  },
  hold: {
    term: 'hold',
    text: 'The timed period in which the gauge is watched, or the act of watching it. What is read at its end judges.',
  },
  'tightness-test': {
    term: 'tightness test',
    text: 'The timed hold that is judged: does this section keep what is in it?',
    also: 'leak test soundness',
  },
  'strength-test': {
    term: 'strength test',
    text: 'Shows that pipe and joints withstand more than they will ever see at work. It comes before tightness, and people stand back.',
    also: 'proof pressure',
  },
  'lock-up': {
    term: 'lock-up',
    text: 'The pressure at which a regulator shuts off when nothing flows. Creeping upwards it does not seal.',
    also: 'regulator creep',
  },
  seepage: { term: 'seepage', text: 'Let-by of the valve at a meter’s inlet.' },
  'drop-test': {
    term: 'drop test',
    text: 'A gas hold that begins at a pressure that was bled down, with the supply shut.',
  },
  'permitted-drop': {
    term: 'permitted drop',
    text: 'The movement that a rule allows for one case; nil unless a rule says otherwise.',
    also: 'allowance allowed fall limit',
  },
  perceptible: {
    term: 'perceptible movement',
    text: 'The smallest movement that a gauge can honestly show: some of its steps, or part of its scale. Smaller ones are called no movement.',
    also: 'pm resolution steps',
  },
  adequacy: {
    term: 'adequacy',
    text: 'Whether section, gauge and minutes together could have shown the leak that matters. It stands beside the result; binding only where a procedure says so.',
    also: 'sensitivity smallest leak good enough',
  },
  section: {
    term: 'section',
    text: 'What one hold answers for: everything between its boundaries. What lies outside was not tested, and the record says so.',
    also: 'scope',
  },
  boundary: {
    term: 'boundary',
    text: 'What closes a section: a valve, a plug, a cap. Every one is suspected until it is proved.',
    also: 'isolation',
  },
  'weakest-element': {
    term: 'weakest element',
    text: 'The part in scope that may take the least pressure. It caps every test pressure.',
    also: 'plate maximum inlet',
  },
  'make-up': {
    term: 'make-up',
    text: 'Liquid that is added to bring a section back to its test pressure; measured, it is what was lost.',
  },
  'blank-test': {
    term: 'blank test',
    text: 'A test of one’s own kit alone: hose, gauge, plug, before or after the pipe.',
    also: 'own kit',
  },
  'test-point': {
    term: 'test point',
    text: 'Where the gauge goes on: a nipple with a screw, a port, a tap. Its screw is soaped when it is back.',
    also: 'test nipple',
  },
  plug: {
    term: 'plug',
    text: 'What closes an open end. A closed plug seals; an open plug lets gauge or pressure in. Nobody stands in line with one.',
    also: 'test ball bung',
  },
  line: {
    term: 'line, outlet, end',
    text: 'Words of pools: a line is one set of joined pipes; its ends are its outlets and its connections to equipment.',
  },
  watch: {
    term: 'watch',
    text: 'A section left under pressure with a gauge on it, to be read later by whoever has its link.',
  },
  'put-back': {
    term: 'put-back list',
    text: 'What a test owes: water off, plug in, pilot out. Everything on it is settled before a run can be closed.',
    also: 'debts restore',
  },
  stretch: {
    term: 'stretch',
    text: 'Plastic pipe gives way under pressure for hours. A gauge falls by it though nothing leaves; pumped again at once it flatters.',
    also: 'creep relaxation plastic',
  },
  ps: {
    term: 'PS',
    text: 'The most that a side of a refrigerant circuit may ever see, as its plate says.',
    also: 'maximum allowable pressure',
  },
  vacuum: {
    term: 'standing vacuum',
    text: 'A circuit that was pumped down, shut off and watched: dry and tight it rises a little and flattens.',
    also: 'micron torr decay',
  },
  exponent: {
    term: 'exponent',
    text: 'How the flow through openings grows with pressure: about 0.65 for ducts. Two pressures show it.',
    also: 'n power law halving',
  },
  level: {
    term: 'level',
    text: 'Height of water against a mark. Two millimetres are movement; what that is in litres depends on all free surfaces.',
    also: 'drain pool',
  },
  tight: {
    term: 'Tight',
    text: 'No perceptible movement, and the procedure was complete.',
    also: 'verdict result pass passed',
  },
  'within-allowance': {
    term: 'Tight within allowance',
    text: 'It moved, but by no more than the rule permits for exactly this case; the record names the case.',
    also: 'verdict result',
  },
  'not-tight': {
    term: 'Not tight',
    text: 'It moved beyond what is permitted; or there were growing bubbles, a drip, a smell, a dial that turns.',
    also: 'verdict result fail failed leak',
  },
  void: {
    term: 'Void',
    text: 'The procedure was broken (a boundary not proved, the source still connected, a tap opened): no result.',
    also: 'verdict result invalid',
  },
  inconclusive: {
    term: 'Inconclusive',
    text: 'The procedure was kept, but what was read does not answer the question: an unexplained rise, warmth that says otherwise.',
    also: 'verdict result unclear',
  },
  refer: {
    term: 'Refer',
    text: 'The figure is sound, but somebody else judges it, or no rule fits the case.',
    also: 'verdict result',
  },
  'not-tested': {
    term: 'not tested',
    text: 'No verdict, but the state of a section: it stands under what was not covered.',
  },
  pack: {
    term: 'rule pack',
    text: 'The procedures and figures of one school and edition, with their sources. A record names the one that judged it.',
    also: 'rules edition jurisdiction',
  },
  house: {
    term: 'house figure',
    text: 'A figure of the firm or of the product where no published one exists. It may be stricter than the rule; what permits more prints its reason.',
    also: 'house standard',
  },
  run: {
    term: 'run',
    text: 'One conducted test, as a log of entries that nobody changes. All else is reckoned from it.',
    also: 'log entries',
  },
  seal: {
    term: 'seal',
    text: 'Signs a record with the organisation’s key and links it to the one before: any change shows.',
    also: 'record number signature',
  },
  certificate: {
    term: 'certificate',
    text: 'A sealed record of a licensed tester, with a gauge in date. Without them the same record says that it is not one.',
    also: 'licence',
  },
  wall: {
    term: 'wall',
    text: 'The drawing of a run in courses: each stage a course, as long as it took, with what came of it.',
    also: 'glyph courses',
  },
  analysis: {
    term: 'analysis',
    text: 'What the trace says by itself: leak, let-by, warmth, stretch, hands. It explains and warns; it never makes anything tight.',
    also: 'trace explained',
  },
} as const satisfies Readonly<Record<string, GuideWord>>;
export type GuideWordId = keyof typeof words;
export const GUIDE_WORDS: Readonly<Record<GuideWordId, GuideWord>> = words;
