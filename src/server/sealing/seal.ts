import 'server-only';
import { randomBytes } from 'node:crypto';
import { and, eq, inArray } from 'drizzle-orm';
import { canonical } from '@/core/record/canonical';
import { readMark, verifyMark } from '@/core/record/marks';
import { changedParts, partsText, readParts } from '@/core/record/parts';
import { makeBody } from '@/core/record/record';
import { CHAIN_START, recordNumber, seal, verifySeal, type Seal } from '@/core/record/seal';
import { type Sealer, testerSigned } from '@/core/record/status';
import type { Plan } from '@/core/plan/plan';
import type { PlacedEvent } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { photosOf } from '@/core/run/photos';
import type { RunState } from '@/core/run/state';
import { inOrganisation, type Tx } from '@/database/client';
import { counters, ledger, people, photos, publicLinks, recordMarks, seals } from '@/database/schema';
import { audit } from '@/server/audit';
import { digest } from '@/server/digest';
import { clockIsAdjustable, now } from '@/server/now';
import { ledgerRow, writeLine } from '@/server/records/ledger';
import { followUpsOf } from '@/server/records/follow-ups';
import { leaksOfSeal } from '@/server/leaks/leaks';
import { tell } from '@/server/runs/bus';
import { lockRun } from '@/server/runs/log';
import { eventsOf, planOf } from '@/server/runs/read-log';
import { TroubleError } from '@/server/trouble';
import { beginWatch, endWatchFor } from '@/server/watches/watches';
import type { Identity } from '@/wire/role';
import { anchorDue } from './anchors';
import { publishedKeys, signingSecret } from './keys';
import { markSuperseded } from './marks';

/** A stored seal in the shape the core knows. */
export const sealOf = (row: typeof seals.$inferSelect): Seal => {
  const { number, previous, hash, signature, key, parts, partsSignature } = row;
  return {
    number,
    previous,
    hash,
    signature,
    key,
    ...(parts && partsSignature ? { parts, partsSignature } : {}),
  };
};

/** Photos that the log names must be here: a record never points at something nobody has. */
async function requirePhotos(tx: Tx, run: string, state: RunState): Promise<void> {
  const named = photosOf(state);
  if (!named.length) return;
  const here = await tx
    .select({ hash: photos.hash })
    .from(photos)
    .where(and(eq(photos.run, run), inArray(photos.hash, named)));
  const missing = named.length - new Set(here.map((h) => h.hash)).size;
  if (missing > 0)
    throw new TroubleError(
      409,
      'photos-missing',
      `${missing} photo${missing === 1 ? ' is' : 's are'} still on the device that took ${missing === 1 ? 'it' : 'them'}. Open this run there with a connection, wait until nothing is left to send, then seal.`,
    );
}

/** Who signed a run as tester, with role and licence as the office has them, also when they have left since. */
async function signerOf(tx: Tx, plan: Plan, events: readonly PlacedEvent[]): Promise<Sealer> {
  const signed = testerSigned(reduce(plan, events), events);
  const [row] = signed ? await tx.select().from(people).where(eq(people.id, signed.by)) : [];
  if (!row) throw new TroubleError(409, 'phase', 'The tester has not signed yet.');
  const { id, name, role, licenceNumber: number, licenceUntil: until } = row;
  return { id, name, role, licence: number && until ? { number, until } : null };
}

/**
 * Seals a signed run: number, chain, signature, stored as text. Asked twice it answers with the same seal.
 * @throws SealError, TroubleError
 */
