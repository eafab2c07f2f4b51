import 'server-only';
import { localDate } from '@/core/quantity/local-date';
import { and, asc, eq, or, sql } from 'drizzle-orm';
import { wallGlyph } from '@/chart/wall';
import { type GlyphCourse } from '@/chart/courses';
import type { Plan } from '@/core/plan/plan';
import { type LedgerFacts, ledgerFacts } from '@/core/record/ledger-facts';
import { readMark } from '@/core/record/marks';
import type { RecordBody } from '@/core/record/record';
import { restoreBody } from '@/core/record/restore';
import type { RecordStatus } from '@/core/record/status';
import { trendFigures, type TrendFigure } from '@/core/record/trend';
import type { PlacedEvent } from '@/core/run/events';
import { gaugesUsed } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import { verdictOf, type Verdict, type VerdictWord } from '@/core/verdict/verdict';
import { inOrganisation, type Tx } from '@/database/client';
import {
  gauges,
  ledger,
  ledgerViews,
  outsideRecords,
  packs,
  people,
  recordMarks,
  seals,
  sites,
  systems,
} from '@/database/schema';
import { type Progress, SILENT } from '@/server/jobs/progress';
import { now } from '@/server/now';
import { storedPack } from '@/server/rules/stored';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { searchTerms, searchWords, type LedgerSource, type LedgerSummary } from '@/wire/ledger';
import type { LedgerQuery } from '@/wire/ledger-schema';
import type { LedgerCells } from '@/wire/ledger-cells';

/** The words of an organisation begin with its own mark, so that the index never walks through another's. */
const mark = (org: string): string => org.slice(-6);
const vector = (org: string, words: readonly string[]) =>
  sql`array_to_tsvector(${sql.param(words.map((w) => mark(org) + w))}::text[])`;

type Restored = Omit<RecordBody, 'plan' | 'events'> & {
  readonly plan: Plan;
  readonly events: readonly PlacedEvent[];
};
/** Who answers for a record; those sealed before 0.3 name only who sealed. */
const testerOf = (body: Restored): string => (body.signer ?? body.sealer).name;
/** Everything under which a record is looked for. */
function wordsOf(body: Restored, state: RunState, number: string): string[] {
  const { plan } = body;
  const things = [...plan.system.appliances, ...state.inventory];
  const used = gaugesUsed(state);
  const read = plan.gauges.filter((g) => used.includes(g.id));
  return searchWords(
    [
      plan.site.name,
      plan.site.address,
      plan.site.customer,
      plan.system.name,
      plan.procedure.title,
      plan.pack.title,
      body.verdict.label,
      body.sealer.name,
      testerOf(body),
      plan.attendance?.permit ?? '',
      ...state.signatures.map((s) => s.name),
      ...new Set(body.events.map((e) => e.byName)),
      ...things.flatMap((t) => [t.name, t.make ?? '', t.model ?? '']),
      ...read.map((g) => g.name),
      plan.system.meter.kind === 'none' ? '' : plan.system.meter.name,
    ],
    [
      number,
      ...things.map((t) => t.serial ?? ''),
      ...read.map((g) => g.serial),
      plan.system.meter.serial ?? '',
    ],
  );
}

/**
 * The ledger's line of a record, from its sealed text alone.
 * @param id of the run, or of the outside record  @param known what the text was just judged to, where it was
 * @param broughtIn when it came with a whole organisation
 */
export function ledgerRow(
  org: string,
  id: string,
  source: LedgerSource,
  number: string,
  text: string,
  marks: readonly { readonly body: string }[] = [],
  known?: { readonly state: RunState; readonly verdict: Verdict },
  broughtIn?: Date | null,
): typeof ledger.$inferInsert {
  const body = restoreBody(text);
  const { plan, verdict } = body;
  const state = known?.state ?? reduce(plan, body.events);
  const judged = known?.verdict ?? verdictOf(plan, state) ?? { leakRate: null };
  const said = marks.map(readMark);
  const superseded = said.find((m) => m.kind === 'superseded');
  const voided = said.find((m) => m.kind === 'void');
  const used = gaugesUsed(state);
  return {
    org,
    id,
    source,
    number,
    word: verdict.word,
    // what another organisation sealed is no certificate of ours
    status: source === 'outside' ? 'not-a-certificate' : body.status,
    at: new Date(body.sealedAt),
    site: plan.site.id,
    system: source === 'own' && isId(plan.system.id) ? plan.system.id : null,
    procedure: plan.procedure.id,
    tester: testerOf(body),
    gauges: used,
    superseded: superseded ? (superseded.by ?? 'a later record') : null,
    voided: voided?.reason ?? null,
    words: vector(org, wordsOf(body, state, number)) as never,
    glyph: wallGlyph(plan, state),
    summary: {
      site: plan.site.name,
      system: plan.system.name,
      procedure: plan.procedure.title,
      by: testerOf(body),
      label: verdict.label,
      ...(broughtIn ? { broughtIn: localDate(broughtIn.getTime(), 'UTC') } : {}),
    },
    figures: trendFigures(plan, state, judged),
    facts: ledgerFacts(plan, state, judged),
  };
}
/** Writes a record's line, or writes it anew. */
export async function writeLine(tx: Tx, row: typeof ledger.$inferInsert): Promise<void> {
  const { org: _org, id: _id, ...rest } = row;
  await tx
    .insert(ledger)
    .values(row)
    .onConflictDoUpdate({ target: [ledger.org, ledger.id], set: rest });
}

