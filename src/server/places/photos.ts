import { inOrganisation, type Tx } from '@/database/client';
import { photoParts, photos, seals } from '@/database/schema';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import { planOf } from '@/server/runs/read-log';
import { notHere, TroubleError } from '@/server/trouble';
import { and, asc, count, eq, lt, sql } from 'drizzle-orm';
import 'server-only';
import sharp from 'sharp';

const MOST_PIXELS = 60_000_000;
/** A photo that was begun is waited for so long. House figure. */
const UNFINISHED_MS = 7 * 24 * 3600_000;
/** So many photos a run has at most, and so much of unfinished ones. House figures. */
const MOST_PHOTOS = 300;
const MOST_WAITING = 40_000_000;
/** Longest side kept: a plate is readable, the record stays small. */
const LONGEST = 1600;

/** A device's own encoding is kept as it came, so that its hash holds; it must be clean, and no larger than we make them. */
export const MOST_KEPT_BYTES = 4_000_000;
/** Bytes that are a whole photo, without facts of the phone, and what their hash says. @throws TroubleError 413, 422 */
export async function requireClean(bytes: Buffer, hash: string): Promise<{ width: number; height: number }> {
  if (digest(bytes) !== hash)
    throw new TroubleError(422, 'hash', 'The photo was damaged on its way. Take it again.');
  // by its first bytes, before anything decodes it: a drawing of a few letters can hold a core for a minute
  if (!(bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff))
    throw new TroubleError(422, 'not-a-photo', 'That file is not a photo that can be read. Take it again.');
  const meta = await sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
    .metadata()
    .catch(() => null);
  if (meta && Math.max(meta.width, meta.height) > LONGEST)
    throw new TroubleError(413, 'too-large', 'The photo is larger than the bench makes them. Take it again.');
  // reading every pixel finds what is broken behind a good beginning
  const whole =
    meta &&
    (await sharp(bytes, { limitInputPixels: LONGEST * LONGEST, failOn: 'error' })
      .stats()
      .then(
        () => true,
        () => false,
      ));
  if (!meta || !whole || meta.format !== 'jpeg')
    throw new TroubleError(422, 'not-a-photo', 'That file is not a photo that can be read. Take it again.');
  if (meta.exif || meta.xmp || meta.iptc)
    throw new TroubleError(
      422,
      'metadata',
      'The photo still carries facts of the phone, like where it was. It was not kept; take it from within the bench.',
    );
  return { width: meta.width, height: meta.height };
}

/** How much of a photo is here. */
export const photoProgress = (
  scope: { org: string },
  run: string,
  hash: string,
): Promise<{ have: number; whole: boolean }> =>
  inOrganisation(scope, async (tx) => {
    await planOf(tx, run);
    return progress(tx, run, hash);
  });
async function progress(tx: Tx, run: string, hash: string): Promise<{ have: number; whole: boolean }> {
  const [kept] = await tx
    .select({ hash: photos.hash })
    .from(photos)
    .where(and(eq(photos.run, run), eq(photos.hash, hash)));
  if (kept) return { have: 0, whole: true };
  const parts = await tx
    .select({ at: photoParts.at, size: sql<number>`length(${photoParts.bytes})` })
    .from(photoParts)
    .where(and(eq(photoParts.run, run), eq(photoParts.hash, hash)))
    .orderBy(asc(photoParts.at));
  let have = 0;
  for (const p of parts) if (p.at === have) have += p.size;
  return { have, whole: false };
}
/**
 * Takes a piece of a photo. The pieces come in order; one that is here already, or too early, changes nothing: the answer
 * says from where to go on. The last one makes the photo whole. @throws TroubleError
 */
