import { deleteDB, openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Plan } from '@/core/plan/plan';
import type { PlacedEvent, RunEvent } from '@/core/run/events';
import type { EventPlace } from '@/wire/requests';
import type { Identity } from '@/wire/role';

/** A run as this device holds it. */
export interface StoredRun {
  readonly run: string;
  readonly plan: Plan;
  readonly sealed: { readonly number: string } | null;
  readonly opened: number;
  /** Begun here without a signal: the office does not know of it yet. */
  readonly unborn?: true;
}
interface Shape extends DBSchema {
  runs: { key: string; value: StoredRun };
  /** Every event of the runs opened here; `sent` 0 while the office does not have it yet. */
  events: {
    key: string;
    value: { id: string; run: string; sent: 0 | 1; refused?: string; event: PlacedEvent };
    indexes: { run: string; sent: number };
  };
  state: { key: string; value: unknown };
  /** Photos taken here; the bytes go when the office has them. */
  photos: { key: string; value: StoredPhoto; indexes: { run: string; sent: number } };
  /** What this device took along from the office (device/carried.ts), by its own names. */
  carried: { key: string; value: unknown };
  /** What was done here and waits for the office, in its order (device/errands.ts). */
  errands: { key: number; value: Errand };
}
/** One thing that was entered or begun without a signal, as it is sent when there is one. */
export interface Errand {
  readonly seq: number;
  /** The address it goes to, and how. */
  readonly path: string;
  readonly method: 'POST' | 'PUT';
  readonly body: unknown;
  /** What it is, for its person: "Place: Kiln Yard". */
  readonly title: string;
  /** Ids of what it makes or changes: what names one of them waits for this. */
  readonly makes: readonly string[];
  /** The run it begins. */
  readonly run?: string;
  readonly made: number;
  /** Why the office will not have it: it stays here until its person sends it again or takes it off. */
  readonly refused?: string;
}
export interface StoredPhoto {
  readonly hash: string;
  readonly run: string;
  readonly bytes: ArrayBuffer;
  readonly sent: 0 | 1;
  readonly taken: number;
  /** Why the office will not have it. */
  readonly refused?: string;
}
export type Store = IDBPDatabase<Shape>;

/** One store per organisation and person: what one person entered is never sent in another's name. */
export const storeName = (who: Pick<Identity, 'org' | 'person'>): string =>
  `vast-stone.${who.org}.${who.person}`;

const opened = new Map<string, Promise<Store>>();
export function openStore(who: Pick<Identity, 'org' | 'person'>): Promise<Store> {
  const name = storeName(who);
  let store = opened.get(name);
  if (!store) {
    store = openDB<Shape>(name, 3, {
      upgrade(db, from) {
        if (from < 1) {
          db.createObjectStore('runs', { keyPath: 'run' });
          const events = db.createObjectStore('events', { keyPath: 'id' });
          events.createIndex('run', 'run');
          events.createIndex('sent', 'sent');
          db.createObjectStore('state');
        }
        if (from < 2) {
          const photos = db.createObjectStore('photos', { keyPath: 'hash' });
          photos.createIndex('run', 'run');
          photos.createIndex('sent', 'sent');
        }
        db.createObjectStore('carried');
        db.createObjectStore('errands', { keyPath: 'seq', autoIncrement: true });
      },
      // another page of a newer version waits, or the browser closed it: the next use opens it anew
      blocking: () => forget(name),
      terminated: () => forget(name),
    });
    store.catch(() => opened.delete(name));
    opened.set(name, store);
  }
  return store;
}
function forget(name: string): void {
  const gone = opened.get(name);
  opened.delete(name);
  void gone?.then((s) => s.close()).catch(() => undefined);
}
/** Takes everything of a person off this device: runs, entries, photos. */
export async function dropStore(who: Pick<Identity, 'org' | 'person'>): Promise<void> {
  const name = storeName(who);
  const open = opened.get(name);
  opened.delete(name);
  await open?.then((s) => s.close()).catch(() => undefined);
  await deleteDB(name);
}
/** Opens the store anew after it failed: what a connection that broke answers stays an error for good. */
export function reopenStore(who: Pick<Identity, 'org' | 'person'>): Promise<Store> {
  forget(storeName(who));
  return openStore(who);
}

/** Takes the next sequence number and keeps the event, in one strict transaction: when it resolves, the entry is on disk. */
export async function keepEvent(store: Store, make: (deviceSeq: number) => RunEvent): Promise<RunEvent> {
  const tx = store.transaction(['events', 'state'], 'readwrite', { durability: 'strict' });
  const last = ((await tx.objectStore('state').get('deviceSeq')) as number | undefined) ?? 0;
  const event = make(last + 1);
  await tx.objectStore('state').put(last + 1, 'deviceSeq');
  await tx.objectStore('events').put({ id: event.id, run: event.run, sent: 0, event });
  await tx.done;
  return event;
}

/** Keeps what the office has: its places win over the unplaced copies here. */
export async function keepPlaced(store: Store, run: string, events: readonly PlacedEvent[]): Promise<void> {
  if (!events.length) return;
  const tx = store.transaction('events', 'readwrite', { durability: 'strict' });
  for (const event of events) void tx.store.put({ id: event.id, run, sent: 1, event });
  await tx.done;
}
export async function markPlaced(store: Store, placed: readonly EventPlace[]): Promise<void> {
  const tx = store.transaction('events', 'readwrite', { durability: 'strict' });
  for (const { id, position, received, event } of placed) {
    const row = await tx.store.get(id);
    if (row)
      await tx.store.put({
        id,
        run: row.run,
        sent: 1,
        event: { ...(event ?? row.event), position, received },
      });
  }
  await tx.done;
}
/** Keeps the office's refusal beside an entry; the entry itself stays. */
export async function markRefused(store: Store, ids: readonly string[], text: string): Promise<void> {
  const tx = store.transaction('events', 'readwrite');
  for (const id of ids) {
    const row = await tx.store.get(id);
    if (row) await tx.store.put({ ...row, refused: text });
  }
  await tx.done;
}

/** Runs of this device that are not sealed, the one opened last first. */
export const openRuns = async (store: Store): Promise<StoredRun[]> =>
  (await store.getAll('runs')).filter((r) => !r.sealed).sort((a, b) => b.opened - a.opened);
export const eventsOfRun = async (store: Store, run: string): Promise<PlacedEvent[]> =>
  (await store.getAllFromIndex('events', 'run', run)).filter((r) => !r.refused).map((r) => r.event);
export async function unsent(store: Store, run?: string): Promise<RunEvent[]> {
  const rows = (await store.getAllFromIndex('events', 'sent', 0)).filter(
    (r) => !r.refused && (!run || r.run === run),
  );
  return rows.map((r) => r.event).sort((a, b) => a.deviceSeq - b.deviceSeq);
}
/** An entry that the office will not have: set aside here with the reason, and never sent again by itself. */
export interface SetAside {
  readonly event: RunEvent;
  readonly reason: string;
}
export const setAside = async (store: Store, run: string): Promise<SetAside[]> =>
  (await store.getAllFromIndex('events', 'run', run))
    .flatMap((r) => (r.refused ? [{ event: r.event, reason: r.refused }] : []))
    .sort((a, b) => a.event.deviceSeq - b.event.deviceSeq);
