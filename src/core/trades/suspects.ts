/**
 * What could be behind a hold that moved, by trade: the sign that speaks for it, what proves it, and what that costs. Own kit
 * before what can be reached, that before what is hidden. Source: practice of the trades; house figures for the minutes
 */

export interface Suspect {
  readonly key: string;
  /** Where a leak is looked for first; `other`: it is none. */
  readonly where: 'own' | 'exposed' | 'hidden' | 'other';
  /** The cause by which a trace speaks for it; absent: a leak. */
  readonly cause?: 'temperature' | 'stretch' | 'air' | 'let-by' | 'step' | 'stuck' | 'moisture';
  readonly when: 'falls' | 'rises' | 'both' | 'flow';
  readonly what: string;
  readonly sign: string;
  readonly proof: string;
  readonly minutes: number;
}
const kit: Suspect = {
  key: 'kit',
  where: 'own',
  when: 'falls',
  what: 'Your own kit: hose, connection, adaptor, plug',
  sign: 'Bubbles or a drip where you connected, plugged or capped.',
  proof: 'Leak fluid on it under pressure; else hold the kit by itself.',
  minutes: 3,
};
const gauge: Suspect = {
  key: 'gauge',
  where: 'other',
  cause: 'stuck',
  when: 'both',
  what: 'The gauge',
  sign: 'Open to air it does not come back to zero, it sticks, or a second gauge shows otherwise.',
  proof: 'Zero it open to air, then hold once with a second gauge.',
  minutes: 5,
};
const warmth: Suspect = {
  key: 'warmth',
  where: 'other',
  cause: 'temperature',
  when: 'both',
  what: 'Warmth: sun, heating, a fresh fill, a cold wall',
  sign: 'It gets slower by itself, and follows the sun, the heating or the hour.',
  proof: 'Settle until pipe and room are alike, read both at start and end, hold again.',
  minutes: 15,
};
const hand: Suspect = {
  key: 'hand',
  where: 'other',
  cause: 'step',
  when: 'both',
  what: 'Somebody drew, or touched a valve or hose',
  sign: 'One step within seconds, and nothing like it before or after.',
  proof: 'Ask who was at it, close and tag it, hold again.',
  minutes: 3,
};
const hidden = (what: string, minutes: number): Suspect => ({
  key: 'hidden',
  where: 'hidden',
  when: 'falls',
  what,
  sign: 'Everything within reach is dry, and it still falls the same.',
  proof: 'Part it: isolate one branch after another and hold each by itself.',
  minutes,
});
const passes = (what: string, proof: string): Suspect => ({
  key: 'valve',
  where: 'other',
  cause: 'let-by',
  when: 'rises',
  what,
  sign: 'It rises towards the pressure behind the valve, slower the nearer it comes.',
  proof,
  minutes: 5,
});
const bubbles: Suspect = {
  key: 'joint',
  where: 'exposed',
  when: 'falls',
  what: 'A joint you can reach',
  sign: 'Large bubbles that grow; fine foam is none.',
  proof: 'Leak fluid on the joints touched today first, then on the rest.',
  minutes: 5,
};
const drips: Suspect = {
  ...bubbles,
  sign: 'A drip, a wet streak, a dry towel that gets wet.',
  proof: 'Dry the joints made today first and look again, then the rest.',
  minutes: 10,
};
const stretch: Suspect = {
  key: 'stretch',
  where: 'other',
  cause: 'stretch',
  when: 'falls',
  what: 'Plastic pipe that stretches',
  sign: 'Slower and slower, and no drip anywhere.',
  proof: 'Let it relax as the rule asks, raise again and hold longer: stretch fades, a leak goes on.',
  minutes: 60,
};
const air: Suspect = {
  key: 'air',
  where: 'other',
  cause: 'air',
  when: 'falls',
  what: 'Trapped air',
  sign: 'Many strokes for little pressure; it falls at first and then stands.',
  proof: 'Bleed at the high points, raise again, settle, hold again.',
  minutes: 10,
};
const end: Suspect = {
  key: 'end',
  where: 'exposed',
  when: 'falls',
  what: 'A valve used as an end passes',
  sign: 'A hiss or water beyond it; a cap behind it gets wet.',
  proof: 'Plug inside it or cap it, and hold again.',
  minutes: 10,
};
const regulator: Suspect = {
  key: 'regulator',
  where: 'other',
  cause: 'let-by',
  when: 'rises',
  what: 'A regulator that creeps',
  sign: 'With no flow the pressure behind it goes on rising.',
  proof: 'Watch the lock-up with all appliances off; its vent is looked at too.',
  minutes: 5,
};
const jet: Suspect = {
  key: 'jet',
  where: 'other',
  when: 'flow',
  what: 'A wrong conversion jet',
  sign: 'Flames yellow, or lifting off; the input by the dial is far from the plate.',
  proof: 'Take the input by the dial and read the jet’s number beside the plate.',
  minutes: 10,
};
const appliance: Suspect = {
  key: 'appliance',
  where: 'exposed',
  when: 'falls',
  what: 'An appliance or its tap',
  sign: 'With the appliances shut off the pipework stands.',
  proof: 'Shut the appliances off one by one and hold: which one stops the fall?',
  minutes: 4,
};
const ALL = [gauge, warmth, hand];
const fuel = [
  kit,
  bubbles,
  appliance,
  hidden('Pipe in a wall or floor', 15),
  passes(
    'The closed supply valve passes',
    'Part the connector behind it and look into the valve with leak fluid.',
  ),
  regulator,
  jet,
  ...ALL,
];
const breaker: Suspect = {
  key: 'breaker',
  where: 'own',
  when: 'falls',
  what: 'A tap with a vacuum breaker',
  sign: 'It spills at the tap while the pressure is raised.',
  proof: 'Connect to another tap.',
  minutes: 3,
};
const grouping = (sign: string): Suspect => ({
  key: 'grouping',
  where: 'other',
  when: 'falls',
  what: 'Two lines are joined, or an air branch is open',
  sign,
  proof: 'Map the lines again before anything is dug up.',
  minutes: 20,
});
const bounce: Suspect = {
  ...air,
  key: 'bounce',
  what: 'A level that still settles',
  sign: 'It bounces or sinks at first while air leaves branches and vents, then stands.',
  proof: 'Wait until it stands, top up, start again.',
};

