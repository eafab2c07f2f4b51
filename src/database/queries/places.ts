import { asc, eq } from 'drizzle-orm';
import type { Tx } from '../client';
import { gauges, sites, systems } from '../schema';

/** Sites with their systems, by name. */
export const sitesWithSystems = async (tx: Tx) => {
  const rows = await tx
    .select({ site: sites, system: systems })
    .from(sites)
    .leftJoin(systems, eq(systems.site, sites.id))
    .orderBy(asc(sites.name), asc(systems.name));
  const bySite = new Map<
    string,
    { site: typeof sites.$inferSelect; systems: (typeof systems.$inferSelect)[] }
  >();
  for (const { site, system } of rows) {
    const entry = bySite.get(site.id) ?? { site, systems: [] };
    if (system) entry.systems.push(system);
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
