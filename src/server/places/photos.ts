import 'server-only';
import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { inOrganisation } from '@/database/client';
import { photos, seals } from '@/database/schema';
import { now } from '@/server/now';
import { planOf } from '@/server/runs/log';
import { notHere, TroubleError } from '@/server/trouble';

/** A phone's photo is a few MB; more is not one. */
const MOST_BYTES = 15_000_000;
const MOST_PIXELS = 60_000_000;
/** Longest side kept: a plate is readable, the record stays small. */
const LONGEST = 1600;

/**
 * Keeps a photo with its run: checked by what it is, not by its name; turned upright, made smaller and encoded anew, so
 * that neither location nor any other metadata of the phone stays in it.
 * @returns its hash, which stands in the record  @throws TroubleError saying what to do
 */
export async function keepPhoto(
  person: { org: string; name: string },
  run: string,
  bytes: Buffer,
): Promise<{ hash: string; width: number; height: number }> {
  if (bytes.length > MOST_BYTES)
    throw new TroubleError(
      413,
      'too-large',
      'That file is larger than 15 MB. Take the photo with a lower resolution.',
    );
  const encoded = await sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
    .rotate()
    .resize(LONGEST, LONGEST, { fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 80 })
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw new TroubleError(
        422,
        'not-a-photo',
        'That file is not a photo that can be read: broken, or of another kind. Take it again, as JPEG or PNG.',
      );
    });
  const { width, height } = encoded.info;
  const hash = createHash('sha256').update(encoded.data).digest('hex');
  await inOrganisation(person, async (tx) => {
    await planOf(tx, run);
    const sealed = await tx.select({ run: seals.run }).from(seals).where(eq(seals.run, run));
    if (sealed.length)
      throw new TroubleError(409, 'sealed', 'This run is sealed; no photo can be added to it any more.');
    await tx
      .insert(photos)
      .values({
        org: person.org,
        run,
        hash,
        width,
        height,
        bytes: encoded.data,
        at: new Date(now()),
        by: person.name,
      })
      .onConflictDoNothing();
  });
  return { hash, width, height };
}
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
