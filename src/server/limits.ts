import 'server-only';
import { now } from '@/server/now';
import { TroubleError } from '@/server/trouble';

interface Held {
  readonly times: Map<string, number[]>;
  readonly queues: Map<string, { running: number; waiting: (() => void)[] }>;
}
// one for the process, however many bundles the framework makes of this module
const held: Held = ((globalThis as { vastLimits?: Held }).vastLimits ??= {
  times: new Map(),
  queues: new Map(),
});
/** More keys than this are not watched: the oldest go. */
const MOST_KEYS = 10_000;

/** Lets something through so often in a time, for each key. @throws TroubleError 429 */
export function rateLimit(key: string, most: number, windowMs: number): void {
  const moment = now();
  const recent = (held.times.get(key) ?? []).filter((t) => t > moment - windowMs && t <= moment);
  held.times.delete(key);
  if (held.times.size >= MOST_KEYS) held.times.delete(held.times.keys().next().value!);
  held.times.set(key, recent);
  if (recent.length >= most)
    throw new TroubleError(
      429,
      'too-often',
      'That was asked for very often just now. Wait a minute, then try again.',
    );
  recent.push(moment);
}

/**
 * Does heavy work a few at a time: what comes meanwhile waits its turn, up to a number. @throws TroubleError 503
 */
export async function inTurn<T>(
  name: string,
  { atOnce, waiting }: { readonly atOnce: number; readonly waiting: number },
  work: () => Promise<T>,
): Promise<T> {
  const queue = held.queues.get(name) ?? { running: 0, waiting: [] };
  held.queues.set(name, queue);
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