export async function sealRun(
  person: Identity & Pick<Sealer, 'licence'>,
  run: string,
): Promise<{ number: string }> {
  const result = await inOrganisation(person, async (tx) => {
    const plan = await planOf(tx, run);
    await lockRun(tx, person.org, run);
    const [already] = await tx.select({ number: seals.number }).from(seals).where(eq(seals.run, run));
    if (already) return already;
    const events = await eventsOf(tx, run);
    const moment = now();
    const sealer: Sealer = {
      id: person.person,
      name: person.name,
      role: person.role,
      licence: person.licence,
    };
    const signer = await signerOf(tx, plan, events);
    const { body, verdict, status, state } = makeBody(
      plan,
      events,
      { sealer, signer, ...(clockIsAdjustable() ? { clock: 'test' as const } : {}) },
      new Date(moment).toISOString(),
    );
    await requirePhotos(tx, run, state);
    await anchorDue(tx, person.org, moment);
    const series = status === 'practice' ? 'practice' : 'record';
    await tx
      .insert(counters)
      .values({ org: person.org, series, last: 0, lastHash: CHAIN_START })
      .onConflictDoNothing();
    const [counter] = await tx.select().from(counters).where(eq(counters.series, series)).for('update');
    const last = counter!.last + 1;
    const number = recordNumber(series, last);
    const made = seal(body, number, counter!.lastHash, await signingSecret(tx));
    await tx
      .insert(seals)
      .values({ org: person.org, run, series, ...made, body, sealedAt: new Date(moment) });
    await tx
      .update(counters)
      .set({ last, lastHash: made.hash })
      .where(and(eq(counters.org, person.org), eq(counters.series, series)));
    await writeLine(tx, ledgerRow(person.org, run, 'own', number, body, [], { state, verdict }));
    if (plan.supersedes) await markSuperseded(tx, person, plan.supersedes, number, moment);
    await tx
      .insert(publicLinks)
      .values({ org: person.org, run, token: randomBytes(18).toString('base64url'), made: new Date(moment) });
    // the section was left under pressure once: a record in the place of another goes on with its watch
    if (!plan.supersedes) await beginWatch(tx, person, plan, state, run, moment);
    await endWatchFor(tx, person.org, plan, number, plan.made.by, moment);
    if (status !== 'practice') {
      await followUpsOf(tx, person.org, plan, state, verdict, number, moment, person.person);
      await leaksOfSeal(tx, person.org, plan.system.id, run, state, plan.made.by, moment);
    }
    await audit(tx, person, 'sealed', number, moment);
    return { number };
  });
  tell(person.org, run, { kind: 'log' });
  return result;
}

export interface Check {
  readonly good: boolean;
  readonly faults: readonly string[];
}
/**
 * Checks a stored seal: body against fingerprint, parts and signature, key against the organisation's keys, link to the
 * one before, the run's log, photos, marks and the ledger's line against the body. Says exactly what differs.
 */
export async function checkSeal(scope: { org: string }, run: string): Promise<Check> {
  return inOrganisation(scope, async (tx) => {
    const [row] = await tx.select().from(seals).where(eq(seals.run, run));
    if (!row) throw new TroubleError(404, 'not-sealed', 'This run is not sealed.');
    const keys = await publishedKeys(tx);
    const faults = verifySeal({ body: row.body, seal: sealOf(row) }, keys).map((f) => f.text);
    const before = await tx
      .select({ hash: seals.hash, number: seals.number })
      .from(seals)
      .where(and(eq(seals.series, row.series), eq(seals.hash, row.previous)));
    if (row.previous === CHAIN_START ? !/-0*1$/.test(row.number) : before.length !== 1)
      faults.push('The record before this one in the series is missing or was changed.');
    if (before[0] && Number(before[0].number.split('-')[1]) !== Number(row.number.split('-')[1]) - 1)
      faults.push('The numbers of the series do not follow each other.');
    try {
      const body = JSON.parse(row.body) as { events: unknown[]; verdict: { word: string } };
      const log = canonical({ events: await eventsOf(tx, run) });
      const sealed = readParts(partsText(canonical({ events: body.events })));
      for (const change of changedParts(log, sealed))
        faults.push(`In the stored log of the run: ${change.text}`);
      const [line] = await tx
        .select({ word: ledger.word, number: ledger.number })
        .from(ledger)
        .where(eq(ledger.id, run));
      if (!line || line.word !== body.verdict.word || line.number !== row.number)
        faults.push('The ledger entry no longer matches the sealed record.');
    } catch {
      faults.push('The sealed record cannot be read.');
    }
    for (const p of await tx
      .select({ hash: photos.hash, bytes: photos.bytes })
      .from(photos)
      .where(eq(photos.run, run)))
      if (digest(p.bytes) !== p.hash) faults.push(`The photo ${p.hash.slice(0, 12)} was changed.`);
    for (const m of await tx.select().from(recordMarks).where(eq(recordMarks.run, run)))
      faults.push(...verifyMark(m, { number: row.number, hash: row.hash }, keys));
    return { good: faults.length === 0, faults };
  });
}
/** The marks of a record, oldest first, as they were signed. */
export const marksOf = async (tx: Tx, run: string) =>
  (await tx.select().from(recordMarks).where(eq(recordMarks.run, run)).orderBy(recordMarks.made)).map(
    ({ body, signature, key }) => ({ signed: { body, signature, key }, mark: readMark({ body }) }),
  );
