import type { HeightFact, WholeFact } from '@/core/installation/whole';
import type { Pipe } from '@/core/installation/pipe';
import type { System } from '@/core/installation/section';
import type { PartKind } from '@/core/network/catalogue';
import type { Network } from '@/core/network/network';

/** Kinds of simulated installations; each hides something else. */
export type Simulates = 'gas' | 'liquid' | 'pool-line' | 'pool-joins' | 'circuit' | 'duct';
export type Parted = 'lines' | 'sides';
/** How the sections of a place are asked for, by what parts it. */
export const PARTED_WORDS: Readonly<
  Record<
    Parted,
    { readonly which: string; readonly none: string; readonly ask: string; readonly gone: string }
  >
> = {
  lines: {
    which: 'Which line',
    none: 'No line is known yet. Map the lines first: which outlets and connections belong together.',
    ask: 'is for one line at a time: say which. Lines that nobody knows yet are mapped first.',
    gone: 'This line is not known any more: what was seen since says otherwise. Choose again on the place page.',
  },
  sides: {
    which: 'Which side',
    none: 'No side is drawn yet: draw the service valves of liquid and suction line, and what is joined to them.',
    ask: 'is for one side at a time: say which, or both joined at the lower PS.',
    gone: 'This side is not drawn any more. Choose again on the place page.',
  },
};
/** What a trade brings along: what its installations are made of, what is told of them, and what a first drawing of one is. */
export interface Trade {
  readonly name: string;
  /** What is inside its installations. Of several trades that carry one medium the first has those of which no more is said. */
  readonly carries: readonly string[];
  /** What its installations can be there for, where that decides which procedures are offered; empty: all for one thing. */
  readonly serves: Readonly<Record<string, string>>;
  /** What is tested, to people who do not test. */
  readonly called: string;
  /** Carries a gas that burns: appliances, smell, and what no tightness test says of them. */
  readonly fuel: boolean;
  /** Stands under a pressure of its own; a drain does not. */
  readonly pressed: boolean;
  /** Full of water under pressure: what a loss shows as follows from the stiffness of the whole. */
  readonly stiff: boolean;
  /** What practice simulates of it, where that is not only what fills it: of one of its sections, and of the whole. */
  readonly practice?: { readonly section: Simulates; readonly whole: Simulates };
  /**
   * Tested section by section, with no one source and no one test point: lines with ends of which nobody sees which belong
   * together, or the sides of a circuit.
   */
  readonly parted?: Parted;
  /** Not made of pipe by a table and fed by nobody: no pipe, no supply valve and no meter is asked. */
  readonly unpiped?: true;
  /** What did not pass may go on being used: nothing is shut off, and nobody is told not to use it. */
  readonly staysInUse?: true;
  /** What the working pressure is called, where it is another's than its own; 0 is then: not known. */
  readonly pressureOf?: string;
  /** What feeds it, where nobody has named it. */
  readonly source: string;
  /** What a loss of so many litres an hour of gas means in mass of what will be in it; '' where that is not known. */
  readonly massOf?: (perHour: number, system: System) => string;
  /** The parts most of its installations need, most needed first. */
  readonly palette: readonly PartKind[];
  /** Facts of the whole that its procedures ask for, and the heights they are read against. */
  readonly whole: readonly WholeFact[];
  readonly heights: readonly HeightFact[];
  /** Tasks that want protection; what is raised only where the section is parted from its supply. */
  readonly protection: readonly ('metalwork' | 'raise' | 'fluid' | 'sewage' | 'nitrogen' | 'ducts')[];
  readonly brief: Brief;
  /** What a result means, to the customer, where the rule has no words of its own. */
  readonly plain: Readonly<Record<'tight' | 'within-allowance' | 'not-tight', string>>;
  /** What the customer is to look out for afterwards. */
  readonly watch: readonly string[];
  /** The facts on the face of its records. */
  readonly face: (say: Say) => readonly FaceFact[];
  /** What a first drawing is made of before anybody has looked closer. */
  readonly first: First;
}
/** What people in the building are asked and told. */
export interface Brief {
  readonly meanwhile: string;
  readonly noticed: string;
  readonly without: string;
  /** @param emergency whom to call, '' where nobody is named */
  readonly afterwards: (emergency: string) => string;
}
export interface FaceFact {
  readonly name: string;
  readonly value: string;
}
/** Facts as a record has them; each is empty where it is not known. */
export interface Say {
  readonly fact: (name: string, value: string | undefined | null) => FaceFact[];
  /** The first lines of a section of the face, as one fact. */
  readonly section: (name: string, key: SectionKey, most: number) => FaceFact[];
  readonly medium: () => FaceFact[];
  readonly working: () => FaceFact[];
  readonly meter: () => FaceFact[];
  readonly tank: () => FaceFact[];
  readonly regulators: () => FaceFact[];
  readonly volume: () => FaceFact[];
  readonly pipes: () => FaceFact[];
}
/** Sections of a face that are asked for by name; the others only stand there. */
export type SectionKey =
  | 'level'
  | 'losses'
  | 'lines'
  | 'circuit'
  | 'duct'
  | 'editions'
  | 'flow'
  | 'hose'
  | 'smoke'
  | 'gains'
  | 'plugs'
  | 'place'
  | 'applied'
  | 'loops'
  | 'watch'
  | 'raised'
  | 'added'
  | 'reports'
  | 'due'
  | 'joints'
  | 'present'
  | 'volume'
  | 'permit'
  | 'observed'
  | 'unsafe'
  | 'findings';
export interface First {
  /** What stands on its branches, and what they are called by people who count them; null where nothing does. */
  readonly things: {
    readonly list: 'appliances' | 'loops' | 'surfaces' | 'outlets' | 'evaporators' | 'registers';
    readonly words: readonly string[];
  } | null;
  /** How it is drawn from what was counted, where that is not a line with branches. */
  readonly drawn?: (
    counted: readonly { readonly word: string; readonly count: number }[],
    pipe: Pipe,
  ) => Network;
  /** What stands in the form until somebody says otherwise: pressure with its unit, pipe table and size. */
  readonly usual?: { readonly workingPressure: string; readonly table: string; readonly nominal: string };
  /** Facts of the whole that are asked before it is drawn. */
  readonly asks?: readonly WholeFact[];
  readonly supplyValve: string;
  readonly owner: string;
  readonly testPoint: string;
  readonly inScope: readonly string[];
  readonly notCovered: readonly string[];
}
