import 'server-only';
import { demand } from '@/server/permission';
import { and, eq, isNull } from 'drizzle-orm';
import type { Plan } from '@/core/plan/plan';
import { signMark, type RecordMark } from '@/core/record/marks';
import { inOrganisation, type Tx } from '@/database/client';
import { events, followUps, ledger, photos, recordMarks, runs, seals } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { tell } from '@/server/runs/bus';
import { lockRun } from '@/server/runs/log';
import { eventsOf, planOf } from '@/server/runs/read-log';
import type { Session } from '@/server/session/session';
import { notHere, TroubleError } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import { signingSecret } from './keys';

type Person = { readonly org: string; readonly person: string; readonly name: string };
async function sealedRow(tx: Tx, run: string) {
  const [row] = await tx.select().from(seals).where(eq(seals.run, run));
  if (!row) throw notHere('record');
  const [line] = await tx
    .select({ superseded: ledger.superseded, voided: ledger.voided })
    .from(ledger)
    .where(eq(ledger.id, run));
  return { row, superseded: line?.superseded ?? null, voided: line?.voided ?? null };
}
async function keepMark(
  tx: Tx,
  person: Person,
  run: string,
  mark: RecordMark,
  moment: number,
): Promise<void> {
  await tx.insert(recordMarks).values({
    org: person.org,
    id: uuid7(moment),
    run,
    made: new Date(moment),
    ...signMark(mark, await signingSecret(tx)),
  });
  // what the record left to be done is over with it; the one in its place says anew what is owed
  await tx
    .update(followUps)
    .set({
      closed: new Date(moment),
      closedBy: mark.by ?? person.name,
      closedText: `${mark.number} is ${mark.kind}`,
    })
    .where(and(eq(followUps.run, run), isNull(followUps.closed)));
}

/** Says that a record is superseded; in the transaction that seals the one in its place. @throws TroubleError 409 */
export async function markSuperseded(
  tx: Tx,
  person: Person,
  old: NonNullable<Plan['supersedes']>,
  by: string,
  moment: number,
): Promise<void> {
  await lockRun(tx, person.org, old.run);
  const { row, superseded, voided } = await sealedRow(tx, old.run);
  if (superseded || voided)
    throw new TroubleError(
      409,
      'marked',
      `${row.number} is ${superseded ? `superseded by ${superseded}` : 'void'} already; nothing can take its place again.`,
    );
  await keepMark(
    tx,
    person,
    old.run,
    {
      format: 1,
      kind: 'superseded',
      number: row.number,
      hash: row.hash,
      by,
      reason: old.reason,
      person: person.name,
      at: new Date(moment).toISOString(),
    },
    moment,
  );
  await tx.update(ledger).set({ superseded: by }).where(eq(ledger.id, old.run));
  await audit(tx, person, 'superseded', `${row.number} by ${by}`, moment);
}

/** Makes a record void: it keeps its number and stays readable. @throws TroubleError */
export async function voidRecord(session: Session, run: string, reason: string): Promise<{ number: string }> {
  demand(session, 'seal');
  if (!reason.trim()) throw new TroubleError(422, 'reason', 'Say why the record is void.', 'reason');
  const moment = now();
  const number = await inOrganisation(session, async (tx) => {
    await planOf(tx, run);
    await lockRun(tx, session.org, run);
    const { row, superseded, voided } = await sealedRow(tx, run);
    if (voided) return row.number;
    if (superseded)
      throw new TroubleError(
        409,
        'superseded',
        `${row.number} is superseded by ${superseded}; make that one void.`,
      );
    await keepMark(
      tx,
      session,
      run,
      {
        format: 1,
        kind: 'void',
        number: row.number,
        hash: row.hash,
        reason: reason.trim(),
        person: session.name,
        at: new Date(moment).toISOString(),
      },
      moment,
    );
    await tx.update(ledger).set({ voided: reason.trim() }).where(eq(ledger.id, run));
    await audit(tx, session, 'made void', row.number, moment);
    return row.number;
  });
  tell(session.org, run, { kind: 'log' });
  return { number };
}

