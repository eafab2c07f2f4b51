import 'server-only';
import { demand } from '@/server/permission';
import { and, asc, desc, eq } from 'drizzle-orm';
import { checkHouse, copyAsHouse, editHouse, type RuleEdit } from '@/core/pack/house';
import { citedPack, sourcesOf, WHOLE_PACK, worksToWords, type WorksTo } from '@/core/pack/editions';
import { comparePacks } from '@/core/pack/lines';
import { loadPack } from '@/core/pack/load';
import type { Pack } from '@/core/pack/schema';
import { canonical, sha256Hex } from '@/core/record/canonical';
import { inOrganisation, type Tx } from '@/database/client';
import { storedPack } from './stored';
import { organisations, packs, sourceEditions } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { viewerDay } from '@/server/session/zone';
import type { Session } from '@/server/session/session';
import { notHere, TroubleError } from '@/server/trouble';

export interface PackVersion {
  readonly version: string;
  readonly made: string;
  readonly madeBy: string | null;
  readonly changes: readonly string[];
}
/** The newest version of each rule pack. */
export async function rulePacks(scope: { org: string }): Promise<Pack[]> {
  const rows = await inOrganisation(scope, (tx) =>
    tx.selectDistinctOn([packs.id]).from(packs).orderBy(asc(packs.id), desc(packs.made), desc(packs.version)),
  );
  return rows.map(storedPack);
}
/** A version of a pack as it is kept, the newest where none is named. */
const rowOf = async (tx: Tx, id: string, version?: string) =>
  (
    await tx
      .select()
      .from(packs)
      .where(and(eq(packs.id, id), ...(version ? [eq(packs.version, version)] : [])))
      .orderBy(desc(packs.made), desc(packs.version))
      .limit(1)
  ).at(0);
/** The newest version of a pack as a house cites it, with its hash; null where there is none of that name. */
export async function newestPack(
  tx: Tx,
  session: { readonly organisation: string },
  id: string,
): Promise<{ pack: Pack; hash: string } | null> {
  const row = await rowOf(tx, id);
  if (!row) return null;
  const editions = await editionsOf(tx, row.id);
  return { pack: citedPack(storedPack(row), editions, session.organisation), hash: row.hash };
}
async function versionOf(tx: Tx, id: string, version?: string) {
  const row = await rowOf(tx, id, version);
  if (!row) throw notHere('rule pack');
  return { row, pack: storedPack(row) };
}
/** One pack, its text and all its versions. @throws TroubleError 404 */
export const readPack = (
  scope: { org: string },
  id: string,
  version?: string,
): Promise<{ pack: Pack; text: string; history: PackVersion[] }> =>
  inOrganisation(scope, async (tx) => {
    const { row, pack } = await versionOf(tx, id, version);
    const rows = await tx
      .select({
        version: packs.version,
        made: packs.made,
        madeBy: packs.madeBy,
        changes: packs.changes,
      })
      .from(packs)
      .where(eq(packs.id, id))
      .orderBy(desc(packs.made), desc(packs.version));
    return {
      pack,
      text: row.body,
      history: rows.map((r) => ({
        version: r.version,
        made: r.made.toISOString(),
        madeBy: r.madeBy,
        changes: r.changes,
      })),
    };
  });

async function keep(
  tx: Tx,
  session: Session,
  pack: Pack,
  changes: readonly string[],
  what: string,
): Promise<void> {
  const moment = new Date(now());
  const rows = await tx
    .insert(packs)
    .values({
      org: session.org,
      id: pack.id,
      version: pack.version,
      hash: sha256Hex(canonical(pack)),
      body: JSON.stringify(pack, null, 2),
      made: moment,
      madeBy: session.name,
      changes,
    })
    .onConflictDoNothing()
    .returning({ id: packs.id });
  if (!rows.length)
    throw new TroubleError(
      409,
      'version-taken',
      `Version ${pack.version} of ${pack.id} exists already and may stand on records: it is never changed. Give the file another version.`,
    );
  await audit(tx, session, what, `${pack.id} ${pack.version}`, moment.getTime());
}

