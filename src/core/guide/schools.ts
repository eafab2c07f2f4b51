/** Where practitioners differ: the question, the ways there are, what stands here unless a pack says otherwise, and why. */
export interface Difference {
  readonly question: string;
  readonly ways: readonly string[];
  readonly here: string;
}
export const DIFFERENCES: readonly Difference[] = [
  {
    question: 'Let-by before tightness?',
    ways: ['before', 'after', 'never'],
    here: 'Before, wherever a live valve bounds the section: what passes refills what leaks. Left out only where the section is parted from it, with the reason.',
  },
  {
    question: 'Zero with the hose on?',
    ways: ['before', 'after'],
    here: 'Before, open to air: zeroed under pressure a gauge hides it.',
  },
  {
    question: 'How long is an air test of gas pipe?',
    ways: ['10 min', '15 min', '60 min', 'over night'],
    here: 'The longest of what the rule, the house and the gauge ask for.',
  },
  {
    question: 'A let-by rise of exactly the limit',
    ways: ['passes', 'fails'],
    here: 'Fails, which is stricter; the pack says so and it prints.',
  },
  {
    question: 'May the pressure drop at all?',
    ways: ['never', 'nil on new and pipework, a table on existing', 'by leak rate'],
    here: 'As the pack says: a table only where all its conditions hold, and the leak rate is printed beside it.',
  },
  {
    question: 'A drop within the table',
    ways: ['accept it', 'shut the appliances off and prove the pipe'],
    here: 'Shut off and prove: the table is for appliances, not for pipe.',
  },
  { question: 'The valve of a cylinder', ways: ['looked at after', 'looked at before'], here: 'Before.' },
  {
    question: 'Pressure on pool lines',
    ways: ['10 to 25 psi', '15 to 20 psi, never above working'],
    here: 'The narrow one.',
  },
  {
    question: 'Hold of a pool line',
    ways: ['1 to 2 min', '10 to 20 min'],
    here: 'Ten minutes; less where the gauge shows that it is enough.',
  },
  {
    question: 'Water or air for pools',
    ways: ['air, it shows one’s own leaks', 'water, it decides'],
    here: 'Water decides, air finds the place.',
  },
  {
    question: 'Pressure through gas appliances',
    ways: ['1 psi', 'the lowest maximum inlet on a plate'],
    here: 'The plate; where nobody read it, 14 inWC, and above that they come off. Controls are damaged above it.',
  },
  {
    question: 'Plastic pipe after pumping',
    ways: ['fall to a third, 90 min', 'fall to half, 120 min', 'limits of the fall over three hours'],
    here: 'A third and 90 minutes; the others by choice.',
  },
  {
    question: 'A hold that could not have shown the leak that matters',
    ways: ['advice', 'Inconclusive'],
    here: 'Printed always; binding where no published rule exists.',
  },
  {
    question: 'Hold of heating',
    ways: ['5 + 5 min', '1 h'],
    here: 'An hour; the short one only to look at joints.',
  },
  {
    question: 'Hold of house water and drains',
    ways: ['15 min', '20 min', '30 min'],
    here: 'Water 20, drains 30; longer where the volume is large.',
  },
  {
    question: 'Floor loops wet or with air',
    ways: ['always wet', 'air in frost'],
    here: 'Wet; air at no more than 1 bar, and only for frost.',
  },
  {
    question: 'A rise',
    ways: ['the sun, let it be', 'a warning'],
    here: 'Never proof: explain it, or make the hold again.',
  },
  {
    question: 'What one’s own kit loses',
    ways: ['written in', 'mended, and again'],
    here: 'In a hold nothing: mend it. In a measured flow: measured alone, with its date, and shown.',
  },
  {
    question: 'What a main may take',
    ways: ['told only', 'by a formula'],
    here: 'By the formula of the pack; Refer where it has none.',
  },
  {
    question: 'Who may test',
    ways: ['anybody', 'licensed people'],
    here: 'Water and pools: anybody, marked as no certificate. Gas and refrigerant: a certificate needs a licence in date.',
  },
  {
    question: 'Taking a plug out',
    ways: ['just let the air out', 'hold the hose, turn right'],
    here: 'Hold the hose and turn right, with nobody in line.',
  },
  {
    question: 'Two gauges',
    ways: ['either', 'one that is named'],
    here: 'One, by name, from beginning to end.',
  },
  {
    question: 'A fall while it settles',
    ways: ['re-adjust', 'an early hint'],
    here: 'Re-adjust, write it down, and show it as a hint.',
  },
];