/**
 * Makes the whole ledger anew from seals, marks and outside records, their texts one after the other: those of a long life do not go
 * into memory at once. @returns how many lines it has
 */
export async function rebuildLedger(scope: { org: string }, progress: Progress = SILENT): Promise<number> {
  return inOrganisation(scope, async (tx) => {
    await tx.delete(ledger);
    const sealed = await tx.select({ run: seals.run }).from(seals);
    const outside = await tx.select({ id: outsideRecords.id }).from(outsideRecords);
    await progress.step('Making the ledger', sealed.length + outside.length);
    let lines = 0;
    const write = async (row: typeof ledger.$inferInsert) => {
      await writeLine(tx, row);
      lines += 1;
      await progress.more(1);
    };
    for (const { run } of sealed) {
      const [s] = await tx
        .select({ number: seals.number, body: seals.body, broughtIn: seals.broughtIn })
        .from(seals)
        .where(eq(seals.run, run));
      if (!s) continue;
      const marks = await tx.select().from(recordMarks).where(eq(recordMarks.run, run));
      await write(ledgerRow(scope.org, run, 'own', s.number, s.body, marks, undefined, s.broughtIn));
    }
    for (const { id } of outside) {
      const [o] = await tx.select().from(outsideRecords).where(eq(outsideRecords.id, id));
      if (o) await write(ledgerRow(scope.org, o.id, 'outside', o.number, o.body, o.marks));
    }
    return lines;
  });
}

export interface LedgerLine extends LedgerCells {
  readonly run: string;
  readonly source: LedgerSource;
  readonly word: VerdictWord;
  readonly status: RecordStatus;
  readonly glyph: readonly GlyphCourse[];
  readonly system: string | null;
  readonly procedure: string;
}
interface Found {
  id: string;
  source: LedgerSource;
  number: string;
  word: VerdictWord;
  status: RecordStatus;
  at: string | Date;
  superseded: string | null;
  voided: string | null;
  glyph: readonly GlyphCourse[];
  summary: LedgerSummary;
  system: string | null;
  procedure: string;
  gauges: readonly string[];
  figures: readonly TrendFigure[];
  facts?: Partial<LedgerFacts>;
}

/**
 * Records that match, newest first.
 * @param most how many; the answer may be asked on from its last line  @param facts with figures and names, as files have them
 */
export async function searchLedger(
  scope: { org: string },
  query: LedgerQuery,
  most = 100,
  after?: { readonly at: string; readonly id: string },
  facts = false,
): Promise<LedgerLine[]> {
  const { find = '', from, to, ...rest } = query;
  const terms = searchTerms(find);
  // the words were folded to letters and figures: nothing in them can mean anything to the query language
  const words = terms.map((t) => `'${mark(scope.org)}${t}':*`).join(' & ');
  const wanted = {
    ...Object.fromEntries(Object.entries(rest).filter(([, v]) => v !== undefined)),
    ...(words ? { words } : {}),
    ...(from ? { from } : {}),
    ...(to ? { before: new Date(Date.parse(to) + 86_400_000).toISOString() } : {}),
    ...(after ? { after: after.at, afterId: after.id } : {}),
  };
  return inOrganisation(scope, async (tx) => {
    const { rows } = await tx.execute<Found & Record<string, unknown>>(
      sql`select id, source, number, word, status, at, superseded, voided, glyph, summary, system, procedure, gauges, figures${facts ? sql`, facts` : sql``} from search_ledger(${JSON.stringify(wanted)}::jsonb, ${most})`,
    );
    return rows.map(({ id, at, ...row }) => ({
      ...(row as Omit<Found, 'id' | 'at'>),
      run: id,
      sealedAt: new Date(at).toISOString(),
    }));
  });
}
/** The newest records, practice included. */
export const newestRecords = (scope: { org: string }, most: number) => searchLedger(scope, {}, most);
/** Every record of one system, oldest first: its courses over the years. */
export const historyOf = async (scope: { org: string }, system: string): Promise<LedgerLine[]> =>
  (await searchLedger(scope, { system }, 500)).reverse();

