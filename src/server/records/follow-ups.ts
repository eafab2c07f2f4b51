import { FOLLOW_UPS, type FollowUpKind } from '@/core/after/follow-ups';
import { applianceChanges, dayAfter, endedBy, owedBy } from '@/core/after/rules';
import type { System } from '@/core/installation/section';
import { dueWords } from '@/core/instrument/kit';
import type { Plan } from '@/core/plan/plan';
import type { RunState } from '@/core/run/state';
import type { Verdict } from '@/core/verdict/verdict';
import { isGood } from '@/core/verdict/words';
import { watchState } from '@/core/watch/watch';
import { inOrganisation, type Tx } from '@/database/client';
import {
  followUps,
  gauges,
  kit,
  people,
  runs,
  sites,
  systems,
  watchEntries,
  watches,
} from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { inventoryOf } from '@/server/places/inventory';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import { and, asc, eq, inArray, isNull, type SQL, sql } from 'drizzle-orm';
import 'server-only';

/** So many days ahead what runs out by its date is brought to mind. House figure. */
const AHEAD_DAYS = 60;

/**
 * What a sealed record leaves to be done, and what it brings to an end, by the rules of core/after. In the transaction
 * that seals it.
 */
export async function followUpsOf(
  tx: Tx,
  org: string,
  plan: Plan,
  state: RunState,
  verdict: Verdict,
  number: string,
  moment: number,
  owner: string | null = null,
): Promise<void> {
  const ended = state.ending?.at ?? moment;
  const system = plan.system.id;
  const pending = await tx
    .select({
      id: followUps.id,
      kind: followUps.kind,
      run: followUps.run,
      procedure: sql<string | null>`${runs.plan}->'procedure'->>'id'`,
    })
    .from(followUps)
    .leftJoin(runs, eq(runs.id, followUps.run))
    .where(and(eq(followUps.system, system), isNull(followUps.closed)));
  const later = {
    word: verdict.word,
    procedure: plan.procedure.id,
    ...(plan.retestOf ? { retestOf: plan.retestOf.run } : {}),
  };
  const ends = pending.filter((p) => endedBy(p, later)).map((p) => p.id);
  // a test that was repeated and failed again owes one repeat, not two
  const again = isGood(verdict.word)
    ? []
    : pending.filter((p) => p.kind === 'retest' && p.procedure === plan.procedure.id).map((p) => p.id);
  const close = (ids: string[], closedText: string) =>
    ids.length
      ? tx
          .update(followUps)
          .set({ closed: new Date(moment), closedBy: number, closedText })
          .where(inArray(followUps.id, ids))
      : undefined;
  await close(ends, verdict.label);
  await close(again, `Tested again: ${verdict.label}`);
  const seen = await inventoryOf(tx, system);
  const changes = seen
    .filter((s) => s.run === plan.run || s.run === plan.supersedes?.run)
    .flatMap((s) => s.changes);
  const owed = owedBy(plan, state, verdict, ended, changes);
  if (owed.length)
    await tx.insert(followUps).values(
      owed.map((o, i) => ({
        org,
        id: uuid7(moment + i),
        run: plan.run,
        system,
        made: new Date(moment),
        owner,
        ...o,
      })),
    );
}

/** A part that became another on the page of its system: what was tested before does not cover it. */
export async function applianceSwapped(
  tx: Tx,
  org: string,
  before: System,
  after: System,
  moment: number,
): Promise<void> {
  const changes = applianceChanges(before, after);
  if (changes.length)
    await tx.insert(followUps).values(
      changes.map((c, i) => ({
        org,
        id: uuid7(moment + i),
        run: null,
        system: after.id,
        kind: 'swapped' as const,
        text: `${c}. Records made before do not cover it: test again`,
        due: dayAfter(moment, 0),
        made: new Date(moment),
      })),
    );
}

