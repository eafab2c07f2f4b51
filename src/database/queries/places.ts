import { asc, eq, sql } from 'drizzle-orm';
import type { Tx } from '../client';
import { gauges, sites, systems } from '../schema';

const KEPT = sql`${systems.facts}`;
/** Parts of a kind in an installation as it is kept; one from before there were networks lists them. */
const parts = (kind: string) =>
  sql`jsonb_path_query_array(${KEPT}, ${sql.raw(`'$.network.parts[*] ? (@.kind == "${kind}")'`)})`;
/** Places and their systems in a few words each: no installation is opened. */
export const placesInBrief = async (tx: Tx) => {
  const rows = await tx
    .select({
      site: sites,
      system: {
        id: systems.id,
        name: systems.name,
        medium: sql<string>`${KEPT} ->> 'medium'`,
        meter: sql<string | null>`coalesce(${parts('meter')} -> 0 ->> 'name', ${KEPT} -> 'meter' ->> 'name')`,
        appliances: sql<number>`case when ${KEPT} ? 'pipes' then jsonb_array_length(${KEPT} -> 'appliances')
          else jsonb_array_length(${parts('appliance')}) end`,
      },
    })
    .from(sites)
    .leftJoin(systems, eq(systems.site, sites.id))
    .orderBy(asc(sites.name), asc(systems.name));
  type Row = (typeof rows)[number];
  const bySite = new Map<string, { site: Row['site']; systems: NonNullable<Row['system']>[] }>();
  for (const { site, system } of rows) {
    const entry = bySite.get(site.id) ?? { site, systems: [] };
    if (system?.id) entry.systems.push(system);
    bySite.set(site.id, entry);
  }
  return [...bySite.values()];
};
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