/** So many installations stand in the filter. */
const MOST_SYSTEMS = 200;
/** What the filters offer: procedures of the packs in use, testers, gauges. */
export const ledgerChoices = (scope: { org: string }, system?: string) =>
  inOrganisation(scope, async (tx) => {
    const newest = new Map<string, typeof packs.$inferSelect>();
    for (const p of await tx.select().from(packs).orderBy(asc(packs.made))) newest.set(p.id, p);
    const procedures = [...newest.values()]
      .flatMap((p) => storedPack(p).procedures.map(({ id, title }) => ({ id, title })))
      .sort((a, b) => a.title.localeCompare(b.title));
    const testers = (
      await tx.select({ name: people.name, role: people.role }).from(people).orderBy(asc(people.name))
    )
      .filter((p) => p.role === 'tester' || p.role === 'owner')
      .map((p) => p.name);
    const read = (await tx.select({ facts: gauges.facts }).from(gauges).orderBy(asc(gauges.name))).map(
      ({ facts }) => ({
        id: facts.id,
        title: `${facts.name}, ${facts.serial}`,
      }),
    );
    const stood = (
      await tx
        .select({ id: systems.id, name: systems.name, site: sites.name })
        .from(systems)
        .innerJoin(sites, eq(sites.id, systems.site))
        .where(system && isId(system) ? eq(systems.id, system) : undefined)
        .orderBy(asc(sites.name), asc(systems.name))
        .limit(MOST_SYSTEMS + 1)
    ).map((s) => ({ id: s.id, title: `${s.site}: ${s.name}` }));
    return {
      // more than that nobody looks through: a place is found by its words
      systems: stood.length > MOST_SYSTEMS ? [] : stood,
      procedures: [...new Map(procedures.map((p) => [p.id, p])).values()],
      testers,
      gauges: read,
    };
  });

export interface LedgerView {
  readonly id: string;
  readonly name: string;
  readonly query: string;
  readonly shared: boolean;
  readonly own: boolean;
}
export const ledgerViewsOf = (session: Pick<Session, 'org' | 'person'>): Promise<LedgerView[]> =>
  inOrganisation(session, async (tx) =>
    (
      await tx
        .select()
        .from(ledgerViews)
        .where(or(eq(ledgerViews.person, session.person), eq(ledgerViews.shared, true)))
        .orderBy(asc(ledgerViews.name))
    ).map((v) => ({
      id: v.id,
      name: v.name,
      query: v.query,
      shared: v.shared,
      own: v.person === session.person,
    })),
  );
/** Keeps a search under a name; asked again with the same id it is changed. @throws TroubleError 404 for another's */
export const saveView = (
  session: Session,
  view: { id: string; name: string; query: string; shared: boolean },
): Promise<{ id: string }> =>
  inOrganisation(session, async (tx) => {
    const [there] = await tx.select().from(ledgerViews).where(eq(ledgerViews.id, view.id));
    if (there && there.person !== session.person) throw notHere('view');
    if (!view.name.trim()) throw new TroubleError(422, 'name', 'Give the view a name.', 'name');
    await tx
      .insert(ledgerViews)
      .values({ org: session.org, person: session.person, made: new Date(now()), ...view })
      .onConflictDoUpdate({
        target: [ledgerViews.org, ledgerViews.id],
        set: { name: view.name, query: view.query, shared: view.shared },
      });
    return { id: view.id };
  });
export const dropView = (session: Session, id: string): Promise<void> =>
  inOrganisation(session, async (tx) => {
    const gone = isId(id)
      ? await tx
          .delete(ledgerViews)
          .where(and(eq(ledgerViews.id, id), eq(ledgerViews.person, session.person)))
          .returning({ id: ledgerViews.id })
      : [];
    if (!gone.length) throw notHere('view');
  });
