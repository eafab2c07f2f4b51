/** Opens what was sent as a file, in a thread of its own: a large archive holds nobody else up. Bundled by scripts/tools.mjs. */
import { parentPort, workerData } from 'node:worker_threads';
import { readBundle } from '@/wire/bundle';
import { verifyFile } from '@/wire/verify-file';

const { task, bytes } = workerData as { task: 'bundle' | 'verify'; bytes: Uint8Array };
parentPort?.postMessage(task === 'bundle' ? readBundle(bytes) : verifyFile(bytes));