export async function keepPhotoPart(
  person: { org: string; name: string },
  run: string,
  hash: string,
  piece: { readonly at: number; readonly of: number; readonly bytes: Buffer },
): Promise<{ have: number; whole: boolean }> {
  if (!/^[0-9a-f]{64}$/.test(hash)) throw notHere('photo');
  if (piece.of > MOST_KEPT_BYTES || piece.bytes.length === 0)
    throw new TroubleError(413, 'too-large', 'The photo is larger than the bench makes them. Take it again.');
  return inOrganisation(person, async (tx) => {
    await planOf(tx, run);
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${person.org + hash}, 0))`);
    const before = await progress(tx, run, hash);
    if (before.whole || piece.at !== before.have || piece.at + piece.bytes.length > piece.of) return before;
    const sealed = await tx.select({ run: seals.run }).from(seals).where(eq(seals.run, run));
    if (sealed.length)
      throw new TroubleError(409, 'sealed', 'This run is sealed; no photo can be added to it any more.');
    await makeRoom(tx, run);
    const have = piece.at + piece.bytes.length;
    if (have < piece.of) {
      await tx.insert(photoParts).values({
        org: person.org,
        run,
        hash,
        at: piece.at,
        bytes: piece.bytes,
        received: new Date(now()),
      });
      return { have, whole: false };
    }
    const own = and(eq(photoParts.run, run), eq(photoParts.hash, hash));
    const parts = await tx.select().from(photoParts).where(own).orderBy(asc(photoParts.at));
    const bytes = Buffer.concat([...parts.map((p) => p.bytes), piece.bytes]);
    await tx.delete(photoParts).where(own);
    const size = await requireClean(bytes, hash);
    await tx
      .insert(photos)
      .values({ org: person.org, run, hash, ...size, bytes, at: new Date(now()), by: person.name })
      .onConflictDoNothing();
    return { have, whole: true };
  });
}
/** Lets go of pieces that nobody went on with, and holds a run to what a run can need. @throws TroubleError 409 */
async function makeRoom(tx: Tx, run: string): Promise<void> {
  await tx.delete(photoParts).where(lt(photoParts.received, new Date(now() - UNFINISHED_MS)));
  const [waiting] = await tx
    .select({ bytes: sql<number>`coalesce(sum(length(${photoParts.bytes})), 0)::int` })
    .from(photoParts)
    .where(eq(photoParts.run, run));
  const [kept] = await tx.select({ n: count() }).from(photos).where(eq(photos.run, run));
  if (waiting!.bytes > MOST_WAITING || kept!.n >= MOST_PHOTOS)
    throw new TroubleError(
      409,
      'too-many',
      `This run has as many photos as a run can have (${MOST_PHOTOS}), or too many that were begun and not finished. Finish those first.`,
    );
}
/** A small picture of a photo, for lists. */
export const smallPhoto = (bytes: Buffer): Promise<Buffer> =>
  sharp(bytes).resize(360, 360, { fit: 'inside', withoutEnlargement: true }).jpeg({ quality: 72 }).toBuffer();

/** The bytes of a photo. @throws TroubleError 404, for another organisation's alike */
export async function readPhoto(scope: { org: string }, run: string, hash: string): Promise<Buffer> {
  if (!/^[0-9a-f]{64}$/.test(hash)) throw notHere('photo');
  return inOrganisation(scope, async (tx) => {
    await planOf(tx, run);
    const [row] = await tx
      .select({ bytes: photos.bytes })
      .from(photos)
      .where(and(eq(photos.run, run), eq(photos.hash, hash)));
    if (!row) throw notHere('photo');
    return row.bytes;
  });
}

/** A photo as it is sent: in small with ?small=1. The browser may keep it, and asks each time whether it may show it. */
export async function photoAnswer(whole: Buffer, request: Request): Promise<Response> {
  const small = new URL(request.url).searchParams.get('small') === '1';
  const etag = `"${digest(whole).slice(0, 32)}${small ? '-small' : ''}"`;
  const kept = { etag, 'cache-control': 'private, no-cache' };
  if (request.headers.get('if-none-match') === etag)
    return new Response(null, { status: 304, headers: kept });
  return new Response(new Uint8Array(small ? await smallPhoto(whole) : whole), {
    headers: {
      'content-type': 'image/jpeg',
      ...kept,
      'x-content-type-options': 'nosniff',
    },
  });
}