/** By the name of a trade. */
const SUSPECTS: Readonly<Record<string, readonly Suspect[]>> = {
  gas: fuel,
  propane: fuel,
  water: [
    kit,
    breaker,
    drips,
    end,
    hidden('Pipe in a wall or floor', 15),
    stretch,
    air,
    passes('The closed mains valve passes', 'Cut or cap behind it, or let down and watch it rise.'),
    ...ALL,
  ],
  main: [
    kit,
    drips,
    end,
    hidden('A joint in the ground', 60),
    stretch,
    air,
    passes('The closed mains valve passes', 'Cap behind it, or let down and watch it rise.'),
    ...ALL,
  ],
  drain: [
    {
      ...kit,
      what: 'Your own plug',
      sign: 'Water at the plug’s rim, or beyond it.',
      proof: 'Seat it anew, and look beyond it.',
    },
    drips,
    grouping('Water stands or runs in a branch that nobody plugged.'),
    hidden('A joint under the floor', 30),
    bounce,
    hand,
  ],
  pool: [
    {
      ...kit,
      what: 'Your own plugs and the gauge’s plug',
      sign: 'Bubbles or weeping at a plug; a plug that creeps out.',
    },
    grouping('Air or a moving level shows at an outlet of another line.'),
    { ...drips, what: 'A fitting at the outlet or the equipment' },
    hidden('Pipe in the ground', 45),
    air,
    ...ALL,
  ],
  refrigerant: [
    { ...kit, what: 'Your own hoses, manifold and valve cores' },
    { ...bubbles, what: 'A flare, a core or a brazed joint within reach' },
    {
      key: 'moisture',
      where: 'other',
      cause: 'moisture',
      when: 'rises',
      what: 'Moisture, or gas from the oil',
      sign: 'Under vacuum it rises fast and then slower, towards a figure of its own.',
      proof: 'Break with dry nitrogen, pump again, hold again: moisture comes back less.',
      minutes: 45,
    },
    {
      key: 'shut',
      where: 'hidden',
      when: 'falls',
      what: 'A part behind a solenoid or valve that stayed shut',
      sign: 'The fall begins or changes when a valve is opened.',
      proof: 'Open each by its magnet, and hold again.',
      minutes: 10,
    },
    hidden('Pipe in a wall', 30),
    ...ALL,
  ],
  duct: [
    {
      ...kit,
      what: 'Your own cap, tape or fan joint',
      sign: 'A blank test of the fan shows a flow by itself.',
    },
    {
      ...bubbles,
      what: 'A register that is not sealed, or a panel',
      sign: 'Smoke is drawn or blown at it.',
      proof: 'Go round with smoke, then mask it and measure again.',
    },
    {
      ...hidden('A joint behind a ceiling or in a wall', 30),
      sign: 'Everything within reach is masked, and the flow is the same.',
    },
  ],
};
/** @param trade its name  @returns empty where nothing is known of it */
export const suspectsOf = (trade: string): readonly Suspect[] => SUSPECTS[trade] ?? [];
