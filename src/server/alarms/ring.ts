/** The server's own timers: looks every few seconds at the runs that wait and the visits that begin, and rings the devices of those who work on them. */
import 'server-only';
import { and, eq, gt, gte, isNull, lt, lte } from 'drizzle-orm';
import { type Alarm, alarmsOf } from '@/core/run/alarms';
import { inOrganisation, lookUp } from '@/database/client';
import { openRuns, people, pushDevices, rung, sessions, visits } from '@/database/schema';
import { now } from '@/server/now';
import { log } from '@/server/log';
import { standingsOf } from '@/server/runs/standing';
import { goesTo, visitAlarms } from '@/core/visit/alarms';
import { visitStart } from '@/wire/visit-time';
import { push } from './push-service';

const EVERY_MS = 5_000;
/** An alarm that could not be sent in this time is no news any more: the screen says it. House figure. */
const LATE_MS = 600_000;
/** Runs older than this ring nobody, days. */
const OPEN_DAYS = 30;

type Device = typeof pushDevices.$inferSelect;

/** Open runs of an organisation as they stand, each with who wrote in it and when somebody did last. */
const openOf = (scope: { org: string }) =>
  inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({ run: openRuns.run })
      .from(openRuns)
      .where(gt(openRuns.made, new Date(now() - OPEN_DAYS * 86_400_000)));
    const ids = rows.map((r) => r.run);
    const stand = await standingsOf(tx, scope, ids);
    return stand.map((s, n) => ({ ...s, id: ids[n]! }));
  });
/** Rings a device once for an alarm, whichever server sees it first. */
async function ringOnce(
  scope: { org: string },
  device: Device,
  alarm: Alarm,
  about: { readonly tag: string; readonly path: string },
): Promise<void> {
  const claim = { org: scope.org, device: device.id, tag: alarm.tag };
  const mine = await inOrganisation(scope, (tx) =>
    tx
      .insert(rung)
      .values({ ...claim, at: new Date(now()) })
      .onConflictDoNothing()
      .returning({ tag: rung.tag }),
  );
  if (!mine.length) return;
  const sent = await push(device, { title: 'Vast Stone', body: alarm.text, ...about });
  if (sent === 'sent') return;
  await inOrganisation(scope, (tx) =>
    sent === 'gone'
      ? tx.delete(pushDevices).where(eq(pushDevices.id, device.id))
      : // the next look tries once more, as long as it is news
        tx.delete(rung).where(and(eq(rung.device, device.id), eq(rung.tag, alarm.tag))),
  );
}
/** Whether an alarm is due, still news, and of a time at which the device was rung already. */
const isDue = (alarm: Alarm, device: Device, moment: number): boolean =>
  alarm.at <= moment && alarm.at > moment - LATE_MS && alarm.at >= device.made.getTime();
/** Visits about this day, each with the devices of those who go to it. */
async function ringVisits(scope: { org: string }, devices: readonly Device[], moment: number): Promise<void> {
  const [from, to] = [-1, 1].map((d) => new Date(moment + d * 86_400_000).toISOString().slice(0, 10));
  const { coming, names } = await inOrganisation(scope, async (tx) => ({
    coming: await tx
      .select({ facts: visits.facts, madeBy: visits.madeBy })
      .from(visits)
      .where(and(gte(visits.day, from!), lte(visits.day, to!))),
    names: new Map(
      (await tx.select({ id: people.id, name: people.name }).from(people)).map((p) => [p.id, p.name]),
    ),
  }));
  for (const { facts, madeBy } of coming)
    for (const alarm of visitAlarms(facts, visitStart(facts)))
      for (const device of devices)
        if (isDue(alarm, device, moment) && goesTo(facts, madeBy, names.get(device.person) ?? ''))
          await ringOnce(scope, device, alarm, { tag: facts.id, path: `/plan/${facts.id}` });
}
async function ringFor(org: string): Promise<void> {
  const scope = { org };
  const moment = now();
  // who signed out, or was signed out, is rung no more
  const devices = await inOrganisation(scope, async (tx) =>
    (
      await tx
        .select({ device: pushDevices })
        .from(pushDevices)
        .innerJoin(sessions, eq(sessions.id, pushDevices.session))
        .where(and(isNull(sessions.revoked), gt(sessions.expires, new Date(moment))))
    ).map((r) => r.device),
  );
  if (!devices.length) return;
  for (const { id, plan, state, people: of, lastEntry } of await openOf(scope)) {
    if (!state) continue;
    for (const device of devices.filter((d) => of.has(d.person)))
      for (const alarm of alarmsOf(plan, state, device.minutes, lastEntry))
        if (isDue(alarm, device, moment))
          await ringOnce(scope, device, alarm, { tag: id, path: `/bench/${id}` });
  }
  await ringVisits(scope, devices, moment);
  // what was rung long ago is not asked for again
  const old = new Date(moment - 2 * OPEN_DAYS * 86_400_000);
  await inOrganisation(scope, (tx) => tx.delete(rung).where(lt(rung.at, old)));
}
/** Looks once at everything that may ring. What is wrong with one organisation keeps none of the others from ringing. */
export async function ringDue(): Promise<void> {
  const ringing = await lookUp<{ org: string }>('find_ringing()', []);
  for (const { org } of ringing)
    try {
      await ringFor(org);
    } catch (error) {
      log.error({ err: error }, 'alarms');
    }
}

/** Starts the timers of this server; one look ends before the next begins. */
export function startRinging(): void {
  const look = async (): Promise<void> => {
    await ringDue().catch(() => undefined); // the database is away: the next look finds it
    setTimeout(() => void look(), EVERY_MS).unref();
  };
  setTimeout(() => void look(), EVERY_MS).unref();
}
