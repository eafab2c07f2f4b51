import { movesOf } from '@/core/fillings/moves';
import { type Plan } from '@/core/plan/plan';
import { showExact, toNumber } from '@/core/quantity/exact';
import { addDays, localDate } from '@/core/quantity/local-date';
import { convert } from '@/core/quantity/unit';
import { partNow } from '@/core/run/read';
import type { RunState } from '@/core/run/state';
import { type WatchEntry, type WatchFacts, watchFall, watchState, type WatchState } from '@/core/watch/watch';
import { inOrganisation, lookUp, type Tx } from '@/database/client';
import { organisations, outbox, watchEntries, watches } from '@/database/schema';
import { audit } from '@/server/audit';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import { figureOf, type WatchEntryRequest } from '@/wire/watch';
import { and, count, desc, eq, gt, inArray } from 'drizzle-orm';
import { randomBytes } from 'node:crypto';
import 'server-only';

/** A watch that nobody ended is asked about after so many days. House figure. */
const WATCH_DAYS = 30;
/** Entries one link may bring in an hour. House figure. */
const LINK_AN_HOUR = 30;

/** Starts the watch of a run that left its section under pressure; in the transaction that seals it. */
export async function beginWatch(
  tx: Tx,
  person: { org: string; person: string },
  plan: Plan,
  state: RunState,
  run: string,
  moment: number,
): Promise<void> {
  if (!state.watch || plan.practice) return;
  const gauge = plan.gauges.find((g) => g.id === state.watch!.gauge);
  if (!gauge) return;
  const { figure } = state.watch;
  const pa = convert(toNumber(figure), figure.unit, 'Pa');
  const temperature = state.visits
    .flatMap((v) => v.holds)
    .map((h) => h.temperature.end ?? h.temperature.start)
    .filter((t) => t !== undefined)
    .pop();
  const [office] = await tx
    .select({ contact: organisations.contact, name: organisations.name })
    .from(organisations);
  const { fall, source } = watchFall(figure, gauge.resolution);
  const facts: WatchFacts = {
    title: `${plan.system.name}`,
    purpose: plan.system.loops?.length ? 'screed' : 'watch',
    place: { site: plan.site.name, system: plan.system.name },
    gauge: { name: gauge.name, serial: gauge.serial, resolution: gauge.resolution },
    figure,
    ...(temperature ? { temperature } : {}),
    fall,
    fallSource: source,
    perKelvin: movesOf(plan, partNow(plan, state)).weather(plan.system, pa)?.perKelvin ?? null,
    startedAt: state.watch.at,
    zone: plan.made.zone,
    until: addDays(localDate(moment, plan.made.zone), WATCH_DAYS),
    call: office?.contact || office?.name || '',
  };
  await tx.insert(watches).values({
    org: person.org,
    id: uuid7(moment),
    system: plan.system.id,
    run,
    facts,
    made: new Date(moment),
    madeBy: person.person,
  });
}

/** Ends the watch that was left for this very test: its gauge was read, and what stood there let out. In the sealing transaction. */
export async function endWatchFor(
  tx: Tx,
  org: string,
  plan: Plan,
  number: string,
  by: string,
  moment: number,
): Promise<void> {
  if (!plan.after?.left || plan.practice) return;
  const rows = await tx.select().from(watches).where(eq(watches.run, plan.after.run));
  const logs = await logOf(
    tx,
    rows.map((r) => r.id),
  );
  for (const row of rows) {
    if (logs.get(row.id)?.some((e) => e.kind === 'end')) continue;
    const id = uuid7(moment);
    const body: WatchEntry = {
      id,
      at: moment,
      who: by,
      trade: '',
      by: 'member',
      kind: 'end',
      text: `Read and ended by the test it was left for: ${number}`,
    };
    await tx.insert(watchEntries).values({ org, watch: row.id, id, received: new Date(moment), body });
  }
}