/** What a correction changes, in words that stand on the face of the new record: above all another place. */
function changedWords(
  plan: Plan,
  said: Pick<Correction, 'site'> & { readonly attendance: NonNullable<Plan['attendance']> },
): string[] {
  const told = (what: string, from = '', to = '') =>
    from.trim() === to.trim() ? [] : [`${what}: “${from || 'nothing'}” before, now “${to || 'nothing'}”`];
  return [
    ...told('Site', plan.site.name, said.site.name),
    ...told('Address', plan.site.address, said.site.address),
    ...told('Customer', plan.site.customer, said.site.customer),
    ...told('Permit', plan.attendance?.permit, said.attendance.permit),
    ...told('Present', plan.attendance?.present, said.attendance.present),
  ];
}

export interface Correction {
  readonly id: string;
  readonly reason: string;
  readonly site: { readonly name: string; readonly address: string; readonly customer: string };
  readonly permit: string;
  readonly present: string;
}
/**
 * Begins the record that is to stand in the place of a sealed one: the same readings in a run of its own, with what was
 * written wrongly about place, customer, permit and presence put right, to be signed and sealed again. A reading is
 * not corrected this way: the test is repeated. Asked twice with one id it answers the same run.
 * @throws TroubleError
 */
export async function supersede(session: Session, run: string, said: Correction): Promise<{ run: string }> {
  demand(session, 'seal');
  if (!said.reason.trim()) throw new TroubleError(422, 'reason', 'Say what was wrong.', 'reason');
  const moment = now();
  return inOrganisation(session, async (tx) => {
    const plan = await planOf(tx, run);
    await lockRun(tx, session.org, run);
    const [there] = await tx.select({ id: runs.id }).from(runs).where(eq(runs.id, said.id));
    if (there) return { run: said.id };
    const { row, superseded, voided } = await sealedRow(tx, run);
    if (superseded || voided)
      throw new TroubleError(
        409,
        'marked',
        `${row.number} is ${superseded ? `superseded by ${superseded}` : 'void'} already.`,
      );
    const [home] = await tx.select().from(runs).where(eq(runs.id, run));
    const log = (await eventsOf(tx, run)).filter((e) => e.kind !== 'signature');
    // every id of the old log gets a new one, wherever an entry names another
    const ids = new Map([[run, said.id], ...log.map((e, i): [string, string] => [e.id, uuid7(moment + i)])]);
    const moved = JSON.parse(
      JSON.stringify(log).replace(
        /"([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})"/g,
        (whole, id: string) => (ids.has(id) ? `"${ids.get(id)!}"` : whole),
      ),
    ) as typeof log;
    const attendance = {
      ...plan.attendance,
      ...(said.permit.trim() ? { permit: said.permit.trim() } : {}),
      ...(said.present.trim() ? { present: said.present.trim() } : {}),
    };
    const corrected: Plan = {
      ...plan,
      run: said.id,
      site: { ...plan.site, ...said.site },
      ...(Object.keys(attendance).length ? { attendance } : {}),
      supersedes: {
        run,
        number: row.number,
        reason: said.reason.trim(),
        changed: changedWords(plan, { ...said, attendance }),
      },
    };
    await tx.insert(runs).values({
      org: session.org,
      id: said.id,
      site: home!.site,
      system: home!.system,
      practice: home!.practice,
      plan: corrected,
      made: new Date(moment),
      madeBy: session.person,
    });
    for (let i = 0; i < moved.length; i += 500)
      await tx.insert(events).values(
        moved.slice(i, i + 500).map(({ position: _position, received, ...body }, k) => ({
          org: session.org,
          run: said.id,
          id: body.id,
          position: i + k + 1,
          received: received ?? moment,
          body: body as never,
        })),
      );
    const pictures = await tx.select().from(photos).where(eq(photos.run, run));
    if (pictures.length) await tx.insert(photos).values(pictures.map((p) => ({ ...p, run: said.id })));
    await audit(tx, session, 'began to supersede', row.number, moment);
    return { run: said.id };
  });
}
