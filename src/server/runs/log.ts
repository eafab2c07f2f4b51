import 'server-only';
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Plan } from '@/core/plan/plan';
import { canonical } from '@/core/record/canonical';
import type { PlacedEvent, RunEvent } from '@/core/run/events';
import { currentVisit } from '@/core/run/read';
import { inOrganisation, type Tx } from '@/database/client';
import { events, openRuns, seals } from '@/database/schema';
import { now } from '@/server/now';
import { keepCabinetHistory } from '@/server/cabinet/cabinet';
import { keepSightings } from '@/server/places/inventory';
import { demand } from '@/server/permission';
import { TroubleError } from '@/server/trouble';
import { may, type Role } from '@/wire/role';
import type { BatchAnswer } from '@/wire/requests';
import { tell } from './bus';
import { eventsOf, placed, planOf } from './read-log';
import { keepPapers } from './papers';
import { planHeld, standingOf, standsWith } from './standing';

export interface Writer {
  readonly org: string;
  readonly person: string;
  readonly role: Role;
}
/** A run as its benches need it. */
export async function readRun(
  scope: { org: string },
  run: string,
  after = 0,
): Promise<{ plan: Plan; events: PlacedEvent[]; sealed: { number: string } | null }> {
  return inOrganisation(scope, async (tx) => {
    const plan = await planOf(tx, run);
    const [sealed] = await tx.select({ number: seals.number }).from(seals).where(eq(seals.run, run));
    return { plan, events: await eventsOf(tx, run, after), sealed: sealed ?? null };
  });
}

/**
 * An entry as the office keeps it when a signed-in device sent it: whose it is, the office says; a signature of its own by
 * a link comes by the link, and what a gauge streams by its token. @throws TroubleError for a stream that no log stands behind
 */
function asSent(session: Sender, gauges: Plan['gauges'], sent: RunEvent): RunEvent {
  const event = { ...sent, byName: session.name };
  if (event.kind === 'signature') {
    const { via: _claimed, ...signature } = event;
    return signature.role === 'tester' ? { ...signature, name: session.name } : signature;
  }
  if (event.kind !== 'stream') return event;
  if (!event.imported)
    throw new TroubleError(
      403,
      'stream',
      'Only a paired gauge streams its display. Pair it by the code on the bench, or read its log in.',
      event.id,
    );
  return { ...event, simulated: gauges.find((g) => g.id === event.gauge)?.simulated ?? false };
}
/** Somebody signed in, by the office's own name for them. */
export type Sender = Writer & { readonly name: string };

/**
 * Takes what a signed-in device sent into a run's log, as the office knows it to be; what it changed goes back with its
 * place. @throws TroubleError as appendEvents
 */
export async function takeEvents(
  session: Sender,
  run: string,
  batch: readonly RunEvent[],
): Promise<BatchAnswer> {
  // only a log that was read in asks the plan which gauge it is of
  const streams = batch.some((e) => e.kind === 'stream');
  const gauges = streams ? (await inOrganisation(session, (tx) => planHeld(tx, session, run))).gauges : [];
  const kept = batch.map((e) => asSent(session, gauges, e));
  const changed = new Map(
    kept.flatMap((e, i) => (canonical(e) === canonical(batch[i]) ? [] : [[e.id, e] as const])),
  );
  const answer = await appendEvents(session, run, kept);
  return {
    ...answer,
    placed: answer.placed.map((p) => {
      const event = changed.get(p.id);
      return event ? { ...p, event } : p;
    }),
  };
}

/**
 * Appends events to a run, each id once, with gap-free positions in the order they came. Answers with the places of
 * all of them, so that a device that lost the answer can ask again.
 * @throws TroubleError when the run is unknown, sealed, or an event is another person's
 */
export async function appendEvents(
  writer: Writer,
  run: string,
  batch: readonly RunEvent[],
): Promise<BatchAnswer> {
  const moment = now();
  const result = await inOrganisation(writer, async (tx) => {
    const plan = await planHeld(tx, writer, run);
    for (const e of batch) {
      if (e.run !== run) throw new TroubleError(422, 'other-run', 'An entry belongs to another run.', e.id);
      if (e.by !== writer.person)
        throw new TroubleError(
          403,
          'other-person',
          'An entry was made by somebody else on this device. They must sign in to send it.',
          e.id,
        );
      demand(writer, 'run');
      if (e.kind === 'signature' && e.role === 'tester' && !may(writer.role, 'seal'))
        throw new TroubleError(
          403,
          'role',
          'An apprentice does not sign as tester. Ask the tester to sign in on this run.',
          e.id,
        );
    }
    // one writer per run at a time: positions without gaps, and no event lands while the run is being sealed
    await lockRun(tx, writer.org, run);
    const ids = batch.map((e) => e.id);
    const known = await tx
      .select({ id: events.id, run: events.run, position: events.position, received: events.received })
      .from(events)
      .where(inArray(events.id, ids))
      .orderBy(asc(events.position)); // asked again, the answer is the same
    if (known.some((k) => k.run !== run))
      throw new TroubleError(409, 'id-taken', 'An entry with this id already stands in another run.');
    const fresh = batch.filter((e, i) => !known.some((k) => k.id === e.id) && ids.indexOf(e.id) === i);
    if (fresh.length) {
      const [sealed] = await tx.select({ number: seals.number }).from(seals).where(eq(seals.run, run));
      if (sealed)
        throw new TroubleError(
          409,
          'sealed',
          `This run is sealed as ${sealed.number}; nothing can be added. Your entry stays on this device. A new record can supersede it.`,
        );
      const [top] = await tx
        .select({ position: events.position })
        .from(events)
        .where(eq(events.run, run))
        .orderBy(desc(events.position))
        .limit(1);
      const rows = fresh.map((body, i) => ({
        org: writer.org,
        run,
        id: body.id,
        position: (top?.position ?? 0) + i + 1,
        received: moment,
        body,
      }));
      // what the log's own reader could not read would take every list along: it is not taken in
      if (fresh.some((e) => e.kind !== 'stream')) {
        const stands = await standingOf(tx, writer, run);
        const next = standsWith(stands, rows.map(placed));
        if (!next)
          throw new TroubleError(
            422,
            'unreadable',
            'This entry cannot be read together with the run. It stays on your device.',
            fresh.length === 1 ? fresh[0]!.id : undefined,
          );
        await keepPapers(tx, writer, plan, fresh, next);
        const shows = currentVisit(next) ? (next.gauge ?? plan.gaugeMeant ?? null) : null;
        await tx
          .update(openRuns)
          .set({ shows, turn: sql`nextval('open_runs_turn_seq')` })
          .where(and(eq(openRuns.run, run), sql`${openRuns.shows} is distinct from ${shows}`));
      }
      for (let i = 0; i < rows.length; i += 500) await tx.insert(events).values(rows.slice(i, i + 500));
      await keepSightings(tx, writer.org, plan, fresh);
      await keepCabinetHistory(tx, plan, fresh, () => eventsOf(tx, run));
      return {
        grew: true,
        placed: [...known, ...rows].map(({ id, position, received }) => ({ id, position, received })),
      };
    }
    return { grew: false, placed: known.map(({ id, position, received }) => ({ id, position, received })) };
  });
  if (result.grew) tell(writer.org, run, { kind: 'log' });
  return { placed: result.placed, now: moment };
}

export const lockRun = (tx: Tx, org: string, run: string): Promise<unknown> =>
  tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${org + run}, 0))`);
