/** Checks what was sent as a file, in a thread of its own: a large archive holds nobody else up. Bundled by scripts/tools.mjs. */
import { parentPort, workerData } from 'node:worker_threads';
import { verifyFile } from '@/wire/verify-file';

parentPort?.postMessage(verifyFile(workerData as Uint8Array));
