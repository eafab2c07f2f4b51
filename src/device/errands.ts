import { now } from './clock';
import { readIdentity } from './identity';
import { office, OfficeError } from './office';
import { type Errand, openStore, type Store } from './store';
import type { Plan } from '@/core/plan/plan';

/** What was done without a signal waits here in its order and is sent by itself when there is one. */
export type NewErrand = Pick<Errand, 'path' | 'method' | 'body' | 'title' | 'run' | 'makes'>;

export const errandsOf = (store: Store): Promise<Errand[]> => store.getAll('errands');
/** The office, or what stands before it, is away: it may come back by itself. */
const isAway = (e: OfficeError): boolean => [0, 408, 425, 429, 502, 503, 504].includes(e.status);
/** What waits for something that the office will not have waits with it. */
const hangsOn = (errand: Errand, refused: readonly Errand[]): boolean => {
  const said = `${errand.path}${JSON.stringify(errand.body)}`;
  return refused.some((r) => r.seq !== errand.seq && r.makes.some((id) => said.includes(id)));
};

const sending = new Map<string, Promise<OfficeError | null>>();
/** Sends what waits, each once at a time. @returns what keeps it from being sent; null when nothing does */
export function sendErrands(store: Store): Promise<OfficeError | null> {
  const before = sending.get(store.name);
  if (before) return before;
  const work = sendAll(store).finally(() => {
    sending.delete(store.name);
    globalThis.dispatchEvent?.(new Event(CHANGED));
  });
  sending.set(store.name, work);
  return work;
}
async function sendAll(store: Store): Promise<OfficeError | null> {
  const refused: Errand[] = [];
  for (const errand of await errandsOf(store)) {
    if (errand.refused) refused.push(errand);
    if (errand.refused || hangsOn(errand, refused)) continue;
    try {
      await office(errand.path, { method: errand.method, body: errand.body });
      if (errand.run) await born(store, errand.run);
      await taken(store, errand);
    } catch (error) {
      if (!(error instanceof OfficeError)) throw error;
      if (isAway(error) || error.status === 401 || error.status >= 500) return error;
      const kept = { ...errand, refused: error.message };
      await store.put('errands', kept);
      refused.push(kept);
    }
  }
  return null;
}
/** The run is with the office: its plan is the one that was made there. */
async function born(store: Store, run: string): Promise<void> {
  const { plan } = await office<{ plan: Plan }>(`/api/runs/${run}`);
  const stored = await store.get('runs', run);
  if (!stored) return;
  const { unborn: _, ...rest } = stored;
  await store.put('runs', { ...rest, plan });
}
/** The office has it: what stood here in its place goes, and is fetched with what is carried next. */
async function taken(store: Store, { seq, makes }: Errand): Promise<void> {
  const tx = store.transaction(['errands', 'carried'], 'readwrite');
  await tx.objectStore('errands').delete(seq);
  for (const key of await tx.objectStore('carried').getAllKeys())
    if (key.startsWith('entered ') && makes.some((id) => key.endsWith(id)))
      await tx.objectStore('carried').delete(key);
  await tx.done;
}

/** Heard by whatever shows what waits, or what is carried. */
export const CHANGED = 'vast-errands';
/** Keeps an errand until it can be sent. */
export async function keepErrand(store: Store, errand: NewErrand): Promise<void> {
  await store.add('errands', { ...errand, made: now() } as Errand);
  globalThis.dispatchEvent?.(new Event(CHANGED));
}
/** Sends a refused errand once more, with everything that hung on it. */
export async function sendAgain(store: Store, seq: number): Promise<void> {
  const errand = await store.get('errands', seq);
  if (!errand) return;
  const { refused: _, ...rest } = errand;
  await store.put('errands', rest);
  await sendErrands(store);
}
/** Takes an errand off for good; a run that it would have begun stays on this device with its entries. */
export async function takeOff(store: Store, seq: number): Promise<void> {
  const errand = await store.get('errands', seq);
  if (errand) await taken(store, errand);
  globalThis.dispatchEvent?.(new Event(CHANGED));
}

/**
 * Sends what a person entered; without a signal it waits on this device, in its order.
 * @param keep what else is kept here meanwhile; its answer is what is sent later
 * @throws OfficeError when the office refuses, or nothing can be kept here
 */
export async function sendOrKeep(
  errand: NewErrand,
  keep: (store: Store) => Promise<unknown>,
): Promise<'sent' | 'kept'> {
  const who = readIdentity();
  const store = who && (await openStore(who).catch(() => null));
  const send = () => office(errand.path, { method: errand.method, body: errand.body });
  if (!store) {
    await send();
    return 'sent';
  }
  const waits = async () => (await errandsOf(store)).some((e) => !e.refused);
  if (await waits()) await sendErrands(store);
  // never overtakes what it may hang on
  if (!(await waits()))
    try {
      await send();
      return 'sent';
    } catch (error) {
      if (!(error instanceof OfficeError) || !isAway(error)) throw error;
    }
  await keepErrand(store, { ...errand, body: await keep(store) });
  return 'kept';
}
