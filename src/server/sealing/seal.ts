import 'server-only';
import { randomBytes } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { wallGlyph } from '@/chart/wall';
import { CHAIN_START, makeBody, seal, verifySeal } from '@/core/record/record';
import { type Sealer } from '@/core/record/status';
import { reduce } from '@/core/run/reduce';
import { inOrganisation } from '@/database/client';
import { counters, publicLinks, seals } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { eventsOf, lockRun, planOf } from '@/server/runs/log';
import { followUpsOf } from '@/server/records/follow-ups';
import { tell } from '@/server/runs/bus';
import { TroubleError } from '@/server/trouble';
import { beginWatch } from '@/server/watches/watches';
import type { Identity } from '@/wire/role';
import { publicKey, signingSecret } from './keys';

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
    const { body, verdict, status } = makeBody(plan, events, sealer, new Date(moment).toISOString());
    const series = status === 'practice' ? 'practice' : 'record';
    await tx
      .insert(counters)
      .values({ org: person.org, series, last: 0, lastHash: CHAIN_START })
      .onConflictDoNothing();
    const [counter] = await tx.select().from(counters).where(eq(counters.series, series)).for('update');
    const last = counter!.last + 1;
    const number = `${series === 'practice' ? 'PRACTICE' : 'VS'}-${String(last).padStart(5, '0')}`;
    const made = seal(body, number, counter!.lastHash, await signingSecret(tx, person.org));
    const state = reduce(plan, events);
    const summary = {
      site: plan.site.name,
      system: plan.system.name,
      procedure: plan.procedure.title,
      by: person.name,
      label: verdict.label,
    };
    await tx.insert(seals).values({
      org: person.org,
      run,
      series,
      ...made,
      body,
      word: verdict.word,
      status,
      sealedAt: new Date(moment),
      summary,
      glyph: wallGlyph(plan, state),
      search: [
        number,
        summary.site,
        summary.system,
        summary.procedure,
        summary.by,
        summary.label,
        plan.site.address,
        plan.site.customer,
      ]
        .join(' ')
        .toLowerCase(),
    });
    await tx
      .update(counters)
      .set({ last, lastHash: made.hash })
      .where(and(eq(counters.org, person.org), eq(counters.series, series)));
    await tx
      .insert(publicLinks)
      .values({ org: person.org, run, token: randomBytes(18).toString('base64url') });
    await beginWatch(tx, person, plan, state, run, moment);
    if (status !== 'practice') await followUpsOf(tx, person.org, plan, state, verdict, number, moment);
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
/** Checks a stored seal: body against fingerprint and signature, key against the organisation's, link to the one before, and the log against the body. */
export async function checkSeal(scope: { org: string }, run: string): Promise<Check> {
  return inOrganisation(scope, async (tx) => {
    const [row] = await tx.select().from(seals).where(eq(seals.run, run));
    if (!row) throw new TroubleError(404, 'not-sealed', 'This run is not sealed.');
    const faults = verifySeal({ body: row.body, seal: row }, await publicKey(tx)).map((f) => f.text);
    const before = await tx
      .select({ hash: seals.hash, number: seals.number })
      .from(seals)
      .where(and(eq(seals.series, row.series), eq(seals.hash, row.previous)));
    if (row.previous === CHAIN_START ? !/-0*1$/.test(row.number) : before.length !== 1)
      faults.push('The record before this one in the series is missing or was changed.');
    if (before[0] && Number(before[0].number.split('-')[1]) !== Number(row.number.split('-')[1]) - 1)
      faults.push('The numbers of the series do not follow each other.');
    try {
      const body = JSON.parse(row.body) as { events: { id: string }[]; verdict: { word: string } };
      const log = await eventsOf(tx, run);
      if (log.length !== body.events.length || log.some((e, i) => e.id !== body.events[i]!.id))
        faults.push('The log of the run no longer matches the sealed record.');
      if (body.verdict.word !== row.word)
        faults.push('The ledger entry no longer matches the sealed record.');
    } catch {
      faults.push('The sealed record cannot be read.');
    }
    return { good: faults.length === 0, faults };
  });
}
