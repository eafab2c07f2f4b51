import type { Exact } from '@/core/quantity/exact';
import type { Finding, Use } from '@/core/grammar/rule';
import type { StageKind } from '@/core/kinds';
import type { Rooms } from '@/core/kinds/rooms';
import type { HoldRole } from '@/core/roles';
import type { Working } from '@/core/formula/formula';
import type { Figure } from '@/core/quantity/figure';
import type {
  BubbleSize,
  InventoryItem,
  JointFinding,
  ObservationKind,
  PhotoSubject,
  JointOwner,
  SignatureRole,
  UnheldWay,
} from './events';
import type { Judgement } from '@/core/verdict/judge';
import type { ClockPoint } from './clock';
import type { Search } from './isolations';
import type { Papers } from './papers';
import type { Back, Undone } from './undo';

export interface Answer {
  readonly answer: 'done' | 'yes' | 'no' | 'undone';
  readonly at: number;
  readonly byName: string;
}
/** One accepted reading. `at` is when it was entered, `readMoment` when the gauge was looked at; both server-line ms. */
export interface Reading {
  readonly id: string;
  readonly at: number;
  readonly readMoment: number;
  readonly figure: Exact;
  readonly byName: string;
  readonly late: boolean;
  readonly same: boolean;
  readonly streamed: boolean;
  /** Where it stands on each clock: how much time passed is counted from these. */
  readonly clock: ClockPoint;
  corrected?: {
    readonly figure: Exact;
    readonly reason: string;
    readonly byName: string;
    readonly at: number;
  };
}
export interface TopUp {
  readonly before: Exact;
  readonly after: Exact;
  /** Water pumped in, where it was measured. */
  readonly added?: Exact;
  readonly at: number;
  readonly byName: string;
}
/** The act of holding: from its start reading to its end reading, or to what broke it. */
export interface Hold {
  readonly role: HoldRole;
  /** Minutes planned, with those it was extended by: the countdown. */
  minutes: number;
  /** Minutes of the rule itself: the hold may not end before them. */
  readonly rule: number;
  /** The gauge that judges it. */
  readonly gauge: string;
  readonly start: Reading;
  readonly startedAt: number;
  readonly startClock: ClockPoint;
  readonly topUps: TopUp[];
  readonly temperature: { start?: Exact; end?: Exact };
  /** Temperatures with the places they were read at, where several are read. */
  places?: HoldPlace[];
  /** No thermometer at hand, said once. */
  noThermometer?: true;
  readonly barometer: { start?: Exact; end?: Exact; none?: true };
  /** It began with an earlier reading: nothing of its start can be logged any more. */
  readonly since?: true;
  /** What a second place showed of the level. */
  readonly witness: { start?: Witness; end?: Witness };
  /** How it was made longer than planned. */
  extended?: {
    readonly minutes: number;
    readonly why: string;
    readonly at: number;
    readonly byName: string;
  }[];
  /** Why it was ended before the planned minutes. */
  short?: string;
  end?: Reading;
  endedAt?: number;
  judgement?: Judgement;
  broken?: { readonly reason: string; readonly at: number };
  clockMark?: string;
}
/** A temperature read at a place while a hold ran. */
export interface HoldPlace {
  readonly when: 'start' | 'between' | 'end';
  readonly place: string;
  readonly figure: Exact;
  readonly at: number;
}
/** One subject of an isolate-and-repeat stage: its valve positions, fill, settling and hold. */
export interface Cycle {
  readonly subject: string;
  readonly name: string;
  positions: boolean;
  fill?: Reading;
  settle?: Hold;
  hold?: Hold;
  outcome?: string;
}
/** One course of the wall: a stage as it was gone through once. */
export interface Visit {
  readonly stage: string;
  readonly kind: StageKind;
  readonly title: string;
  readonly ordinal: number;
  readonly entered: number;
  left?: number;
  outcome?: string;
  readonly answers: Record<string, Answer>;
  readonly zeros: {
    readonly gauge: string;
    readonly figure: Exact;
    readonly at: number;
    readonly good: boolean;
    /** An absolute gauge, open to air: as it should be, beyond its range. */
    readonly over?: true;
  }[];
  readonly fills: Reading[];
  readonly holds: Hold[];
  readonly cycles: Cycle[];
  readonly readings: Reading[];
  /** Streamed display values: server-line ms and digits of the gauge's scale. */
  readonly trace: (readonly [number, number])[];
  dial?: DialWatch;
  /** Steps of staged pumping reached so far. */
  readonly pumped: PumpStep[];
  drawn?: DrawnDown;
  readonly inputs: DialInput[];
  /** The pressure would not stand, and how: what it showed, and against which band. */
  unheld?: Unheld;
  skipped?: {
    readonly key?: string;
    readonly reason: string;
    readonly text: string;
    readonly sound: boolean;
  };
  split?: string;
}
/** A pressure that would not stand in a fill, a settling period or a hold. */
export interface Unheld {
  readonly way: UnheldWay;
  readonly reading: Reading;
  readonly low: Exact | null;
  readonly high: Exact | null;
  /** How long it was watched, min, and how long warmth or stretch could explain it at most. */
  readonly minutes: number;
  readonly explained: number;
}
export interface Witness {
  readonly seen: 'same' | 'fell' | 'rose';
  readonly text: string;
  readonly at: number;
}
/** One step of staged pumping: reached, then looked at after its pause. */
export interface PumpStep {
  readonly reached: Reading;
  readonly added?: Exact;
  readonly strokes?: number;
  /** Gas trapped in the section by this step's strokes, at atmospheric pressure. */
  readonly air?: { readonly litres: number; readonly percent: number };
  /** It rose faster than the pack's figure. */
  readonly fast?: string;
  look?: { readonly reading: Reading; readonly joints: 'dry' | 'drips'; readonly where: string };
}
/** The decay loss, drained into a measured vessel. */
export interface DrawnDown {
  readonly from: Exact;
  readonly to: Exact;
  readonly volume: Exact;
  readonly minutes: number;
  /** l/h as measured, and carried to the test pressure by each law. */
  readonly rate: Figure;
  readonly scaled: { readonly laminar: number; readonly orifice: number };
  /** What the chosen school permits to be drawn off. */
  readonly limit?: { readonly value: Exact; readonly source: string; readonly working: Working };
}
/** A meter dial watched: its mark, and what it did. */
export interface DialWatch {
  readonly mark: string;
  readonly startedAt: number;
  readonly clock: ClockPoint;
  readonly minutes: number;
  readonly rule: number;
  endedAt?: number;
  /** Watched for so long, as far as the clocks can tell, ms. */
  watched?: number;
  moved?: boolean;
  turns?: Exact;
  direction?: 'forward' | 'backward';
  short?: string;
  rate?: Figure;
}
/** What an appliance takes, by the dial. */
export interface DialInput {
  readonly appliance: string;
  readonly turns: Exact;
  readonly seconds: Exact;
  readonly flow: Figure;
  readonly input: Figure | null;
}
export interface JointState {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly whose?: JointOwner;
  looks: {
    readonly found: JointFinding;
    readonly size?: BubbleSize;
    readonly at: number;
    readonly byName: string;
  }[];
}
export interface Debt {
  readonly key: string;
  /** The appliance it is owed to, where the pack asks one by one. */
  readonly subject?: string;
  readonly openedAt: number;
  cleared?: { readonly at: number; readonly byName: string; readonly text: string; readonly poor?: boolean };
}
export interface Signature {
  readonly role: SignatureRole;
  readonly name: string;
  readonly at: number;
  readonly by: string;
  readonly strokes?: string;
  readonly refused?: string;
  readonly as?: string;
  readonly saw?: 'whole' | 'end';
  readonly via?: 'link';
}
/** A photo with its place in the run, and the entry it is evidence of. */
export interface Photo {
  readonly hash: string;
  readonly caption: string;
  readonly shows?: PhotoSubject;
  readonly beside?: string;
  readonly visit: number;
  readonly at: number;
  readonly byName: string;
}
export interface FoundClaim {
  readonly finding: Finding;
  readonly because?: string;
  readonly stage: string;
  readonly outcome: string;
  readonly visit: number;
  readonly use?: Use;
  readonly plain?: string;
  readonly danger?: true;
}
/** Everything derived from the log. Never stored as truth: only the events are. */
export interface RunState {
  phase: 'running' | 'put-back' | 'signing' | 'signed';
  visits: Visit[];
  gauge: string | null;
  /** Own kit on the section as it was said last; null: not said. */
  ownKit: { readonly kit: readonly string[]; readonly at: number; readonly byName: string } | null;
  debts: Debt[];
  /** What the graph claims, by part; '' for the run as a whole. */
  claims: Record<string, FoundClaim>;
  ending: {
    readonly at: number;
    readonly by: 'graph' | 'stop';
    reason?: 'smell' | 'voltage' | 'movement' | 'abandoned' | 'mistake';
    text?: string;
  } | null;
  denied: string[];
  /** What was found that no good end survives. */
  spoiled: string[];
  repeats: number;
  fails: number;
  passes: number;
  /** Unexplained rises of judged holds: the repeat after one needs its temperatures. */
  rises: number;
  /** Falls too small to be told from warmth: the repeat after one needs its temperatures too, and its fall stands. */
  smallFalls: number;
  /** A first reading of a dial close to its limit, waiting for the one after a tap. */
  tapped: Reading | null;
  taken: Record<string, number>;
  /** Readings kept by name for later bands, and the readings themselves. */
  kept: Record<string, Exact>;
  keptReadings: Record<string, Reading>;
  /** Said by the rule about a reading that is not judged. */
  findings: string[];
  /** The section was left at this pressure with its gauge on. */
  watch: { readonly figure: Exact; readonly gauge: string; readonly at: number } | null;
  photos: Photo[];
  /** Files of gauge logs that were read in afterwards. */
  imports: { readonly file: string; readonly hash: string; readonly points: number; readonly at: number }[];
  joints: JointState[];
  /** What kinds of stage keep beside readings. */
  rooms: Rooms;
  observations: {
    readonly what: ObservationKind;
    readonly text: string;
    readonly at: number;
    readonly byName: string;
  }[];
  /** What was present on the day, the newest entry of each thing. */
  inventory: (InventoryItem & { readonly at: number; readonly byName: string })[];
  /** Volume measured by a metered draw; null while it is calculated. */
  volume: { readonly figure: Figure; readonly uncertainty: number } | null;
  /** Parts held by themselves after a hold that failed. */
  search: Search;
  /** Where each valve was last put. */
  valves: Record<string, 'open' | 'closed'>;
  reports: { readonly to: string; readonly text: string }[];
  followUps: { readonly days: number; readonly text: string }[];
  unsafe: {
    readonly danger: 'immediate-danger' | 'at-risk';
    readonly action: 'disconnected' | 'labelled' | 'refused';
    readonly text: string;
    readonly told: string;
    readonly at: number;
    readonly byName: string;
  } | null;
  notes: {
    readonly at: number;
    readonly byName: string;
    readonly text: string;
    readonly kind: 'note' | 'disturbance';
  }[];
  signatures: Signature[];
  /** Events that had no effect, with the reason: overtaken transitions and refusals. They stay in the log. */
  withoutEffect: { readonly id: string; readonly code: string; readonly text: string }[];
  clockMarks: string[];
  /** What followed for the paper after the plan was made. */
  papers: Papers;
  /** Steps that can still be taken back, the newest last. */
  back: readonly Back[];
  /** Steps that were taken back. */
  undone: Undone[];
  events: number;
  lastAt: number;
}
