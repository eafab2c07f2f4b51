import type { Exact } from '@/core/quantity/exact';
import type { ExpectedItem } from '@/core/installation/section';
import type { Unit } from '@/core/quantity/unit';

/** What every event carries. Times: `at` is the device's clock, ms UTC; `offset` is server minus device as last measured. */
export interface EventBase {
  readonly id: string;
  readonly run: string;
  readonly device: string;
  readonly deviceSeq: number;
  readonly at: number;
  readonly zone: string;
  readonly offset: number;
  /** Monotonic ms since this page was loaded, and which page load: a cross-check of the clock. */
  readonly mono: number;
  readonly pageLoad: string;
  readonly by: string;
  readonly byName: string;
  /** The step this was meant for; a transition meant for an earlier step stays in the log as overtaken. */
  readonly expects: string;
}
interface Timed {
  readonly figure: Exact;
  /** Device-clock moment at which the gauge was read (first key pressed), ms. */
  readonly readAt: number;
  readonly same?: boolean;
  readonly streamed?: boolean;
}
/** How a pressure will not stand. */
export type UnheldWay = 'falls' | 'rises' | 'low';
/** Whose a joint is: the installation's (absent), the tester's own kit, or a valve or plug that bounds the section. */
export type JointOwner = 'own' | 'boundary';
/** What leak fluid showed on a joint: ordinary foam is fine and stays small; a leak makes large, growing bubbles. */
export type JointFinding = 'none' | 'foam' | 'growing';
export type BubbleSize = 'pinhead' | 'pea' | 'larger';
/** Seen, smelt or heard: an observation, never a reading. */
export type ObservationKind = 'smell' | 'dial' | 'flame' | 'indicator' | 'sound';
/** Who signs: the tester, the customer, and whoever else stood there and saw it. */
export type SignatureRole = 'tester' | 'customer' | 'witness';
/** What a photo is evidence of. */
export const PHOTO_SUBJECTS = {
  gauge: 'the gauge',
  level: 'the level',
  boundary: 'the boundary',
  joint: 'a joint',
  label: 'the label hung',
  plate: 'a rating plate',
  before: 'the place before',
  after: 'the place after',
  paper: 'a maker’s certificate',
  other: 'something else',
} as const;
export type PhotoSubject = keyof typeof PHOTO_SUBJECTS;
/** One thing that was present on the day, looked at and written down. */
export interface InventoryItem extends ExpectedItem {
  /** Inspection points: good, a fault, or not seen. */
  readonly points: Readonly<Record<string, 'good' | 'fault' | 'not-seen'>>;
  readonly note: string;
  /** Hashes of its photos, which the office keeps beside the run. */
  readonly photos?: readonly string[];
}
export type Payload =
  | {
      readonly kind: 'check';
      readonly item: string;
      readonly subject?: string;
      readonly answer: 'done' | 'yes' | 'no' | 'undone';
    }
  | { readonly kind: 'proceed' }
  | { readonly kind: 'gauge'; readonly gauge: string }
  /** Which hoses, plugs and pumps of the cabinet are on the section from now on; none of them where the list is empty. */
  | { readonly kind: 'kit'; readonly kit: readonly string[] }
  | { readonly kind: 'zero'; readonly figure: Exact; readonly openToAir: true }
  | ({ readonly kind: 'fill'; readonly confirmed: true } & Timed)
  | ({ readonly kind: 'hold-start' } & Timed)
  /**
   * The pressure will not stand: it keeps falling with the source closed, keeps rising, or stays low with the source open.
   * Ends a fill, a settling period or a hold with a finding instead of waiting for what will not come.
   */
  | ({ readonly kind: 'unheld'; readonly way: UnheldWay } & Timed)
  /** `short`: why a hold was ended after the rule's minutes but before those planned. */
  | ({ readonly kind: 'hold-end'; readonly short?: string } & Timed)
  | ({ readonly kind: 'reading'; readonly late?: boolean } & Timed)
  | {
      readonly kind: 'stream';
      readonly gauge: string;
      readonly simulated: boolean;
      readonly scale: number;
      readonly unit: Unit;
      readonly points: readonly (readonly [number, number])[];
      /** Read from the gauge's own log afterwards: the file's name and the SHA-256 of its bytes. */
      readonly imported?: { readonly file: string; readonly hash: string };
    }
  /** `added`: water pumped in, where it was measured. */
  | { readonly kind: 'top-up'; readonly before: Exact; readonly after: Exact; readonly added?: Exact }
  /** A step of staged pumping reached; `added`: what the pump delivered since the step before. */
  | ({ readonly kind: 'pump-step'; readonly added?: Exact; readonly strokes?: number } & Timed)
  | ({ readonly kind: 'pump-look'; readonly joints: 'dry' | 'drips'; readonly where: string } & Timed)
  | { readonly kind: 'pump-failed'; readonly text: string }
  | ({ readonly kind: 'draw-down'; readonly volume: Exact } & Timed)
  /** The level seen at a second place. */
  | {
      readonly kind: 'witness';
      readonly when: 'start' | 'end';
      readonly seen: 'same' | 'fell' | 'rose';
      readonly text: string;
    }
  /** A photo the office keeps beside the run, by its hash: what it shows, and the entry it is evidence of. */
  | {
      readonly kind: 'photo';
      readonly hash: string;
      readonly caption: string;
      readonly shows?: PhotoSubject;
      readonly beside?: string;
    }
  | { readonly kind: 'disturbance'; readonly what: string; readonly text: string }
  | { readonly kind: 'temperature'; readonly when: 'start' | 'end'; readonly figure: Exact }
  /** `none`: no barometer at hand, said once; the record prints it. */
  | {
      readonly kind: 'barometer';
      readonly when: 'start' | 'end';
      readonly figure?: Exact;
      readonly none?: true;
    }
  | {
      readonly kind: 'joint';
      readonly joint: string;
      readonly name: string;
      readonly place: string;
      readonly whose?: JointOwner;
    }
  | {
      readonly kind: 'joint-look';
      readonly joint: string;
      readonly found: JointFinding;
      readonly size?: BubbleSize;
    }
  | { readonly kind: 'observation'; readonly what: ObservationKind; readonly text: string }
  | { readonly kind: 'inventory'; readonly item: InventoryItem }
  | { readonly kind: 'volume'; readonly drawn?: Exact; readonly before?: Exact; readonly after?: Exact }
  | { readonly kind: 'dial-start'; readonly mark: string }
  | {
      readonly kind: 'dial-end';
      readonly moved: boolean;
      readonly turns?: Exact;
      readonly direction?: 'forward' | 'backward';
      readonly short?: string;
    }
  | {
      readonly kind: 'dial-input';
      readonly appliance: string;
      readonly turns: Exact;
      readonly seconds: Exact;
    }
  | {
      readonly kind: 'unsafe';
      readonly danger: 'immediate-danger' | 'at-risk';
      readonly action: 'disconnected' | 'labelled' | 'refused';
      readonly text: string;
      readonly told: string;
    }
  | { readonly kind: 'correction'; readonly of: string; readonly figure: Exact; readonly reason: string }
  /** `text`: why a result stands before the repeats that the rule asks for. */
  | { readonly kind: 'observe'; readonly result: string; readonly text?: string }
  | { readonly kind: 'skip'; readonly reason: string; readonly text: string }
  | { readonly kind: 'note'; readonly text: string }
  | { readonly kind: 'stop' }
  | {
      readonly kind: 'stop-reason';
      readonly reason: 'smell' | 'voltage' | 'movement' | 'abandoned' | 'mistake';
      readonly text: string;
    }
  | {
      readonly kind: 'debt';
      readonly debt: string;
      readonly text: string;
      readonly subject?: string;
      readonly answer?: string;
    }
  | {
      readonly kind: 'signature';
      readonly role: SignatureRole;
      readonly name: string;
      readonly strokes?: string;
      readonly refused?: string;
      /** In what office a witness stood there: inspector, site manager. */
      readonly as?: string;
      /** What a witness saw: the whole test, or only its readings at the end. */
      readonly saw?: 'whole' | 'end';
      /** Signed on a device of their own by a link. */
      readonly via?: 'link';
    };
export type RunEvent = EventBase & Payload;
/** An event with its place in the run, once the server has it. */
export type PlacedEvent = RunEvent & { readonly position?: number; readonly received?: number };

/** The moment of an event on the server's time line, ms UTC. */
export const momentOf = (event: { at: number; offset: number }): number => event.at + event.offset;
