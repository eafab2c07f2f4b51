/** A day on paper: who goes where, when, for what, with what; what else is due. */
import 'server-only';
import { inArray } from 'drizzle-orm';
import { currentPlan } from '@/core/visit/current';
import { VisitError } from '@/core/visit/types';
import { inOrganisation } from '@/database/client';
import { sites } from '@/database/schema';
import { listMembers } from '@/server/people/people';
import type { Session } from '@/server/session/session';
import type { Sheet, SheetVisit } from '@/wire/days';
import { visitNow } from '@/wire/visit-now';
import { visitStart } from '@/wire/visit-time';
import { readDays } from './days';
import { kitOfVisit, readVisit } from './visits';

/** @param who goes; '' everybody  @param zone of whoever looks */
export async function daySheet(session: Session, day: string, who: string, zone: string): Promise<Sheet> {
  const [members, { things }] = await Promise.all([
    listMembers(session),
    readDays(session, day, zone, { weeks: 1, who }),
  ]);
  const here = things.filter((t) => t.day === day);
  const views = [];
  for (const { id } of here.filter((t) => t.kind === 'visit')) views.push(await readVisit(session, id));
  const wanted = [...new Set(views.flatMap((v) => v.facts.tests.map((t) => t.site)))];
  const where = wanted.length
    ? await inOrganisation(session, (tx) => tx.select().from(sites).where(inArray(sites.id, wanted)))
    : [];
  const sheets: SheetVisit[] = [];
  for (const view of views) {
    const { facts } = view;
    const begin = visitStart(facts);
    let tasks: SheetVisit['tasks'] = [];
    let cannot = '';
    try {
      const { promise, now } = visitNow(view, begin);
      const { slots } = currentPlan(facts, promise, now);
      tasks = slots
        .toSorted((a, b) => a.start - b.start)
        .map((s) => ({
          title: facts.tasks.find((t) => t.id === s.task)?.title ?? s.task,
          start: s.start,
          end: s.end,
          waits: Math.max(0, s.closeStart - s.handsEnd),
        }));
    } catch (error) {
      if (!(error instanceof VisitError)) throw error;
      cannot = error.message;
    }
    sheets.push({
      id: facts.id,
      title: facts.title,
      start: facts.start,
      zone: facts.zone,
      begin,
      people: members.filter((m) => facts.people?.includes(m.id)).map((m) => m.name),
      permit: facts.permit,
      present: facts.present,
      promise: facts.promise,
      places: where
        .filter((s) => facts.tests.some((t) => t.site === s.id))
        .map(({ name, address, customer }) => ({ name, address, customer })),
      tests: facts.tests.map((t) => ({
        id: t.id,
        title: t.title,
        place: `${t.siteName}: ${t.systemName}`,
        gauge: t.gaugeName,
      })),
      tasks,
      cannot,
      kit: await kitOfVisit(session, facts),
    });
  }
  return { visits: sheets, besides: here.filter((t) => t.kind !== 'visit') };
}
