import type { System } from '@/core/installation/section';
import { networkOf } from '@/core/network/enter';
import { partName, partOf } from '@/core/network/network';
import { inOrganisation, type Tx } from '@/database/client';
import { systemWithSite } from '@/database/queries/places';
import { partPhotos } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import type { PartPhoto } from '@/wire/part-photo';
import { may } from '@/wire/role';
import { and, count, eq } from 'drizzle-orm';
import 'server-only';
import { MOST_KEPT_BYTES, requireClean } from './photos';

/** So many hang on one installation; more were never looked at again. */
const MOST_OF_ONE = 200;
const HASH = /^[0-9a-f]{64}$/;
type Actor = Pick<Session, 'org' | 'person' | 'name' | 'role'>;

async function systemIn(tx: Tx, system: string): Promise<System> {
  const row = isId(system) ? await systemWithSite(tx, system) : null;
  if (!row) throw notHere('system');
  return row.system.facts;
}
const own = (system: string, hash: string) => and(eq(partPhotos.system, system), eq(partPhotos.hash, hash));

/** Photos of the parts of an installation, the newest first. @throws TroubleError 404 */
export const partPhotosOf = (scope: { org: string }, system: string): Promise<PartPhoto[]> =>
  inOrganisation(scope, async (tx) => {
    await systemIn(tx, system);
    const { part, hash, at, by } = partPhotos;
    const rows = await tx
      .select({ part, hash, at, by })
      .from(partPhotos)
      .where(eq(partPhotos.system, system));
    return rows.map((r) => ({ ...r, at: r.at.getTime() })).sort((a, b) => b.at - a.at);
  });

/**
 * Hangs a photo on a part; one that is here already hangs on that part from now on. @throws TroubleError: no such system or
 * part, not a clean photo, too many
 */
export async function hangPhoto(
  actor: Actor,
  system: string,
  to: { readonly part: string; readonly hash: string; readonly bytes: Buffer },
): Promise<{ hash: string }> {
  const { part: id, hash, bytes } = to;
  if (!HASH.test(hash)) throw notHere('photo');
  if (bytes.length > MOST_KEPT_BYTES)
    throw new TroubleError(
      413,
      'too-large',
      'The photo is larger than the drawing keeps them. Take it again.',
    );
  const part = await inOrganisation(actor, async (tx) => partOf(networkOf(await systemIn(tx, system)), id));
  if (!part) throw new TroubleError(404, 'part', 'That part is not in the drawing any more. Save it first.');
  await requireClean(bytes, hash);
  return inOrganisation(actor, async (tx) => {
    const [had] = await tx.select({ n: count() }).from(partPhotos).where(eq(partPhotos.system, system));
    if (had!.n >= MOST_OF_ONE)
      throw new TroubleError(
        409,
        'too-many',
        `${MOST_OF_ONE} photos hang on this installation. Take one away that nobody needs.`,
      );
    await tx
      .insert(partPhotos)
      .values({
        org: actor.org,
        system,
        part: id,
        hash,
        bytes,
        at: new Date(now()),
        person: actor.person,
        by: actor.name,
      })
      .onConflictDoUpdate({
        target: [partPhotos.org, partPhotos.system, partPhotos.hash],
        set: { part: id },
      });
    await audit(tx, actor, 'hung a photo', partName(part));
    return { hash };
  });
}
/** The bytes of a photo. @throws TroubleError 404, for another organisation's alike */
export const readPartPhoto = (scope: { org: string }, system: string, hash: string): Promise<Buffer> =>
  inOrganisation(scope, async (tx) => {
    await systemIn(tx, system);
    const [row] = HASH.test(hash)
      ? await tx.select({ bytes: partPhotos.bytes }).from(partPhotos).where(own(system, hash))
      : [];
    if (!row) throw notHere('photo');
    return row.bytes;
  });
/** Takes a photo away: whoever took it, and everybody who changes places. @throws TroubleError 403, 404 */
export const takeDownPhoto = (actor: Actor, system: string, hash: string): Promise<{ hash: string }> =>
  inOrganisation(actor, async (tx) => {
    await systemIn(tx, system);
    const [row] = HASH.test(hash)
      ? await tx.select({ person: partPhotos.person }).from(partPhotos).where(own(system, hash))
      : [];
    if (!row) throw notHere('photo');
    if (row.person !== actor.person && !may(actor.role, 'plan'))
      throw new TroubleError(
        403,
        'role',
        'Somebody else took this photo. Ask them, a tester or the office to take it away.',
      );
    await tx.delete(partPhotos).where(own(system, hash));
    await audit(tx, actor, 'took a photo down', hash.slice(0, 12));
    return { hash };
  });
