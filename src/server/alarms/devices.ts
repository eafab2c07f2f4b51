/** The devices on which a person is rung. */
import 'server-only';
import { and, eq } from 'drizzle-orm';
import { inOrganisation } from '@/database/client';
import { pushDevices } from '@/database/schema';
import { now } from '@/server/now';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import type { PushDevice } from '@/wire/push';
import { uuid7 } from '@/wire/uuid7';
import { mayBeService, push, vapidKeys } from './push-service';

/** The public key by which a browser knows this installation; and what is kept of the device, null for none. */
export const pushState = (
  session: Session,
  endpoint: string,
): Promise<{ key: string; minutes: readonly number[] | null }> =>
  inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select({ minutes: pushDevices.minutes })
      .from(pushDevices)
      .where(and(eq(pushDevices.endpoint, endpoint), eq(pushDevices.person, session.person)));
    return { key: vapidKeys().publicKey, minutes: row?.minutes ?? null };
  });
/** Keeps where a device is rung, or when. It rings for whoever said so last: a phone that went to another hand is theirs. */
export async function keepPushDevice(session: Session, said: PushDevice): Promise<void> {
  if (!mayBeService(said.endpoint))
    throw new TroubleError(
      422,
      'push-service',
      'The browser named no push service that can be reached from here. Take another browser for alarms.',
    );
  const {
    endpoint,
    keys: { p256dh, auth },
    minutes,
  } = said;
  const own = {
    person: session.person,
    session: session.session,
    p256dh,
    auth,
    minutes: [...new Set(minutes)],
  };
  await inOrganisation(session, (tx) =>
    tx
      .insert(pushDevices)
      .values({ org: session.org, id: uuid7(now()), endpoint, ...own, made: new Date(now()) })
      .onConflictDoUpdate({ target: [pushDevices.org, pushDevices.endpoint], set: own }),
  );
}
/** A device that is to be rung no more. */
export const dropPushDevice = (session: Session, endpoint: string): Promise<unknown> =>
  inOrganisation(session, (tx) =>
    tx
      .delete(pushDevices)
      .where(and(eq(pushDevices.endpoint, endpoint), eq(pushDevices.person, session.person))),
  );
/** Rings one device now, so that its person hears that it works. @throws TroubleError */
export async function tryPushDevice(session: Session, endpoint: string): Promise<void> {
  const [row] = await inOrganisation(session, (tx) =>
    tx
      .select()
      .from(pushDevices)
      .where(and(eq(pushDevices.endpoint, endpoint), eq(pushDevices.person, session.person))),
  );
  if (!row) throw new TroubleError(404, 'not-kept', 'This device is not rung yet. Turn its alarms on first.');
  const sent = await push(row, {
    title: 'Vast Stone',
    body: 'This is how an alarm rings.',
    tag: 'try',
    path: '/devices',
  });
  if (sent !== 'sent')
    throw new TroubleError(
      502,
      'push-service',
      'The push service of this browser could not be reached, or knows this device no more. Turn the alarms off and on again.',
    );
}
