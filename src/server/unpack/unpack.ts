import 'server-only';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { inTurn } from '@/server/limits';
import { TroubleError } from '@/server/trouble';
import { readBundle } from '@/wire/bundle';
import { verifyFile } from '@/wire/verify-file';

/** A file that takes longer is none of ours, ms. House figure: half a gigabyte of photos takes a tenth of it. */
const LONGEST_MS = 300_000;
/** Opened, it may take so much, MB. */
const MOST_MB = 3_000;

/** Runs a task of the unpacking thread; in this thread where the product's programs are not built, as in tests of parts. */
function aside<T>(task: 'bundle' | 'verify', bytes: Uint8Array, here: (bytes: Uint8Array) => T): Promise<T> {
  const file = path.join(process.cwd(), '.run', 'tools', 'unpack.mjs');
  return inTurn('unpack', { atOnce: 2, waiting: 8 }, async () => {
    if (!existsSync(file)) return here(bytes);
    const worker = new Worker(/* turbopackIgnore: true */ file, {
      workerData: { task, bytes },
      resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
    });
    const late = setTimeout(() => void worker.terminate(), LONGEST_MS);
    try {
      return await new Promise<T>((resolve, reject) => {
        worker.once('message', resolve);
        worker.once('error', reject);
        worker.once('exit', () => reject(new Error('ended')));
      });
    } catch {
      throw new TroubleError(
        422,
        'unreadable',
        'The file could not be opened: it is too large or damaged. Choose a record file or a bundle.',
      );
    } finally {
      clearTimeout(late);
      void worker.terminate();
    }
  });
}
/** A bundle read aside. */
export const readBundleAside = (bytes: Uint8Array) => aside('bundle', bytes, readBundle);
/** A record file or bundle checked aside. */
export const verifyFileAside = (bytes: Uint8Array) => aside('verify', bytes, (b) => verifyFile(b));
