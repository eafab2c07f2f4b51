/** Everything that is owed, narrowed and grouped in the database, and seen to several at once. */
import 'server-only';
import { and, count, eq, gte, isNull, lt, lte, min, type SQL, sql } from 'drizzle-orm';
import { FOLLOW_UPS } from '@/core/after/follow-ups';
import { addDays } from '@/core/quantity/local-date';
import { inOrganisation } from '@/database/client';
import { saysAll } from '@/database/queries/places';
import { followUps, people, sites, systems } from '@/database/schema';
import { demand } from '@/server/permission';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import {
  MINE,
  MOST_OWED,
  NOBODYS,
  type OwedGroup,
  type OwedQuery,
  type SeenTo,
  type SeeTo,
} from '@/wire/owed';
import { assignFollowUp, closeFollowUp, openRowsOf, seenOf, syncDue, type OpenFollowUp } from './follow-ups';

export interface OwedPart {
  readonly key: string;
  readonly title: string;
  /** How many there are, whether all are shown or not. */
  readonly all: number;
  readonly lines: readonly OpenFollowUp[];
}
const WEEK = sql<string>`to_char(date_trunc('week', ${followUps.due}::date), 'YYYY-MM-DD')`;
/** What the groups are made by, and their titles where the database knows them. */
const GROUPS: Readonly<Record<OwedGroup, { key: SQL; title: SQL }>> = {
  week: { key: WEEK, title: WEEK },
  kind: { key: sql`${followUps.kind}`, title: sql`${followUps.kind}` },
  person: {
    key: sql`coalesce(${followUps.owner}::text, '')`,
    title: sql`coalesce(min(${people.name}), '')`,
  },
  place: { key: sql`coalesce(${sites.id}::text, '')`, title: sql`coalesce(min(${sites.name}), '')` },
};
const TITLES: Readonly<Record<OwedGroup, (title: string) => string>> = {
  week: (t) => t,
  kind: (t) => FOLLOW_UPS[t as keyof typeof FOLLOW_UPS].words,
  person: (t) => t || 'Nobody yet',
  place: (t) => t || 'Not about a place',
};
/**
 * What is owed, in groups, those first in which something is due first.
 * @param today of whoever looks
 */
export async function readOwed(
  session: Session,
  query: OwedQuery,
  today: string,
): Promise<{ parts: readonly OwedPart[]; all: number }> {
  const { find = '', kind, owner, when, group } = query;
  const { key, title } = GROUPS[group];
  return inOrganisation(session, async (tx) => {
    await syncDue(tx, session.org);
    const said = sql`compact_text(${followUps.text}) || ' ' || coalesce(${systems.search}, '') || ' ' || coalesce(${sites.search}, '')`;
    const meant = and(
      isNull(followUps.closed),
      find.trim() ? saysAll(said, find) : undefined,
      kind ? eq(followUps.kind, kind) : undefined,
      owner === NOBODYS
        ? isNull(followUps.owner)
        : owner
          ? eq(followUps.owner, owner === MINE ? session.person : owner)
          : undefined,
      when === 'late'
        ? lt(followUps.due, today)
        : when
          ? and(gte(followUps.due, today), lte(followUps.due, addDays(today, when === 'week' ? 7 : 31)))
          : undefined,
    );
    const groups = await tx
      .select({
        key: sql<string>`${key}`,
        title: sql<string>`${title}`,
        all: count(),
        first: min(followUps.due),
      })
      .from(followUps)
      .leftJoin(systems, eq(systems.id, followUps.system))
      .leftJoin(sites, eq(sites.id, systems.site))
      .leftJoin(people, eq(people.id, followUps.owner))
      .where(meant)
      .groupBy(key)
      .orderBy(min(followUps.due), key);
    const rows = await openRowsOf(tx, meant, MOST_OWED, key);
    return {
      all: groups.reduce((sum, g) => sum + g.all, 0),
      parts: groups
        .map((g) => ({
          key: g.key,
          title: TITLES[group](g.title),
          all: g.all,
          lines: rows.filter((r) => r.key === g.key).map(seenOf),
        }))
        .filter((p) => p.lines.length),
    };
  });
}
/** Sees to several at once: what one of them refuses leaves the others. @throws TroubleError 403 */
export async function seeToAll(session: Session, { ids, owner, due, close }: SeeTo): Promise<SeenTo> {
  demand(session, 'share');
  const refused: { id: string; text: string }[] = [];
  for (const id of new Set(ids))
    try {
      if (owner !== undefined || due !== undefined)
        await assignFollowUp(session, id, {
          ...(owner === undefined ? {} : { owner: owner === NOBODYS ? null : owner }),
          ...(due === undefined ? {} : { due }),
        });
      if (close !== undefined) await closeFollowUp(session, id, close);
    } catch (error) {
      if (!(error instanceof TroubleError)) throw error;
      refused.push({ id, text: error.message });
    }
  return { done: new Set(ids).size - refused.length, refused };
}
