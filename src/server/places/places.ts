import 'server-only';
import { loadPack } from '@/core/pack/load';
import type { Gauge } from '@/core/instrument/gauge';
import type { Pack } from '@/core/pack/types';
import { inOrganisation } from '@/database/client';
import { allGauges, allPacks, sitesWithSystems, systemWithSite } from '@/database/queries/places';
import { isId, notHere } from '@/server/trouble';

type Scope = { org: string };
export const listPlaces = (scope: Scope) => inOrganisation(scope, sitesWithSystems);
export async function readSystem(scope: Scope, id: string) {
  const row = isId(id) ? await inOrganisation(scope, (tx) => systemWithSite(tx, id)) : null;
  if (!row) throw notHere('system');
  return row;
}
export const cabinet = (scope: Scope): Promise<Gauge[]> => inOrganisation(scope, allGauges);
/** The newest version of each rule pack. */
export async function rulePacks(scope: Scope): Promise<Pack[]> {
  const rows = await inOrganisation(scope, allPacks);
  return [...new Map(rows.map((r) => [r.id, r])).values()].map((r) => loadPack(JSON.parse(r.body)));
}