export interface WatchRow {
  readonly id: string;
  readonly system: string;
  readonly run: string | null;
  readonly facts: WatchFacts;
  readonly state: WatchState;
  readonly linked: boolean;
}
const logOf = async (tx: Tx, ids: readonly string[]): Promise<Map<string, WatchEntry[]>> => {
  const rows = ids.length
    ? await tx
        .select({ watch: watchEntries.watch, body: watchEntries.body })
        .from(watchEntries)
        .where(inArray(watchEntries.watch, [...ids]))
        .orderBy(watchEntries.received)
    : [];
  const by = new Map<string, WatchEntry[]>();
  for (const r of rows) by.set(r.watch, [...(by.get(r.watch) ?? []), r.body]);
  return by;
};
const asRow = (w: typeof watches.$inferSelect, log: readonly WatchEntry[]): WatchRow => ({
  id: w.id,
  system: w.system,
  run: w.run,
  facts: w.facts,
  state: watchState(w.facts, log),
  linked: w.tokenHash !== null,
});
/** Watches of the organisation, of one system, or begun by one run: those that go on first, then the newest. */
export const readWatches = (scope: { org: string }, system?: string, run?: string): Promise<WatchRow[]> =>
  inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select()
      .from(watches)
      .where(and(system ? eq(watches.system, system) : undefined, run ? eq(watches.run, run) : undefined))
      .orderBy(desc(watches.made))
      .limit(200);
    const logs = await logOf(
      tx,
      rows.map((r) => r.id),
    );
    return rows
      .map((r) => asRow(r, logs.get(r.id) ?? []))
      .sort((a, b) => Number(a.state.word === 'ended') - Number(b.state.word === 'ended'));
  });
/** @throws TroubleError 404 */
export const readWatch = (
  scope: { org: string },
  id: string,
): Promise<WatchRow & { readonly log: readonly WatchEntry[] }> =>
  inOrganisation(scope, async (tx) => {
    const [row] = isId(id) ? await tx.select().from(watches).where(eq(watches.id, id)) : [];
    if (!row) throw notHere('watch');
    const log = (await logOf(tx, [id])).get(id) ?? [];
    return { ...asRow(row, log), log };
  });

type Writer = { readonly org: string; readonly by: 'link' | 'member'; readonly person?: string };
/** Keeps one entry; a fall is told to the office by the simulated outbox. Asked twice with one id it is kept once. */
async function keepEntry(
  writer: Writer,
  watch: string,
  said: WatchEntryRequest,
): Promise<{ id: string; word: WatchState['word']; fell: boolean; doubt: boolean }> {
  return inOrganisation(writer, async (tx) => {
    const [row] = await tx.select().from(watches).where(eq(watches.id, watch));
    if (!row) throw notHere('watch');
    const before = (await logOf(tx, [watch])).get(watch) ?? [];
    const known = before.find((e) => e.id === said.id);
    const moment = now();
    const entry = known ?? entryOf(row.facts, before, writer.by, said, moment);
    const state = watchState(row.facts, known ? before : [...before, entry]);
    const own = state.readings.find((r) => r.id === (entry.kind === 'correction' ? entry.of : entry.id));
    const answer = { id: entry.id, word: state.word, fell: own?.lost ?? false, doubt: own?.doubt ?? false };
    if (known) return answer;
    await tx
      .insert(watchEntries)
      .values({ org: writer.org, watch, id: said.id, received: new Date(moment), body: entry });
    if (state.lost && !watchState(row.facts, before).lost)
      await tx.insert(outbox).values({
        org: writer.org,
        id: uuid7(moment),
        at: new Date(moment),
        by: entry.who,
        to: row.facts.call || 'the office',
        subject: `Watch fell: ${row.facts.place.site}, ${row.facts.place.system}`,
        body: `${entry.who}${entry.trade ? ` (${entry.trade})` : ''} read ${'figure' in entry ? showExact(entry.figure) : ''}; it was left at ${showExact(row.facts.figure)}. Look before anything is covered.`,
      });
    return answer;
  });
}
function entryOf(
  facts: WatchFacts,
  log: readonly WatchEntry[],
  by: 'link' | 'member',
  said: WatchEntryRequest,
  at: number,
): WatchEntry {
  if (log.some((e) => e.kind === 'end'))
    throw new TroubleError(409, 'ended', 'This watch is over: nothing more is entered.');
  const base = { id: said.id, at, who: said.who.trim(), trade: said.trade.trim(), by };
  const figure = figureOf(said.figure);
  const own = (): NonNullable<typeof figure> => {
    if (!figure)
      throw new TroubleError(422, 'figure', `Type what the gauge shows, in ${facts.figure.unit}.`, 'figure');
    if (figure.unit !== facts.figure.unit)
      throw new TroubleError(
        422,
        'unit',
        `This gauge reads ${facts.figure.unit}: type the figure in that unit.`,
        'figure',
      );
    if (figure.digits < 0)
      throw new TroubleError(
        422,
        'figure',
        'A pressure below zero cannot stand there. Check the figure.',
        'figure',
      );
    return figure;
  };
  switch (said.kind) {
    case 'reading': {
      const temperature = figureOf(said.temperature);
      return {
        ...base,
        kind: 'reading',
        figure: own(),
        ...(temperature ? { temperature } : {}),
        text: said.text,
      };
    }
    case 'on-site':
      return { ...base, kind: 'on-site', text: said.text };
    case 'correction': {
      const of = log.find((e) => e.id === said.of && e.kind === 'reading');
      if (!of) throw new TroubleError(422, 'of', 'That reading is not one of this watch.', 'of');
      if (!said.text.trim())
        throw new TroubleError(422, 'text', 'Say why it is corrected; both stay.', 'text');
      return { ...base, kind: 'correction', of: of.id, figure: own(), text: said.text };
    }
    default:
      if (by === 'link') throw new TroubleError(403, 'role', 'Only the firm that set the watch can end it.');
      return { ...base, kind: 'end', text: said.text };
  }
}