/** Copies a pack to a house pack. @throws TroubleError, PackError */
export async function copyPack(
  session: Session,
  from: { pack: string; version: string; id: string },
): Promise<Pack> {
  demand(session, 'govern');
  return inOrganisation(session, async (tx) => {
    const { pack } = await versionOf(tx, from.pack, from.version);
    const taken = await tx.select({ id: packs.id }).from(packs).where(eq(packs.id, from.id)).limit(1);
    if (taken.length)
      throw new TroubleError(
        409,
        'id-taken',
        `There is a pack ${from.id} already. Choose another short name.`,
      );
    const copy = copyAsHouse(pack, from.id, session.organisation, await viewerDay());
    await keep(
      tx,
      session,
      copy,
      [`copied from ${pack.title}, ${pack.id} ${pack.version}`],
      'copied rule pack',
    );
    return copy;
  });
}
/** Edits a house pack into its next version. @throws TroubleError, PackError naming the place */
export async function editPack(
  session: Session,
  id: string,
  version: string,
  edits: readonly RuleEdit[],
): Promise<Pack> {
  demand(session, 'govern');
  return inOrganisation(session, async (tx) => {
    const { pack } = await versionOf(tx, id);
    if (pack.version !== version)
      throw new TroubleError(
        409,
        'overtaken',
        `Somebody made version ${pack.version} meanwhile. Reload, look at it, and make your edit again.`,
      );
    const base = pack.basedOn ? (await versionOf(tx, pack.basedOn.id, pack.basedOn.version)).pack : pack;
    const next = editHouse(pack, base, edits, session.organisation, await viewerDay());
    const changes = comparePacks(pack, next).map(
      (c) =>
        `${c.where}: ${c.label}: ${c.from ?? 'none'} to ${c.to ?? 'taken away'}${c.permitsMore ? ' (permits more)' : ''}`,
    );
    if (!changes.length) throw new TroubleError(422, 'nothing', 'Nothing was changed.');
    await keep(tx, session, next, changes, 'edited rule pack');
    return next;
  });
}
/** Imports a pack from its file. @throws TroubleError, PackError naming the path */
export async function importPack(session: Session, text: string): Promise<Pack> {
  demand(session, 'govern');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new TroubleError(
      422,
      'not-json',
      'The file is not JSON. Choose the file that was exported from Rules.',
    );
  }
  const loaded = loadPack(value);
  return inOrganisation(session, async (tx) => {
    const { basedOn } = loaded;
    let pack = loaded;
    if (basedOn) {
      const base = await versionOf(tx, basedOn.id, basedOn.version).catch(() => null);
      if (!base)
        throw new TroubleError(
          422,
          'base',
          `This house pack comes from ${basedOn.title} (${basedOn.id} ${basedOn.version}), which is not here. Import that first: what the house pack permits more is told by it.`,
        );
      pack = checkHouse(base.pack, loaded);
    }
    await keep(tx, session, pack, ['imported from a file'], 'imported rule pack');
    return pack;
  });
}

/** What the organisation says of the sources of a pack. */
export const editionsOf = (tx: Tx, pack: string): Promise<WorksTo[]> =>
  tx
    .select({
      source: sourceEditions.source,
      edition: sourceEditions.edition,
      clause: sourceEditions.clause,
      jurisdiction: sourceEditions.jurisdiction,
    })
    .from(sourceEditions)
    .where(eq(sourceEditions.pack, pack));
export const readEditions = (scope: { org: string }, pack: string): Promise<WorksTo[]> =>
  inOrganisation(scope, (tx) => editionsOf(tx, pack));
/** Keeps which edition, clause and jurisdiction is worked to. Runs that go on keep what they began with. @throws TroubleError */
export async function saveEditions(
  session: Session,
  id: string,
  editions: readonly WorksTo[],
): Promise<void> {
  demand(session, 'govern');
  await inOrganisation(session, async (tx) => {
    const { pack } = await versionOf(tx, id);
    const known = new Set([WHOLE_PACK, ...pack.procedures.flatMap(sourcesOf)]);
    const strange = editions.find((e) => !known.has(e.source));
    if (strange)
      throw new TroubleError(
        422,
        'source',
        `This pack has no source “${strange.source}”. Reload the page: the pack may have changed meanwhile.`,
      );
    for (const e of editions) {
      const row = {
        org: session.org,
        pack: id,
        source: e.source,
        edition: e.edition.trim(),
        clause: e.clause.trim(),
        jurisdiction: e.jurisdiction.trim(),
      };
      await tx
        .insert(sourceEditions)
        .values(row)
        .onConflictDoUpdate({
          target: [sourceEditions.org, sourceEditions.pack, sourceEditions.source],
          set: { edition: row.edition, clause: row.clause, jurisdiction: row.jurisdiction },
        });
      await audit(tx, session, 'named edition', `${id}: ${e.source || 'whole pack'}: ${worksToWords(row)}`);
    }
  });
}

/** Classes of meter that the packs' tables know, each once; what no table knows can be said too. */
export async function meterKinds(scope: { org: string }): Promise<{ kind: string; label: string }[]> {
  const known = new Map<string, string>();
  for (const pack of await rulePacks(scope))
    for (const p of pack.procedures)
      for (const m of p.domain.meters ?? []) if (!known.has(m.kind)) known.set(m.kind, m.label);
  for (const [kind, label] of [
    ['none', 'no meter in the section'],
    ['other', 'another meter'],
    ['unknown', 'not looked at yet'],
  ] as const)
    if (!known.has(kind)) known.set(kind, label);
  return [...known].map(([kind, label]) => ({ kind, label }));
}

/** Packs of schools that the house does not work to, by id. */
export const packsAside = (scope: { org: string }): Promise<ReadonlySet<string>> =>
  inOrganisation(scope, async (tx) => {
    const [row] = await tx
      .select({ aside: organisations.packsAside })
      .from(organisations)
      .where(eq(organisations.org, scope.org));
    return new Set(row?.aside ?? []);
  });
/** Says to which schools the house works, once for all: the others are folded away wherever a test is chosen. */
export async function setPackAside(session: Session, pack: string, aside: boolean): Promise<void> {
  demand(session, 'govern');
  const known = new Set((await rulePacks(session)).map((p) => p.id));
  if (!known.has(pack)) throw notHere('rule pack');
  await inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select({ aside: organisations.packsAside })
      .from(organisations)
      .where(eq(organisations.org, session.org))
      .for('update');
    const next = [
      ...(row?.aside ?? []).filter((id) => known.has(id) && id !== pack),
      ...(aside ? [pack] : []),
    ];
    if (next.length === known.size)
      throw new TroubleError(422, 'none-left', 'The house works to one school at least: keep one.');
    await tx.update(organisations).set({ packsAside: next }).where(eq(organisations.org, session.org));
    await audit(tx, session, aside ? 'set a school aside' : 'took a school up', pack);
  });
}
