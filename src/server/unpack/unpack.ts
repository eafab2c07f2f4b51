import 'server-only';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { inTurn } from '@/server/limits';
import { TroubleError } from '@/server/trouble';
import { verifyFile } from '@/wire/verify-file';

/** A file that takes longer is none of ours, ms. House figure: half a gigabyte of photos takes a tenth of it. */
const LONGEST_MS = 300_000;
/** Opened, it may take so much, MB. */
const MOST_MB = 3_000;

type Verified = ReturnType<typeof verifyFile>;
/** A record file or bundle checked in a thread of its own; in this one where the product's programs are not built, as in tests of parts. */
export function verifyFileAside(bytes: Uint8Array): Promise<Verified> {
  const file = path.join(process.cwd(), '.run', 'tools', 'unpack.mjs');
  return inTurn('unpack', { atOnce: 2, waiting: 8 }, async () => {
    if (!existsSync(file)) return verifyFile(bytes);
    const worker = new Worker(/* turbopackIgnore: true */ file, {
      workerData: bytes,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
    });
    const late = setTimeout(() => void worker.terminate(), LONGEST_MS);
    try {
      return await new Promise<Verified>((resolve, reject) => {
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
