import { type LeakEntry, leakEntryWords, leaksInRun, type LeakTest } from '@/core/after/leaks';
import { networkOf } from '@/core/network/enter';
import { partOf } from '@/core/network/network';
import type { RunState } from '@/core/run/state';
import { inOrganisation, type Tx } from '@/database/client';
import { systemWithSite } from '@/database/queries/places';
import { followUps, leakEntries, ledger, partPhotos, runs } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { ownId } from '@/server/places/practice-site';
import { isId, notHere, TroubleError } from '@/server/trouble';
import type { LeakBook, LeakRequest } from '@/wire/leaks';
import { and, asc, desc, eq, isNull, ne, sql } from 'drizzle-orm';
import 'server-only';

/** So many entries have the books of the busiest places; beyond it nobody reads them. */
const MOST_ENTRIES = 2000;
/** Tests that a book looks at, the newest. */
const MOST_TESTS = 100;
type Actor = { readonly org: string; readonly person: string; readonly name: string };

const entriesIn = async (tx: Tx, system: string): Promise<LeakEntry[]> =>
  (
    await tx
      .select()
      .from(leakEntries)
      .where(eq(leakEntries.system, system))
      .orderBy(asc(leakEntries.at), asc(leakEntries.id))
      .limit(MOST_ENTRIES)
  ).map((r) => ({ id: r.id, leak: r.leak, at: r.at.getTime(), byName: r.by, body: r.body }));
/** Sealed records of an installation, practice and void ones aside. */
async function testsIn(tx: Tx, system: string): Promise<LeakTest[]> {
  const rows = await tx
    .select({
      run: ledger.id,
      number: ledger.number,
      at: ledger.at,
      word: ledger.word,
      summary: ledger.summary,
      made: runs.made,
      retestOf: sql<string | null>`${runs.plan} #>> '{retestOf,run}'`,
      shown: sql<boolean>`exists (select 1 from events e where e.org = ${runs.org} and e.run = ${runs.id} and e.body ->> 'kind' = 'signature' and e.body ->> 'role' = 'witness')`,
    })
    .from(ledger)
    .innerJoin(runs, and(eq(runs.org, ledger.org), eq(runs.id, ledger.id)))
    .where(
      and(
        eq(ledger.system, system),
        ne(ledger.status, 'practice'),
        isNull(ledger.voided),
        isNull(ledger.superseded),
      ),
    )
    .orderBy(desc(ledger.at))
    .limit(MOST_TESTS);
  return rows.map((r) => ({
    run: r.run,
    number: r.number,
    at: r.at.getTime(),
    word: r.word,
    label: r.summary.label,
    procedure: r.summary.procedure,
    minutes: Math.max(0, Math.round((r.at.getTime() - r.made.getTime()) / 60_000)),
    shown: r.shown,
    retestOf: r.retestOf,
  }));
}
/** The leak book of an installation. @throws TroubleError 404 */
export const leakBook = (scope: { org: string }, system: string): Promise<LeakBook> =>
  inOrganisation(scope, async (tx) => {
    if (!isId(system) || !(await systemWithSite(tx, system))) throw notHere('system');
    const entries = await entriesIn(tx, system);
    return { entries, tests: entries.length ? await testsIn(tx, system) : [], now: now() };
  });

/**
 * Writes an entry into the book; the same id twice is one entry. A repair ends what was owed as one.
 * @throws TroubleError 404, 422: no such installation, leak, part, photo or test
 */
export async function writeLeak(actor: Actor, system: string, asked: LeakRequest): Promise<{ id: string }> {
  if (!isId(system) || !isId(asked.id) || !isId(asked.leak)) throw notHere('system');
  return inOrganisation(actor, async (tx) => {
    const place = await systemWithSite(tx, system);
    if (!place) throw notHere('system');
    const [there] = await tx.select().from(leakEntries).where(eq(leakEntries.id, asked.id));
    if (there) {
      if (there.system !== system) throw notHere('entry');
      return { id: asked.id };
    }
    const { body } = asked;
    const first = body.kind === 'found';
    if (first !== (asked.id === asked.leak))
      throw new TroubleError(
        422,
        'leak',
        'A leak begins with where it was found; all else belongs to one.',
        'leak',
      );
    const found = first ? body : await foundOf(tx, system, asked.leak);
    if (body.kind === 'found') await demandThere(tx, system, body, networkOf(place.system.facts));
    await tx.insert(leakEntries).values({
      org: actor.org,
      id: asked.id,
      system,
      leak: asked.leak,
      at: new Date(now()),
      by: actor.name,
      body,
    });
    if (body.kind === 'repaired' && found.run)
      await tx
        .update(followUps)
        .set({ closed: new Date(now()), closedBy: actor.name, closedText: leakEntryWords(body) })
        .where(and(eq(followUps.run, found.run), eq(followUps.kind, 'repair'), isNull(followUps.closed)));
    await audit(
      tx,
      actor,
      'wrote into the leak book',
      `${found.joint}: ${leakEntryWords(body)}`.slice(0, 300),
    );
    return { id: asked.id };
  });
}
type FoundBody = Extract<LeakEntry['body'], { kind: 'found' }>;
async function foundOf(tx: Tx, system: string, leak: string): Promise<FoundBody> {
  const [row] = await tx
    .select({ body: leakEntries.body })
    .from(leakEntries)
    .where(and(eq(leakEntries.system, system), eq(leakEntries.id, leak)));
  if (row?.body.kind !== 'found')
    throw new TroubleError(
      422,
      'leak',
      'That leak is not in this book. Write down first where it was found.',
      'leak',
    );
  return row.body;
}
/** What a client says of part, photo and test is looked for here. */
async function demandThere(
  tx: Tx,
  system: string,
  body: FoundBody,
  network: Parameters<typeof partOf>[0],
): Promise<void> {
  if (body.part && !partOf(network, body.part))
    throw new TroubleError(422, 'part', 'That part is not in the drawing any more. Choose another.', 'part');
  if (body.photo) {
    const [photo] = await tx
      .select({ part: partPhotos.part })
      .from(partPhotos)
      .where(and(eq(partPhotos.system, system), eq(partPhotos.hash, body.photo)));
    if (!photo)
      throw new TroubleError(
        422,
        'photo',
        'That photo is not with this installation. Take it again.',
        'photo',
      );
  }
  if (body.run) {
    const [run] = await tx
      .select({ id: runs.id })
      .from(runs)
      .where(and(eq(runs.id, body.run), eq(runs.system, system)));
    if (!run) throw new TroubleError(422, 'run', 'That test is not of this installation.', 'run');
  }
}
/** Joints at which a sealed test saw growing bubbles stand in the book by themselves. In the transaction that seals. */
export async function leaksOfSeal(
  tx: Tx,
  org: string,
  system: string,
  run: string,
  state: RunState,
  by: string,
  moment: number,
): Promise<void> {
  const seen = leaksInRun(run, state);
  if (!seen.length) return;
  await tx
    .insert(leakEntries)
    .values(
      seen.map(({ joint, body }) => {
        const id = ownId(run, `leak ${joint}`);
        return { org, id, system, leak: id, at: new Date(moment), by, body };
      }),
    )
    .onConflictDoNothing();
}
