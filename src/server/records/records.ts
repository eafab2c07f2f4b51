import 'server-only';
import { and, desc, eq, inArray, isNull, like, notExists, sql } from 'drizzle-orm';
import type { GlyphCourse } from '@/chart/wall';
import { faceOf, inZone } from '@/core/record/face';
import type { SealedRecord } from '@/core/record/record';
import { inOrganisation, lookUp } from '@/database/client';
import { publicLinks, runs, seals } from '@/database/schema';
import { eventsOf } from '@/server/runs/log';
import { isId, notHere } from '@/server/trouble';
import type { PlacedEvent } from '@/core/run/events';
import type { Plan } from '@/core/plan/plan';
import { restoreBody } from '@/core/record/restore';
import { reduce } from '@/core/run/reduce';
import { medianTimes, stepTimes } from '@/core/run/step-times';

export interface StoredRecord extends SealedRecord {
  readonly run: string;
  readonly link: string | null;
  readonly sealedAt: string;
}

/** A sealed record of the organisation. @throws TroubleError 404 */
export async function recordOf(scope: { org: string }, run: string): Promise<StoredRecord> {
  if (!isId(run)) throw notHere('record');
  return inOrganisation(scope, async (tx) => {
    const [row] = await tx.select().from(seals).where(eq(seals.run, run));
    if (!row) throw notHere('record');
    const [link] = await tx
      .select({ token: publicLinks.token })
      .from(publicLinks)
      .where(and(eq(publicLinks.run, run), isNull(publicLinks.revoked)));
    const { number, previous, hash, signature, key, body } = row;
    return {
      run,
      body,
      seal: { number, previous, hash, signature, key },
      link: link?.token ?? null,
      sealedAt: row.sealedAt.toISOString(),
    };
  });
}

/** The run behind a public link. @throws TroubleError 404 for unknown and revoked links alike */
export async function publicRecord(token: string): Promise<{ org: string; run: string }> {
  const [found] = /^[A-Za-z0-9_-]{20,40}$/.test(token)
    ? await lookUp<{ org: string; run: string }>('find_public_link($1)', [token])
    : [];
  if (!found) throw notHere('certificate');
  return found;
}

export interface LedgerLine {
  readonly run: string;
  readonly number: string;
  readonly word: (typeof seals.$inferSelect)['word'];
  readonly status: (typeof seals.$inferSelect)['status'];
  readonly sealedAt: string;
  readonly glyph: readonly GlyphCourse[];
  readonly summary: (typeof seals.$inferSelect)['summary'];
}
/** Sealed records, newest first. @param search words that must all occur; @param system only of this system */
export async function ledger(scope: { org: string }, search: string, system?: string): Promise<LedgerLine[]> {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
  return inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({
        run: seals.run,
        number: seals.number,
        word: seals.word,
        status: seals.status,
        sealedAt: seals.sealedAt,
        glyph: seals.glyph,
        summary: seals.summary,
      })
      .from(seals)
      .where(
        and(
          ...words.map((w) => like(seals.search, `%${w.replace(/[%_\\]/g, (c) => `\\${c}`)}%`)),
          ...(system
            ? [inArray(seals.run, tx.select({ id: runs.id }).from(runs).where(eq(runs.system, system)))]
            : []),
        ),
      )
      .orderBy(desc(seals.sealedAt), desc(seals.number))
      .limit(200);
    return rows.map((r) => ({ ...r, glyph: r.glyph as GlyphCourse[], sealedAt: r.sealedAt.toISOString() }));
  });
}

/** Runs that are not sealed yet, newest first, with their logs. */
export async function openRuns(scope: {
  org: string;
}): Promise<{ plan: Plan; events: PlacedEvent[]; made: string }[]> {
  return inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({ id: runs.id, plan: runs.plan, made: runs.made })
      .from(runs)
      .where(
        notExists(
          tx
            .select({ one: sql`1` })
            .from(seals)
            .where(and(eq(seals.org, runs.org), eq(seals.run, runs.id))),
        ),
      )
      .orderBy(desc(runs.made))
      .limit(30);
    const all = [];
    for (const row of rows)
      all.push({ plan: row.plan, events: await eventsOf(tx, row.id), made: row.made.toISOString() });
    return all;
  });
}

/** What the public page may know: the words of the certificate's face, never the log or the ids behind it. */
export interface PublicFace {
  readonly number: string;
  readonly title: string;
  readonly statusLine: string;
  readonly organisation: string;
  readonly sealed: string;
  readonly word: LedgerLine['word'];
  readonly label: string;
  readonly sentence: string;
  readonly plain: string;
  readonly rows: readonly (readonly [string, string])[];
  readonly stages: readonly { readonly title: string; readonly word: string; readonly text: string }[];
  readonly hash: string;
}
export function publicFace(record: StoredRecord): PublicFace {
  const face = faceOf(record.body);
  const { plan, body } = face;
  const v = body.verdict;
  return {
    number: record.seal.number,
    title: face.title,
    statusLine: face.statusLine,
    organisation: plan.organisation.name,
    sealed: inZone(Date.parse(body.sealedAt), plan.made.zone),
    word: v.word,
    label: v.label,
    sentence: v.sentence,
    plain: v.plain,
    rows: [
      ['Site', `${plan.site.name}, ${plan.site.address}`],
      ['System', `${plan.system.name}, bounded by ${plan.system.supplyValve}`],
      ['Inside the test', plan.system.inScope.join('; ')],
      ['Not covered', plan.system.notCovered.join('; ')],
      ['Gauge', `${face.gauge}. Zero open to air: ${face.zeros}`],
      ...face.limits.map((l): [string, string] => [
        l.name,
        `${l.value}. Source: ${l.source}. Check the edition in force.`,
      ]),
      ...(v.adequacy ? [['Could have seen', v.adequacy.text] as [string, string]] : []),
      ['Begun, ended', `${face.started}; ${face.ended}`],
      ['Tester', face.state.signatures.find((s) => s.role === 'tester')?.name ?? ''],
    ],
    stages: v.stages.map(({ title, word, text }) => ({ title, word, text })),
    hash: record.seal.hash,
  };
}

/** The middle minutes of each step over the newest records of a procedure: what the steps really took. */
export async function lastTimes(
  scope: { org: string },
  procedure: string,
): Promise<{ runs: number; minutes: Record<string, number> }> {
  const bodies = await inOrganisation(scope, (tx) =>
    tx
      .select({ body: seals.body })
      .from(seals)
      .innerJoin(runs, eq(runs.id, seals.run))
      .where(and(eq(runs.practice, false), sql`${runs.plan}->'procedure'->>'id' = ${procedure}`))
      .orderBy(desc(seals.sealedAt))
      .limit(8),
  );
  const times = bodies.map(({ body }) => {
    const { plan, events } = restoreBody(body);
    return stepTimes(reduce(plan, events));
  });
  return { runs: times.length, minutes: medianTimes(times) };
}
