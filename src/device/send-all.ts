import type { Identity } from '@/wire/role';
import { CHANGED, errandsOf, sendErrands } from './errands';
import { unsentPhotos } from './photo';
import { type Errand, openStore, unsent } from './store';

/** What this device has that the office has not. */
export interface Waits {
  readonly errands: readonly Errand[];
  /** Entries and photos of runs. */
  readonly entries: number;
  readonly photos: number;
}
export async function waitsHere(who: Identity): Promise<Waits> {
  const store = await openStore(who);
  const [errands, entries, photos] = await Promise.all([
    errandsOf(store),
    unsent(store),
    unsentPhotos(store),
  ]);
  return { errands, entries: entries.length, photos: photos.length };
}
/** What waits, each in words; what the office refused is not among it. */
export const waitingWords = ({ errands, entries, photos }: Waits): string[] => [
  ...errands.filter((e) => !e.refused).map((e) => e.title),
  ...(entries ? [`${entries} ${entries === 1 ? 'entry' : 'entries'} of tests`] : []),
  ...(photos ? [`${photos} ${photos === 1 ? 'photo' : 'photos'}`] : []),
];
let sending = false;
const count = ({ errands, entries, photos }: Waits): number => errands.length + entries + photos;
/**
 * Sends everything that waits: what was entered and begun here, then entries and photos, of whichever run.
 * @returns whether the office has more of it than before
 */
export async function sendAll(who: Identity): Promise<boolean> {
  if (sending) return false;
  sending = true;
  try {
    const before = count(await waitsHere(who));
    if (!before) return false;
    const store = await openStore(who);
    if (!(await sendErrands(store))) {
      const waiting = [...(await unsent(store)), ...(await unsentPhotos(store))];
      const { BenchEngine } = await import('./bench');
      for (const run of new Set(waiting.map((w) => w.run))) await BenchEngine.send(run, who);
      if (waiting.length) globalThis.dispatchEvent?.(new Event(CHANGED));
    }
    return count(await waitsHere(who)) < before;
  } finally {
    sending = false;
  }
}
