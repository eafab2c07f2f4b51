/** What stands on which day: visits, holds that end, tests and calibrations that are due; and a due test put on a day. */
import { zoned } from '@/core/quantity/in-zone';
import 'server-only';
import { and, asc, eq, gte, isNull, lt } from 'drizzle-orm';
import { FOLLOW_UPS, TESTS_DUE } from '@/core/after/follow-ups';
import { PlanError } from '@/core/plan/plan';
import { addDays, localDate } from '@/core/quantity/local-date';
import { runningHold } from '@/core/run/read';
import { inOrganisation } from '@/database/client';
import { followUps, runs, sites, systems, visits } from '@/database/schema';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import { listMembers } from '@/server/people/people';
import { openRowsOf, seenOf, syncDue } from '@/server/records/follow-ups';
import { openRuns } from '@/server/records/records';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { type DayThing, type PutOn, type PutOnDay, WEEKS } from '@/wire/days';
import { uuid7 } from '@/wire/uuid7';
import { addTest, makeVisit } from './visits';

const namesOf = async (session: Session): Promise<Map<string, string>> =>
  new Map((await listMembers(session)).map((m) => [m.id, m.name]));

/** So much of each is read for the days that are shown; what is owed has a page of its own. */
const MOST = 400;
/** Open runs that are looked at for holds that end. */
const MOST_RUNS = 60;
/** When a visit begins that was made by putting a test on a day. House figure: it is changed on the visit. */
const BEGINS = '08:00';

/** Everything on the days from one on. @param zone in which a hold's end falls on a day  @param who goes: visits of others stay away */
export async function readDays(
  session: Session,
  from: string,
  zone: string,
  { weeks = WEEKS, who = '' }: { readonly weeks?: number; readonly who?: string } = {},
): Promise<{ things: readonly DayThing[]; due: readonly DayThing[] }> {
  const to = addDays(from, 7 * weeks);
  const [planned, owed, open, names] = await Promise.all([
    inOrganisation(session, (tx) =>
      tx
        .select()
        .from(visits)
        .where(and(gte(visits.day, from), lt(visits.day, to)))
        .orderBy(asc(visits.day))
        .limit(MOST),
    ),
    inOrganisation(session, async (tx) => {
      await syncDue(tx, session.org);
      return (await openRowsOf(tx, lt(followUps.due, to), MOST)).map(seenOf);
    }),
    openRuns(session, MOST_RUNS),
    namesOf(session),
  ]);
  const holds = open.runs.flatMap(({ plan, state }): DayThing[] => {
    const hold = state && runningHold(state);
    if (!hold) return [];
    const end = hold.startedAt + hold.minutes * 60_000;
    return [
      {
        id: plan.run,
        day: localDate(end, zone),
        kind: 'hold',
        at: zoned(zone, { hour: '2-digit', minute: '2-digit' }).format(end),
        title: `${plan.site.name}: ${plan.system.name}`,
        about: '',
        href: `/bench/${plan.run}`,
      },
    ];
  });
  const dueThings = owed.map((f): DayThing => ({
    id: f.id,
    day: f.due,
    kind: TESTS_DUE.includes(f.kind) && f.system ? 'test' : 'other',
    at: '',
    title: f.place || f.text,
    about: f.place ? `${FOLLOW_UPS[f.kind].words}: ${f.text}` : FOLLOW_UPS[f.kind].words,
    href: f.system ? `/places/${f.system}` : '/cabinet',
  }));
  return {
    things: [
      ...planned
        .filter(({ facts: v }) => !who || v.people?.includes(who))
        .map(({ facts: v }): DayThing => ({
          id: v.id,
          day: v.day,
          kind: 'visit',
          at: v.start,
          title: v.title,
          about: [
            ...(v.people ?? []).flatMap((p) => names.get(p)?.split(' ')[0] ?? []),
            ...v.tests.map((t) => `${t.siteName}: ${t.title}`),
          ].join('; '),
          href: `/plan/${v.id}`,
        })),
      ...holds.filter((h) => h.day >= from && h.day < to),
      ...dueThings.filter((d) => d.day >= from),
    ].toSorted((a, b) => (a.day + (a.at || '99')).localeCompare(b.day + (b.at || '99'))),
    due: dueThings.filter((d) => d.kind === 'test'),
  };
}
/**
 * Puts a due test on a day: on the visit to that place that is planned there, or on a new one. It is due on that day then.
 * @throws TroubleError 404, 422 for what is no test of an installation
 */
export async function putOnDay(session: Session, id: string, { day, zone }: PutOnDay): Promise<PutOn> {
  demand(session, 'plan');
  if (!isId(id)) throw notHere('follow-up');
  const found = await inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select({ f: followUps, system: systems, site: sites, plan: runs.plan })
      .from(followUps)
      .leftJoin(runs, eq(runs.id, followUps.run))
      .leftJoin(systems, eq(systems.id, followUps.system))
      .leftJoin(sites, eq(sites.id, systems.site))
      .where(and(eq(followUps.id, id), isNull(followUps.closed)));
    if (!row) throw notHere('follow-up');
    const there = await tx.select().from(visits).where(eq(visits.day, day));
    return { ...row, visit: there.find((v) => v.facts.tests.some((t) => t.site === row.site?.id)) };
  });
  const { f, system, site, plan } = found;
  if (!system || !site || !TESTS_DUE.includes(f.kind))
    throw new TroubleError(
      422,
      'no-test',
      'This is no test of an installation. Hand it on, or give it another day.',
    );
  const visit =
    found.visit?.id ??
    (
      await makeVisit(session, {
        id: uuid7(now()),
        title: `${site.name}: ${system.name}`.slice(0, 100),
        day,
        start: BEGINS,
        zone,
      })
    ).id;
  let without: string | null = plan
    ? null
    : 'Which test it is nobody has said: put it on the visit from the page of its place.';
  if (plan)
    try {
      await addTest(session, visit, found.visit?.version ?? 1, {
        id: uuid7(now()),
        system: system.id,
        pack: plan.pack.id,
        procedure: plan.procedure.id,
        case: plan.case,
        gauge: null,
        choices: plan.choices,
        ...(plan.system.section ? { section: plan.system.section.key } : {}),
      });
    } catch (error) {
      // the place may have changed since: the visit stands, and the test is put on it by hand
      if (!(error instanceof PlanError) && !(error instanceof TroubleError)) throw error;
      without = `The test could not be planned as it was: ${error.message}`;
    }
  await inOrganisation(session, (tx) => tx.update(followUps).set({ due: day }).where(eq(followUps.id, id)));
  return { visit, without };
}
