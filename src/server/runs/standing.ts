/**
 * How runs stand, kept in this process as far as their logs were gone through: only what was placed since is read and taken in, so that
 * looking costs no more at the end of a day's log than at its beginning. Derived and disposable: what is forgotten is gone through again.
 */
import 'server-only';
import { sql } from 'drizzle-orm';
import type { Plan } from '@/core/plan/plan';
import { after, type Standing, standingAt, standOn } from '@/core/run/reduce';
import type { RunEvent } from '@/core/run/events';
import type { RunState } from '@/core/run/state';
import type { Tx } from '@/database/client';
import { ofProcess } from '@/database/process';
import { log } from '@/server/log';
import { eventsOf, planOf } from './read-log';

interface Kept {
  readonly standing: Standing;
  /** Its log could not be gone through; said once. */ broken: boolean;
}
/** So many runs, and so many streamed points in all of them, are kept in mind; house figures: some 100 MB at most. */
const MOST_RUNS = 500;
const MOST_POINTS = 1_500_000;
interface Held {
  readonly runs: Map<string, Kept>;
  points: number;
}
const held = ofProcess<Held>('standings', () => ({ runs: new Map(), points: 0 }));
const pointsOf = (k: Kept): number => k.standing.state.visits.reduce((sum, v) => sum + v.trace.length, 0);

function keep(key: string, kept: Kept, before: number): void {
  // the newest used last: what was not looked at for longest goes first
  held.runs.delete(key);
  held.runs.set(key, kept);
  held.points += pointsOf(kept) - before;
  for (const [oldest, k] of held.runs) {
    if (oldest === key || (held.runs.size <= MOST_RUNS && held.points <= MOST_POINTS)) break;
    held.runs.delete(oldest);
    held.points -= pointsOf(k);
  }
}
/** What one reads of it may not be changed: others read the same. */
export interface Stands {
  readonly plan: Plan;
  /** null: its log cannot be read; one such run must not take a list along. */
  readonly state: RunState | null;
  readonly position: number;
  readonly people: ReadonlySet<string>;
  readonly lastEntry: number;
}
/**
 * How a run stands now. @param scope whose transaction it is: only that organisation's rows are seen in it
 * @throws TroubleError 404 for an unknown run and for another organisation's alike
 */
export async function standingOf(tx: Tx, scope: { readonly org: string }, run: string): Promise<Stands> {
  const key = `${scope.org}/${run}`;
  const known = held.runs.get(key);
  const plan = await planHeld(tx, scope, run);
  const events = await eventsOf(tx, run, known?.standing.position ?? 0);
  // what follows is done in one go: another request may have gone on with the same run meanwhile
  const kept = held.runs.get(key) ?? { standing: standingAt(plan), broken: false };
  const before = held.runs.has(key) ? pointsOf(kept) : 0;
  if (!kept.broken)
    try {
      standOn(kept.standing, events);
    } catch (error) {
      kept.broken = true;
      log.error({ err: error, run }, 'a run cannot be read');
    }
  keep(key, kept, before);
  return kept.broken ? { ...kept.standing, state: null } : kept.standing;
}
/**
 * The plan of a run, from mind where the run is held: a plan is never changed, and is far larger than an entry.
 * @param scope whose transaction it is  @throws TroubleError as planOf
 */
export const planHeld = async (tx: Tx, scope: { readonly org: string }, run: string): Promise<Plan> =>
  held.runs.get(`${scope.org}/${run}`)?.standing.plan ?? planOf(tx, run);
/** How several runs stand: those to which nothing was added are not read again. */
export async function standingsOf(
  tx: Tx,
  scope: { readonly org: string },
  ids: readonly string[],
): Promise<Stands[]> {
  if (!ids.length) return [];
  const { rows } = await tx.execute<{ run: string; top: number | null }>(
    sql`select r.run, (select e.position from events e where e.org = ${scope.org} and e.run = r.run order by e.position desc limit 1) as top
      from unnest(${sql.param(ids)}::uuid[]) r (run)`,
  );
  const tops = new Map(rows.map((r) => [r.run, Number(r.top ?? 0)]));
  const found: Stands[] = [];
  for (const run of ids) {
    const kept = held.runs.get(`${scope.org}/${run}`);
    const same = kept && !kept.broken && kept.standing.position === tops.get(run);
    found.push(same ? kept.standing : await standingOf(tx, scope, run));
  }
  return found;
}
/** How a run will stand with these entries; null where they cannot be read together. The run is left as it stands. */
export function standsWith({ plan, state }: Stands, entries: readonly RunEvent[]): RunState | null {
  if (!state) return null;
  try {
    return after({ plan, state }, entries);
  } catch {
    return null;
  }
}
/** Forgets what is kept in mind. */
export function forgetStandings(): void {
  held.runs.clear();
  held.points = 0;
}
/** What a list says of a run whose log cannot be read. */
export const UNREADABLE =
  'This run cannot be read. Its entries are kept; open it, or ask whoever keeps the server.';
