import { and, asc, count, eq, inArray, type SQL, sql } from 'drizzle-orm';
import { TESTS_DUE } from '@/core/after/follow-ups';
import { toldBy, type Trade } from '@/core/trades';
import type { Tx } from '../client';
import { gauges, sites, systems } from '../schema';

const KEPT = sql`${systems.facts}`;
/** Parts of a kind in an installation as it is kept; one from before there were networks lists them. */
const parts = (kind: string) =>
  sql`jsonb_path_query_array(${KEPT}, ${sql.raw(`'$.network.parts[*] ? (@.kind == "${kind}")'`)})`;
const inBrief = {
  id: systems.id,
  name: systems.name,
  medium: sql<string>`${KEPT} ->> 'medium'`,
  meter: sql<string | null>`coalesce(${parts('meter')} -> 0 ->> 'name', ${KEPT} -> 'meter' ->> 'name')`,
  appliances: sql<number>`case when ${KEPT} ? 'pipes' then jsonb_array_length(${KEPT} -> 'appliances')
          else jsonb_array_length(${parts('appliance')}) end`,
};
const OF_SITE = { id: sites.id, name: sites.name, address: sites.address, customer: sites.customer };
/** Every word stands in what is compared. A word of nothing but punctuation stands everywhere. */
export const saysAll = (text: SQL, find: string): SQL | undefined =>
  and(
    ...find
      .split(/\s+/)
      .filter(Boolean)
      .slice(0, 8)
      .map((w) => sql`position(compact_text(${w}) in ${text}) > 0`),
  );
const SAID = sql`${sites.search} || ' ' || coalesce((select string_agg(y.search, ' ') from systems y where y.org = ${sites.org} and y.site = ${sites.id}), '')`;

export interface Asked {
  /** Words that all occur in name, address, customer or the name of a system; '' for all. */
  readonly find?: string;
  readonly most: number;
  /** Only places with an installation of this trade. */
  readonly trade?: Trade | undefined;
  /** Only places where a test is due until this day. */
  readonly due?: string | undefined;
  /** The last place of the page before. */
  readonly after?: { readonly name: string; readonly id: string };
}
/** A place has an installation of a trade, as `tradeOf` tells them apart. */
function ofTrade(trade: Trade): SQL {
  const { media, duties, not } = toldBy(trade);
  const duty = sql`coalesce(y.facts ->> 'duty', '')`;
  const own = [
    ...(duties.length ? [sql`${duty} in ${[...duties]}`] : []),
    ...(not ? [not.length ? sql`${duty} not in ${[...not]}` : sql`true`] : []),
  ];
  return sql`exists (select 1 from systems y where y.org = ${sites.org} and y.site = ${sites.id} and y.facts ->> 'medium' in ${[...media]} and (${sql.join(own, sql` or `)}))`;
}
/** Places by name with their systems in a few words each, a page of them, and how many there are: no other is read. */
export async function placesInBrief(tx: Tx, { find = '', most, after, trade, due }: Asked) {
  const meant = and(
    find.trim() ? saysAll(SAID, find) : undefined,
    trade && ofTrade(trade),
    due
      ? sql`exists (select 1 from systems y join follow_ups f on f.org = y.org and f.system = y.id where y.org = ${sites.org} and y.site = ${sites.id} and f.closed is null and f.kind in ${[...TESTS_DUE]} and f.due <= ${due})`
      : undefined,
  );
  const page = await tx
    .select(OF_SITE)
    .from(sites)
    .where(and(meant, after && sql`(${sites.name}, ${sites.id}) > (${after.name}, ${after.id}::uuid)`))
    .orderBy(asc(sites.name), asc(sites.id))
    .limit(most);
  const [counted] = await tx.select({ all: count() }).from(sites).where(meant);
  return { places: await withSystems(tx, page), all: counted!.all };
}
/** One place with its systems; null where there is none. */
export async function siteInBrief(tx: Tx, id: string) {
  const page = await tx.select(OF_SITE).from(sites).where(eq(sites.id, id));
  return (await withSystems(tx, page))[0] ?? null;
}
async function withSystems<S extends { readonly id: string }>(tx: Tx, page: readonly S[]) {
  const found = page.length
    ? await tx
        .select({ site: systems.site, system: inBrief })
        .from(systems)
        .where(
          inArray(
            systems.site,
            page.map((s) => s.id),
          ),
        )
        .orderBy(asc(systems.name), asc(systems.id))
    : [];
  return page.map((site) => ({
    site,
    systems: found.filter((f) => f.site === site.id).map((f) => f.system),
  }));
}
export const systemWithSite = async (tx: Tx, id: string) => {
  const [row] = await tx
    .select({ site: sites, system: systems })
    .from(systems)
    .innerJoin(sites, eq(sites.id, systems.site))
    .where(eq(systems.id, id));
  return row ?? null;
};
export const allGauges = async (tx: Tx) =>
  (await tx.select().from(gauges).orderBy(asc(gauges.name))).map((g) => g.facts);
