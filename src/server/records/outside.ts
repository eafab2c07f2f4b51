import 'server-only';
import { demand } from '@/server/permission';
import { eq, sql } from 'drizzle-orm';
import { canonical } from '@/core/record/canonical';
import { markWords, readMark, type SignedMark } from '@/core/record/marks';
import { restoreBody } from '@/core/record/restore';
import type { Seal } from '@/core/record/seal';
import { inOrganisation } from '@/database/client';
import { outsidePhotos, outsideRecords, seals } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { publishedKeys } from '@/server/sealing/keys';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { verifyFileAside } from '@/server/unpack/unpack';
import { uuid7 } from '@/wire/uuid7';
import { ledgerRow, writeLine } from './ledger';

/** A larger upload is no record. */
export const MOST_FILE_BYTES = 100_000_000;

/**
 * Takes in a record file or bundle of another Vast Stone: kept as it came, beside what the check of it found. A changed one
 * is kept too, marked so; what cannot be read at all is refused. Brought in twice it stands once.
 * @throws TroubleError
 */
export async function bringInRecord(
  session: Session,
  bytes: Uint8Array,
): Promise<{ id: string; number: string; verified: boolean; faults: readonly string[] }> {
  demand(session, 'plan');
  const check = await verifyFileAside(bytes);
  if (!check.record || !check.facts)
    throw new TroubleError(
      422,
      'unreadable',
      check.faults[check.faults.length - 1] ?? 'The file cannot be read.',
    );
  const { record, faults, photos } = check;
  const moment = now();
  return inOrganisation(session, async (tx) => {
    const [own] = await tx.select({ run: seals.run }).from(seals).where(eq(seals.hash, record.seal.hash));
    if (own)
      throw new TroubleError(
        409,
        'own',
        `${record.seal.number} is a record of your own; it stands in the ledger already.`,
      );
    await tx.execute(
      sql`select pg_advisory_xact_lock(hashtextextended(${`outside ${session.org} ${record.seal.hash}`}, 0))`,
    );
    // the very same stands once; a genuine one after one that was changed is another, and is checked by itself
    const there = (
      await tx.select().from(outsideRecords).where(eq(outsideRecords.hash, record.seal.hash))
    ).find(
      (r) =>
        r.body === record.body &&
        canonical(r.seal) === canonical(record.seal) &&
        canonical(r.faults) === canonical(faults),
    );
    if (there)
      return {
        id: there.id,
        number: record.seal.number,
        verified: there.faults.length === 0,
        faults: there.faults,
      };
    const id = uuid7(moment);
    let row: Awaited<ReturnType<typeof ledgerRow>>;
    try {
      row = ledgerRow(session.org, id, 'outside', record.seal.number, record.body, record.marks);
    } catch {
      throw new TroubleError(
        422,
        'unreadable',
        'The record is of a version that this program cannot read. Bring the program up to date.',
      );
    }
    await tx.insert(outsideRecords).values({
      org: session.org,
      id,
      number: record.seal.number,
      hash: record.seal.hash,
      body: record.body,
      seal: record.seal,
      faults: [...faults],
      marks: [...record.marks],
      imported: new Date(moment),
      by: session.name,
    });
    if (photos.length)
      await tx.insert(outsidePhotos).values(
        photos.map((p) => ({
          org: session.org,
          record: id,
          hash: p.name.slice('photos/'.length, -'.jpg'.length),
          bytes: Buffer.from(p.bytes),
        })),
      );
    await writeLine(tx, row);
    await audit(
      tx,
      session,
      'brought in a record',
      `${record.seal.number}${faults.length ? ', changed' : ', verified'}`,
    );
    return { id, number: record.seal.number, verified: faults.length === 0, faults };
  });
}

export interface OutsideRecord {
  readonly id: string;
  readonly body: string;
  readonly seal: Seal;
  readonly faults: readonly string[];
  readonly marks: readonly SignedMark[];
  readonly markWords: readonly string[];
  readonly imported: string;
  readonly by: string;
  readonly organisation: string;
  /** Whether the key that signed it is one of our own: a record that came back. */
  readonly ownKey: boolean;
}
/** @throws TroubleError 404 */
export async function outsideRecord(scope: { org: string }, id: string): Promise<OutsideRecord> {
  return inOrganisation(scope, async (tx) => {
    const [row] = isId(id) ? await tx.select().from(outsideRecords).where(eq(outsideRecords.id, id)) : [];
    if (!row) throw notHere('record');
    const keys = await publishedKeys(tx);
    const { plan } = restoreBody(row.body);
    return {
      id,
      body: row.body,
      seal: row.seal,
      faults: row.faults,
      marks: row.marks,
      markWords: row.marks.map((m) => markWords(readMark(m), plan.made.zone)),
      imported: row.imported.toISOString(),
      by: row.by,
      organisation: plan.organisation.name,
      ownKey: keys.some((k) => k.key === row.seal.key),
    };
  });
}
