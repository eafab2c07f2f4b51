/** Every kind of entry a run can have. What they do: folds.ts. A new kind of stage adds its own. */
import { oneOf } from '@/core/grammar/one-of';
import type { Of } from '@/core/grammar/schema';
import { bucketEntries } from '@/core/kinds/bucket/entries';
import { cureEntries } from '@/core/kinds/cure/entries';
import { cylinderEntries } from '@/core/kinds/cylinder/entries';
import { checksEntries } from '@/core/kinds/checks/entries';
import { dialEntries } from '@/core/kinds/dial/entries';
import { drawDownEntries } from '@/core/kinds/draw-down/entries';
import { fanEntries } from '@/core/kinds/fan/entries';
import { fillEntries } from '@/core/kinds/fill/entries';
import { holdEntries } from '@/core/kinds/hold/entries';
import { inventoryEntries } from '@/core/kinds/inventory/entries';
import { jointsEntries } from '@/core/kinds/joints/entries';
import { listenEntries } from '@/core/kinds/listen/entries';
import { mapEntries } from '@/core/kinds/map/entries';
import { observeEntries } from '@/core/kinds/observe/entries';
import { plugsEntries } from '@/core/kinds/plugs/entries';
import { pumpEntries } from '@/core/kinds/pump/entries';
import { smokeEntries } from '@/core/kinds/smoke/entries';
import { volumeEntries } from '@/core/kinds/volume/entries';
import { zeroEntries } from '@/core/kinds/zero/entries';
import type { EventBase } from './field';
import { generalEntries } from './general-entries';
import { isolationEntries } from './isolation-entries';

export { PHOTO_SUBJECTS } from './general-entries';
export type { ObservationKind, PhotoSubject, SignatureRole, UnheldWay } from './general-entries';
export type { BubbleSize, JointFinding, JointOwner } from '@/core/kinds/joints/entries';
export type { InventoryItem } from '@/core/kinds/inventory/entries';
export type { EventBase };

const ENTRIES = {
  ...checksEntries,
  ...zeroEntries,
  ...fillEntries,
  ...holdEntries,
  ...pumpEntries,
  ...drawDownEntries,
  ...observeEntries,
  ...jointsEntries,
  ...inventoryEntries,
  ...volumeEntries,
  ...dialEntries,
  ...mapEntries,
  ...plugsEntries,
  ...bucketEntries,
  ...cureEntries,
  ...listenEntries,
  ...cylinderEntries,
  ...fanEntries,
  ...smokeEntries,
  ...generalEntries,
  ...isolationEntries,
};
type Entries = typeof ENTRIES;
export type RunEvent = { [K in keyof Entries]: Of<Entries[K]> & { readonly kind: K } }[keyof Entries];
export type EventOf<K extends RunEvent['kind']> = Extract<RunEvent, { readonly kind: K }>;
/** What an entry says beside what every entry carries. */
export type Payload = {
  [K in RunEvent['kind']]: Omit<EventOf<K>, keyof EventBase>;
}[RunEvent['kind']];
/** An event with its place in the run, once the server has it. */
export type PlacedEvent = RunEvent & { readonly position?: number; readonly received?: number };

/** The schema of one event: the same on the device, in the route handler, and for files. */
export const eventSchema = oneOf('kind', ENTRIES);
/** Checks an unknown value as an event. @throws yup.ValidationError with the path of what is wrong. */
export const parseEvent = (value: unknown): RunEvent => eventSchema.validateSync(value, { strict: true });

/** The moment of an event on the server's time line, ms UTC. */
export const momentOf = (event: { at: number; offset: number }): number => event.at + event.offset;
