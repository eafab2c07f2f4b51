/**
 * What an installation is made of: every kind of part, what is known of one, whether it can close. Form, drawing, flooding and schema read this table; none of them names the facts.
 */
import {
  AMBIENT_WORDS,
  COOLED_WORDS,
  EQUIPMENT_WORDS,
  HEATS_WORDS,
  OUTLET_WORDS,
  REGISTER_WORDS,
  VALVE_KINDS,
  VALVE_WORDS,
} from '@/core/installation/parts';
import { REFRIGERANTS } from '@/core/medium/fluids';
import type { Exact } from '@/core/quantity/exact';
import type { Dimension } from '@/core/quantity/unit';

/** One thing that may be known of a part. */
export type FactRule = {
  readonly label: string;
  readonly hint?: string;
  /** A list that names the part without it would say nothing. On a drawing it may be open, and is asked. */
  readonly needed?: true;
  /** Only where a gas is carried that burns. */
  readonly fuel?: true;
} & (
  | { readonly kind: 'words'; readonly most: number }
  | { readonly kind: 'yes-no' }
  | { readonly kind: 'count'; /** More than there could be of any thing. */ readonly large?: true }
  | { readonly kind: 'figure'; readonly dimension: Dimension; readonly least: 'above zero' | 'zero' }
  | { readonly kind: 'one-of'; readonly options: Readonly<Record<string, string>> }
);
export type Fact = string | boolean | number | Exact;

export interface PartRule {
  readonly word: string;
  /** It stands open or closed; the position belongs to a test or a stage. */
  readonly closes?: true;
  /** It is shut by a valve of its own, which is not drawn. */
  readonly ownValve?: true;
  /** Nothing passes it, ever. */
  readonly ends?: true;
  /** What it brings must be shut off before a test. */
  readonly feeds?: true;
  /** A tester brings it along: it is no part of an installation. */
  readonly brought?: true;
  /** The gauge connects here: flooding begins here. */
  readonly reads?: true;
  /** Needs no name: a bare meeting of pipes. */
  readonly nameless?: true;
  /** An end of a line whose joins nobody sees: under water, or in the dry. */
  readonly lineEnd?: 'wet' | 'dry';
  readonly facts: Readonly<Record<string, FactRule>>;
}

const words = (label: string, most = 80): FactRule => ({ label, kind: 'words', most });
const figure = (
  label: string,
  dimension: Dimension,
  least: 'above zero' | 'zero' = 'above zero',
): FactRule => ({
  label,
  kind: 'figure',
  dimension,
  least,
});
const needed = <R extends FactRule>(rule: R): R & { readonly needed: true } => ({ ...rule, needed: true });
const fuel = <R extends FactRule>(rule: R): R & { readonly fuel: true } => ({ ...rule, fuel: true });
const plate = { make: words('Make'), model: words('Model'), serial: words('Serial number') };

