import 'server-only';
import { EventEmitter } from 'node:events';
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { listenAddress, openPool } from '@/database/client';
import { ofProcess } from '@/database/process';
import { log } from '@/server/log';

/** What is told to the open benches of a run: the gauge's newest display, or that the log grew. */
export type RunNews =
  | {
      readonly kind: 'gauge';
      readonly gauge: string;
      readonly simulated: boolean;
      readonly at: number;
      readonly digits: number;
      readonly scale: number;
      readonly unit: string;
      readonly flow?: { readonly digits: number | null; readonly scale: number; readonly unit: string };
      /** What a probe on the pipe shows. */
      readonly temperature?: { readonly digits: number; readonly scale: number; readonly unit: string };
    }
  /** What it sends cannot be used, and what to do. */
  | { readonly kind: 'refused'; readonly gauge: string; readonly text: string }
  | { readonly kind: 'log' };
interface Note {
  readonly org: string;
  readonly run: string;
  readonly news: RunNews;
}
interface Bus {
  readonly emitter: EventEmitter;
  /** This server among those on the database: it heard its own news already. */
  readonly origin: string;
  /** What the others are still to be told: of a gauge the newest display alone. */
  readonly owed: Map<string, Note>;
  flushing?: NodeJS.Timeout | undefined;
  hears?: Promise<void> | undefined;
  /** Its connection, and whether it is given up. */
  ear?: pg.Client;
  over?: boolean;
}
const bus = ofProcess<Bus>('news', () => ({
  emitter: new EventEmitter().setMaxListeners(0),
  origin: randomUUID(),
  owed: new Map(),
}));
const CHANNEL = 'vast_news';
/** News are gathered so long before the other servers are told, ms; so much of it goes into one notification, characters. */
const GATHER_MS = 40;
const MOST = 7_000;
/** Waits before the channel is opened again, ms. */
const AGAIN_MS = [200, 500, 1_000, 2_000, 5_000, 10_000];
const key = (org: string, run: string) => `${org}/${run}`;

/** Tells whoever listens on this server at once, and the other servers on this database by its own notifications. */
export function tell(org: string, run: string, news: RunNews): void {
  bus.emitter.emit(key(org, run), news);
  bus.owed.set(`${key(org, run)}/${'gauge' in news ? `${news.kind} ${news.gauge}` : ''}`, { org, run, news });
  bus.flushing ??= setTimeout(() => void flush(), GATHER_MS).unref();
}
async function flush(): Promise<void> {
  const notes = [...bus.owed.values()];
  bus.owed.clear();
  bus.flushing = undefined;
  let batch: Note[] = [];
  let length = 0;
  const send = async () => {
    if (!batch.length) return;
    const payload = JSON.stringify({ from: bus.origin, notes: batch });
    batch = [];
    length = 0;
    await openPool()?.query('select pg_notify($1, $2)', [CHANNEL, payload]);
  };
  try {
    for (const note of notes) {
      const more = JSON.stringify(note).length + 1;
      if (length + more > MOST) await send();
      batch.push(note);
      length += more;
    }
    await send();
  } catch (error) {
    // the database is away: what was told on this server stands, the others look into the log once it is back
    log.warn({ err: error }, 'news');
  }
}
/** News of another server; what is none of ours is left. */
function heard(payload: string | undefined): void {
  let said: { from?: unknown; notes?: unknown };
  try {
    said = JSON.parse(payload ?? '') as typeof said;
  } catch {
    return;
  }
  if (said === null || said.from === bus.origin || !Array.isArray(said.notes)) return;
  for (const { org, run, news } of said.notes as Partial<Note>[])
    if (org && run && news) bus.emitter.emit(key(org, run), news);
}
/** Listens to the other servers, for as long as this one runs: a connection of its own, opened again whenever it ends. */
async function hear(): Promise<void> {
  for (let n = 0; !bus.over; n += 1) {
    const client = new pg.Client({ connectionString: listenAddress(), keepAlive: true });
    bus.ear = client;
    try {
      const ended = new Promise<void>((end) => {
        client.on('end', end);
        client.on('error', () => end());
      });
      client.on('notification', (m) => heard(m.payload));
      await client.connect();
      await client.query(`listen ${CHANNEL}`);
      // what was told while nobody listened stands in the log
      if (n) for (const of of bus.emitter.eventNames()) bus.emitter.emit(of, { kind: 'log' });
      n = 0;
      await ended;
    } catch (error) {
      log.warn({ err: error }, 'news');
    }
    // one that never came to stand does not always say that it ended: nothing waits for it
    void client.end().catch(() => undefined);
    if (!bus.over)
      await new Promise((r) => setTimeout(r, AGAIN_MS[Math.min(n, AGAIN_MS.length - 1)]).unref());
  }
}
/** Stops listening to the other servers, until somebody listens again. */
export async function stopHearing(): Promise<void> {
  bus.over = true;
  await bus.ear?.end().catch(() => undefined);
  await bus.hears;
  bus.hears = undefined;
  bus.over = false;
}
/** Listens; the returned function stops. */
export function listen(org: string, run: string, to: (news: RunNews) => void): () => void {
  bus.hears ??= hear();
  bus.emitter.on(key(org, run), to);
  return () => bus.emitter.off(key(org, run), to);
}
