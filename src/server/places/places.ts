import type { Gauge } from '@/core/instrument/gauge';
import { copiedSystem } from '@/core/network/copied';
import { withNetwork } from '@/core/network/enter';
import type { Network } from '@/core/network/network';
import { inOrganisation } from '@/database/client';
import { allGauges, type Asked, placesInBrief, siteInBrief, systemWithSite } from '@/database/queries/places';
import { sites, systems } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { applianceSwapped } from '@/server/records/follow-ups';
import type { Session } from '@/server/session/session';
import { isId, notHere } from '@/server/trouble';
import type { CopySystem, SiteForm, SystemForm } from '@/wire/places';
import { systemFromForm } from '@/wire/system-form';
import { eq } from 'drizzle-orm';
import 'server-only';
import { demand } from '@/server/permission';

type Scope = { org: string };
/** Places by name, a page of them, and how many there are. */
export const listPlaces = (scope: Scope, asked: Asked) =>
  inOrganisation(scope, (tx) => placesInBrief(tx, asked));
export type PlaceSystem = Awaited<ReturnType<typeof listPlaces>>['places'][number]['systems'][number];
/** One place with its systems. @throws TroubleError 404 */
export async function readSite(scope: Scope, id: string) {
  const found = isId(id) ? await inOrganisation(scope, (tx) => siteInBrief(tx, id)) : null;
  if (!found) throw notHere('place');
  return found;
}
export async function readSystem(scope: Scope, id: string) {
  const row = isId(id) ? await inOrganisation(scope, (tx) => systemWithSite(tx, id)) : null;
  if (!row) throw notHere('system');
  return row;
}
export const cabinet = (scope: Scope): Promise<Gauge[]> => inOrganisation(scope, allGauges);

/** Enters a site, or changes it. Asked twice with the same id it answers the same site. */
export async function saveSite(session: Session, form: SiteForm): Promise<{ id: string }> {
  demand(session, 'plan');
  const { id, name, address, customer } = form;
  return inOrganisation(session, async (tx) => {
    const [row] = await tx
      .insert(sites)
      .values({ org: session.org, id, name, address, customer })
      .onConflictDoUpdate({ target: [sites.org, sites.id], set: { name, address, customer } })
      .returning({ id: sites.id });
    await audit(tx, session, 'saved site', name);
    return { id: row!.id };
  });
}
/** Enters a system on a site, or changes one. The facts that no form shows stay as they are. @throws TroubleError 404 */
export async function saveSystem(
  session: Session,
  id: string,
  site: string | null,
  form: SystemForm,
): Promise<{ id: string }> {
  demand(session, 'plan');
  if (!isId(id)) throw notHere('system');
  return inOrganisation(session, async (tx) => {
    const [before] = await tx.select().from(systems).where(eq(systems.id, id));
    if (!before) {
      const [home] =
        site && isId(site) ? await tx.select({ id: sites.id }).from(sites).where(eq(sites.id, site)) : [];
      if (!home) throw notHere('site');
      await tx.insert(systems).values({
        org: session.org,
        id,
        site: home.id,
        name: form.name,
        facts: systemFromForm(form, null, id),
      });
    } else {
      const facts = systemFromForm(form, before.facts, id);
      await tx.update(systems).set({ name: form.name, facts }).where(eq(systems.id, id));
      await applianceSwapped(tx, session.org, before.facts, facts, now());
    }
    await audit(tx, session, before ? 'changed system' : 'entered system', form.name);
    return { id };
  });
}
/** Enters a system like another one, on a place that is here or on a new one. Asked twice it answers the same. @throws TroubleError 404 */
export async function copySystem(session: Session, from: string, form: CopySystem): Promise<{ id: string }> {
  demand(session, 'plan');
  const { system } = await readSystem(session, from);
  const { id, name, site, newSite } = form;
  if (newSite) await saveSite(session, { id: site, ...newSite });
  return inOrganisation(session, async (tx) => {
    const [home] = await tx.select({ id: sites.id }).from(sites).where(eq(sites.id, site));
    if (!home) throw notHere('site');
    await tx
      .insert(systems)
      .values({ org: session.org, id, site: home.id, name, facts: copiedSystem(system.facts, id, name) })
      .onConflictDoNothing();
    await audit(tx, session, 'copied system', `${system.name}: ${name}`);
    return { id };
  });
}
/** Keeps the drawing of a system. @throws TroubleError 404 */
export async function saveNetwork(session: Session, id: string, network: Network): Promise<{ id: string }> {
  demand(session, 'plan');
  if (!isId(id)) throw notHere('system');
  return inOrganisation(session, async (tx) => {
    const [before] = await tx.select().from(systems).where(eq(systems.id, id));
    if (!before) throw notHere('system');
    const facts = withNetwork(before.facts, network);
    await tx.update(systems).set({ facts }).where(eq(systems.id, id));
    await applianceSwapped(tx, session.org, before.facts, facts, now());
    await audit(tx, session, 'drew system', before.name);
    return { id };
  });
}

/** The systems of one site, by name. */
export const systemsOfSite = (scope: { org: string }, site: string) =>
  inOrganisation(scope, (tx) =>
    tx
      .select({ id: systems.id, facts: systems.facts })
      .from(systems)
      .where(eq(systems.site, site))
      .orderBy(systems.name),
  );
