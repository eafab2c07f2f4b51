import 'server-only';
import type { Gauge } from '@/core/instrument/gauge';
import { inOrganisation } from '@/database/client';
import { allGauges, sitesWithSystems, systemWithSite } from '@/database/queries/places';
import { isId, notHere } from '@/server/trouble';

type Scope = { org: string };
export const listPlaces = (scope: Scope) => inOrganisation(scope, sitesWithSystems);
export async function readSystem(scope: Scope, id: string) {
  const row = isId(id) ? await inOrganisation(scope, (tx) => systemWithSite(tx, id)) : null;
  if (!row) throw notHere('system');
  return row;
}
export const cabinet = (scope: Scope): Promise<Gauge[]> => inOrganisation(scope, allGauges);