export const CATALOGUE = {
  source: { word: 'source', feeds: true, facts: {} },
  tank: { word: 'tank', feeds: true, facts: { size: words('Size', 40), ...plate } },
  valve: {
    word: 'valve',
    closes: true,
    facts: {
      use: needed({
        label: 'What it shuts',
        kind: 'one-of',
        options: Object.fromEntries(VALVE_KINDS.map((k) => [k, VALVE_WORDS[k]])),
      }),
      owner: words('Whose it is'),
    },
  },
  meter: {
    word: 'meter',

    facts: {
      class: words('Class', 40),
      volume: figure('Volume inside', 'volume', 'zero'),
      testDial: figure('Smallest test dial, one turn', 'volume'),
      serial: words('Serial number'),
    },
  },
  regulator: {
    word: 'regulator',

    facts: { stage: words('Stage', 40), maxInlet: figure('Maximum inlet', 'pressure'), ...plate },
  },
  point: { word: 'test point', reads: true, facts: {} },
  tee: { word: 'tee', nameless: true, facts: {} },
  cap: { word: 'cap or plug', ends: true, facts: {} },
  joint: { word: 'joint to look at', facts: { count: { label: 'How many alike', kind: 'count' } } },
  fitting: { word: 'part that permits less', facts: { most: needed(figure('Permits at most', 'pressure')) } },
  tested: { word: 'part tested by its maker', facts: { certificate: needed(words('Certificate', 120)) } },
  appliance: {
    word: 'appliance',

    facts: {
      type: words('Kind', 60),
      hasPilot: fuel({ label: 'Has a pilot', kind: 'yes-no' }),
      hasLid: fuel({ label: 'Has a lid that shuts it off', kind: 'yes-no' }),
      volume: needed(figure('Volume inside its valve', 'volume', 'zero')),
      maxInlet: fuel(figure('Maximum inlet', 'pressure')),
      input: fuel(figure('Heat input', 'power')),
      ...plate,
    },
  },
  /** Draws water where somebody opens it: shut in every test. */
  tap: { word: 'tap', ends: true, facts: {} },
  vent: { word: 'high point to bleed', ends: true, facts: {} },
  pump: { word: 'test pump', ends: true, brought: true, facts: {} },
  loop: {
    word: 'loop',
    ownValve: true,
    facts: { valve: needed(words('Its valve')), flowMeter: words('Its flow meter') },
  },
  /** Where a pool's line ends in the pool: what it is joined to is found out, not seen. */
  outlet: {
    word: 'pool outlet',
    ends: true,
    lineEnd: 'wet',
    facts: {
      type: needed({ label: 'What it is', kind: 'one-of', options: OUTLET_WORDS }),
      size: needed(figure('Pipe size', 'length')),
    },
  },
  /** Where a pool's line begins at the equipment: pump inlet, after the heater, blower. */
  connection: {
    word: 'equipment connection',
    lineEnd: 'dry',
    facts: {
      type: needed({ label: 'What stands there', kind: 'one-of', options: EQUIPMENT_WORDS }),
      size: needed(figure('Pipe size', 'length')),
    },
  },
  /** In no line test, ever: filter, pump, heater. */
  equipment: { word: 'pool equipment', ends: true, facts: { ...plate } },
  /** Its own tightness is its maker's: the service valves part it from what was joined on site. */
  condensing: {
    word: 'condensing unit',
    ends: true,
    facts: {
      refrigerant: {
        label: 'Refrigerant',
        hint: 'as the plate says; not listed: leave open and enter PS',
        kind: 'one-of',
        options: Object.fromEntries(REFRIGERANTS.map((r) => [r, r])),
      },
      psHigh: figure('PS, high side (plate)', 'pressure'),
      psLow: figure('PS, low side (plate)', 'pressure'),
      charge: figure('Charge', 'mass'),
      gwp: { label: 'CO2 factor of its data sheet', hint: 'empty: by our table', kind: 'count', large: true },
      cooled: { label: 'Condenser cooled', kind: 'one-of', options: COOLED_WORDS },
      ambient: { label: 'Warmest air outside', kind: 'one-of', options: AMBIENT_WORDS },
      certificate: words('Its maker’s test', 120),
      ...plate,
    },
  },
  evaporator: {
    word: 'evaporator',
    facts: { ps: figure('PS on its plate', 'pressure'), volume: figure('Volume inside', 'volume'), ...plate },
  },
  receiver: {
    word: 'receiver',
    facts: { ps: figure('PS on its plate', 'pressure'), volume: figure('Volume inside', 'volume'), ...plate },
  },
  /** Where the high side ends and the low side begins. */
  expansion: { word: 'expansion valve', closes: true, facts: {} },
  /** Its fan is locked out: the tester's own blows through it, or through a return beside it. */
  handler: {
    word: 'air handler',
    facts: { heats: { label: 'Heats with', kind: 'one-of', options: HEATS_WORDS }, ...plate },
  },
  register: {
    word: 'register',
    ends: true,
    facts: { type: { label: 'What it is', kind: 'one-of', options: REGISTER_WORDS } },
  },
  intake: { word: 'outdoor air intake', ends: true, facts: {} },
  opening: {
    word: 'opening with a free surface',
    facts: {
      bore: needed(figure('Inside diameter', 'length')),
      count: needed({ label: 'How many', kind: 'count' }),
    },
  },
} as const satisfies Readonly<Record<string, PartRule>>;

export type PartKind = keyof typeof CATALOGUE;
/** The kinds an installation is made of. */
export const PART_KINDS = (Object.keys(CATALOGUE) as PartKind[]).filter((k) => !('brought' in CATALOGUE[k]));
/** What the catalogue says of a kind. */
export const ruleOfPart = (kind: PartKind): PartRule => CATALOGUE[kind];
/** How a part is called in a sentence. */
export const partWord = (kind: PartKind): string => CATALOGUE[kind].word;