/** An entry by a member. */
export async function memberEntry(session: Session, watch: string, said: WatchEntryRequest) {
  if (!isId(watch)) throw notHere('watch');
  return keepEntry({ org: session.org, by: 'member', person: session.person }, watch, said);
}
/** An entry by the link: readings, presence and corrections; never the end, never what others wrote. */
export async function linkEntry(token: string, said: WatchEntryRequest) {
  const link = await watchOfLink(token);
  const [recent] = await inOrganisation(link, (tx) =>
    tx
      .select({ n: count() })
      .from(watchEntries)
      .where(and(eq(watchEntries.watch, link.id), gt(watchEntries.received, new Date(now() - 3_600_000)))),
  );
  if ((recent?.n ?? 0) >= LINK_AN_HOUR)
    throw new TroubleError(
      429,
      'too-many',
      'Too many entries in the last hour. Wait a while; what you typed stays here. If it falls, call now.',
    );
  return keepEntry({ org: link.org, by: 'link' }, link.id, said);
}
async function watchOfLink(token: string): Promise<{ org: string; id: string }> {
  const [link] = /^[A-Za-z0-9_-]{20,60}$/.test(token)
    ? await lookUp<{ org: string; id: string }>('find_watch_link($1)', [digest(token)])
    : [];
  if (!link)
    throw new TroubleError(
      404,
      'link',
      'This link is not in use any more. Ask the firm that set the watch for a new one.',
    );
  return link;
}
/** What the link shows: what to look for and whom to call. Nothing that anyone wrote. */
export async function watchForLink(
  token: string,
): Promise<{ facts: WatchFacts; ended: boolean; firm: string }> {
  const link = await watchOfLink(token);
  return inOrganisation(link, async (tx) => {
    const [row] = await tx.select().from(watches).where(eq(watches.id, link.id));
    const [office] = await tx.select({ name: organisations.name }).from(organisations);
    const log = (await logOf(tx, [link.id])).get(link.id) ?? [];
    return { facts: row!.facts, ended: log.some((e) => e.kind === 'end'), firm: office!.name };
  });
}
/** Makes a new link, which takes the place of the old one, or revokes it. The token is shown once. */
export async function setLink(
  session: Session,
  watch: string,
  act: 'make' | 'revoke',
): Promise<{ token: string | null }> {
  if (!isId(watch)) throw notHere('watch');
  const token = act === 'make' ? randomBytes(24).toString('base64url') : null;
  return inOrganisation(session, async (tx) => {
    const done = await tx
      .update(watches)
      .set({ tokenHash: token ? digest(token) : null, tokenMade: token ? new Date(now()) : null })
      .where(eq(watches.id, watch))
      .returning({ id: watches.id });
    if (!done.length) throw notHere('watch');
    await audit(tx, session, token ? 'made a watch link' : 'revoked a watch link', watch);
    return { token };
  });
}