interface Wanted {
  readonly kind: FollowUpKind;
  readonly subject: string;
  readonly system: string | null;
  readonly text: string;
  readonly due: string;
  readonly owner: string | null;
}
/**
 * Brings what runs out by its date into the list, and takes off what was seen to: a gauge with a new calibration, a
 * licence with a new day, a watch that is over. One writer an organisation at a time.
 */
export async function syncDue(tx: Tx, org: string): Promise<void> {
  const moment = now();
  const soon = dayAfter(moment, AHEAD_DAYS);
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`${org}due`}, 0))`);
  const watching = await tx.select().from(watches);
  const entries = watching.length
    ? await tx.select().from(watchEntries).orderBy(asc(watchEntries.received))
    : [];
  const wanted: Wanted[] = [
    ...(await tx.select().from(gauges)).flatMap(({ id, facts: g }) =>
      g.calibrationDue < soon && !g.withdrawn
        ? [
            {
              kind: 'calibration' as const,
              subject: id,
              system: null,
              text: `Calibration of ${g.name} (${g.serial})${g.calibrationDue ? '' : ' is not entered'}`,
              due: g.calibrationDue || dayAfter(moment, 0),
              owner: null,
            },
          ]
        : [],
    ),
    ...(await tx.select().from(kit)).flatMap(({ id, facts: k }) =>
      k.due && k.due < soon && !k.withdrawn
        ? [
            {
              kind: 'calibration' as const,
              subject: id,
              system: null,
              text: `${dueWords(k.kind)}: ${k.name}`,
              due: k.due,
              owner: null,
            },
          ]
        : [],
    ),
    ...(await tx.select().from(people)).flatMap((p) =>
      p.licenceUntil && p.licenceUntil < soon && !p.left
        ? [
            {
              kind: 'licence' as const,
              subject: p.id,
              system: null,
              text: `Licence ${p.licenceNumber ?? ''} of ${p.name}`,
              due: p.licenceUntil,
              owner: p.id,
            },
          ]
        : [],
    ),
    ...watching.flatMap((w) => {
      const { word } = watchState(
        w.facts,
        entries.filter((e) => e.watch === w.id).map((e) => e.body),
      );
      return word !== 'ended' && w.facts.until < soon
        ? [
            {
              kind: 'watch' as const,
              subject: w.id,
              system: w.system,
              text: 'The watch: is it over?',
              due: w.facts.until,
              owner: null,
            },
          ]
        : [];
    }),
  ];
  const open = await tx
    .select()
    .from(followUps)
    .where(and(inArray(followUps.kind, ['calibration', 'licence', 'watch']), isNull(followUps.closed)));
  // a date somebody put off by hand is his: what is matched is the thing, and whether it is still owed
  const thing = (x: { kind: string; subject: string | null }) => `${x.kind} ${x.subject}`;
  const owed = new Set(wanted.map(thing));
  const there = new Set(open.map(thing));
  const over = open.filter((o) => !owed.has(thing(o)));
  if (over.length)
    await tx
      .update(followUps)
      .set({ closed: new Date(moment), closedBy: 'the cabinet', closedText: 'Seen to' })
      .where(
        inArray(
          followUps.id,
          over.map((o) => o.id),
        ),
      );
  const fresh = wanted.filter((w) => !there.has(thing(w)));
  if (fresh.length)
    await tx
      .insert(followUps)
      .values(fresh.map((w, i) => ({ org, id: uuid7(moment + i), run: null, made: new Date(moment), ...w })));
}

export interface OpenFollowUp {
  readonly id: string;
  readonly kind: FollowUpKind;
  readonly text: string;
  readonly due: string;
  readonly run: string | null;
  readonly subject: string | null;
  /** Place and system in words; '' for what is not about one. */
  readonly place: string;
  readonly system: string | null;
  readonly owner: string | null;
  readonly ownerName: string | null;
  /** What a person says who closes it; null where only its own event does. */
  readonly closes: string | null;
}
/** Open rows with their place and who sees to them, the most urgent first. @param key what they are grouped by */
export const openRowsOf = (tx: Tx, meant: SQL | undefined, most: number, key: SQL = sql`''`) =>
  tx
    .select({
      f: followUps,
      site: sites.name,
      system: systems.name,
      owner: people.name,
      key: sql<string>`${key}`,
    })
    .from(followUps)
    .leftJoin(systems, eq(systems.id, followUps.system))
    .leftJoin(sites, eq(sites.id, systems.site))
    .leftJoin(people, eq(people.id, followUps.owner))
    .where(and(isNull(followUps.closed), meant))
    .orderBy(asc(followUps.due), asc(followUps.made))
    .limit(most);
export const seenOf = ({
  f,
  site,
  system,
  owner,
}: Awaited<ReturnType<typeof openRowsOf>>[number]): OpenFollowUp => ({
  id: f.id,
  kind: f.kind,
  text: f.text,
  due: f.due,
  run: f.run,
  subject: f.subject,
  place: site && system ? `${site}: ${system}` : '',
  system: f.system,
  owner: f.owner,
  ownerName: owner,
  closes: FOLLOW_UPS[f.kind].closes,
});
/** Everything that still has to be done, the most urgent first. */
export const openFollowUps = (
  scope: { org: string },
  { person, most = 5_000 }: { readonly person?: string | undefined; readonly most?: number } = {},
): Promise<OpenFollowUp[]> =>
  inOrganisation(scope, async (tx) => {
    await syncDue(tx, scope.org);
    return (await openRowsOf(tx, person ? eq(followUps.owner, person) : undefined, most)).map(seenOf);
  });

type Person = { readonly org: string; readonly person: string; readonly name: string };
/** Says that a follow-up is done, and what came of it. @throws TroubleError 404, 409 where only its event closes it */
export async function closeFollowUp(person: Person, id: string, said = ''): Promise<void> {
  if (!isId(id)) throw notHere('follow-up');
  await inOrganisation(person, async (tx) => {
    const [row] = await tx
      .select({ kind: followUps.kind })
      .from(followUps)
      .where(and(eq(followUps.id, id), isNull(followUps.closed)));
    if (!row) throw notHere('follow-up');
    if (FOLLOW_UPS[row.kind].closes === null)
      throw new TroubleError(
        409,
        'by-event',
        'This goes off the list when it is seen to: enter the new date in the cabinet or with the person, or end the watch.',
      );
    if (row.kind === 'refer' && !said.trim())
      throw new TroubleError(422, 'text', 'Write down the answer and who gave it.', 'text');
    const closed = await tx
      .update(followUps)
      .set({ closed: new Date(now()), closedBy: person.name, closedText: said.trim() })
      .where(and(eq(followUps.id, id), isNull(followUps.closed)))
      .returning({ text: followUps.text });
    await audit(tx, person, 'closed follow-up', closed[0]!.text);
  });
}
/** Says who sees to a follow-up and by when. @throws TroubleError 404 */
export async function assignFollowUp(
  person: Person,
  id: string,
  said: { readonly owner?: string | null; readonly due?: string },
): Promise<void> {
  if (!isId(id)) throw notHere('follow-up');
  await inOrganisation(person, async (tx) => {
    if (said.owner) {
      const [member] = isId(said.owner)
        ? await tx
            .select({ id: people.id })
            .from(people)
            .where(and(eq(people.id, said.owner), isNull(people.left)))
        : [];
      if (!member) throw new TroubleError(422, 'owner', 'Choose somebody of the organisation.', 'owner');
    }
    const done = await tx
      .update(followUps)
      .set(said)
      .where(and(eq(followUps.id, id), isNull(followUps.closed)))
      .returning({ text: followUps.text });
    if (!done.length) throw notHere('follow-up');
    await audit(tx, person, 'handed on a follow-up', done[0]!.text);
  });
}
