import 'server-only';
import { lookUp } from '@/database/client';
import { ofProcess } from '@/database/process';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import { TroubleError } from '@/server/trouble';

interface Queue {
  running: number;
  readonly waiting: (() => void)[];
}
// what one process can do at once is its own
const queues = ofProcess('queues', () => new Map<string, Queue>());

/** Whether something may go through: so often in a time, for each key, whichever server is asked. */
export async function takeTurn(key: string, most: number, windowMs: number): Promise<boolean> {
  const moment = now();
  // of whom it is kept is nobody's to read
  const [row] = await lookUp<{ take_turn: boolean }>('take_turn($1, $2, $3, $4)', [
    digest(key),
    new Date(moment),
    new Date(moment - windowMs),
    most,
  ]);
  return row!.take_turn;
}
/** Lets something through so often in a time, for each key. @throws TroubleError 429 */
export async function rateLimit(key: string, most: number, windowMs: number): Promise<void> {
  if (!(await takeTurn(key, most, windowMs)))
    throw new TroubleError(
      429,
      'too-often',
      'That was asked for very often just now. Wait a minute, then try again.',
    );
}

/**
 * Does heavy work a few at a time in this process: what comes meanwhile waits its turn, up to a number. @throws TroubleError 503
 */
export async function inTurn<T>(
  name: string,
  { atOnce, waiting }: { readonly atOnce: number; readonly waiting: number },
  work: () => Promise<T>,
): Promise<T> {
  const queue: Queue = queues.get(name) ?? { running: 0, waiting: [] };
  queues.set(name, queue);
  if (queue.running >= atOnce) {
    if (queue.waiting.length >= waiting)
      throw new TroubleError(
        503,
        'busy',
        'Many are asking for this at once. Wait a moment, then try again; nothing is lost.',
      );
    await new Promise<void>((go) => queue.waiting.push(go));
  } else queue.running += 1;
  try {
    return await work();
  } finally {
    // whoever waits takes the place over; it is free only where nobody does
    const next = queue.waiting.shift();
    if (next) next();
    else queue.running -= 1;
  }
}
