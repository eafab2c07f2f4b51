import { now } from './clock';
import { office, type OfficeError } from './office';
import type { Store, StoredPhoto } from './store';

const MOST = 15_000_000;
/** Longest side kept: a plate is readable, the record stays small. */
const LONGEST = 1600;
const QUALITY = 0.82;
/** Pieces small enough that a poor signal gets one through. */
const PIECE = 192 * 1024;
const NOT_A_PHOTO =
  'That file is not a photo that can be read: broken, or of another kind. Take it again, as JPEG or PNG.';

const hex = (bytes: ArrayBuffer): string =>
  [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');
const begins = (bytes: Uint8Array, signature: readonly number[]) => signature.every((b, i) => bytes[i] === b);
/** Whether a file is a picture by its bytes, and whole: a JPEG that was cut off still opens, half of it grey. */
export function isWholePicture(bytes: Uint8Array): boolean {
  if (begins(bytes, [0xff, 0xd8, 0xff])) {
    for (let i = bytes.length - 2; i > bytes.length / 2; i--)
      if (bytes[i] === 0xff && bytes[i + 1] === 0xd9) return true;
    return false;
  }
  if (begins(bytes, [0x89, 0x50, 0x4e, 0x47])) {
    const end = String.fromCharCode(...bytes.slice(-12));
    return end.includes('IEND');
  }
  return begins(bytes, [0x52, 0x49, 0x46, 0x46]) && begins(bytes.subarray(8), [0x57, 0x45, 0x42, 0x50]);
}

/**
 * Turns upright, makes smaller and encodes anew a picture, so that neither place nor any other fact of the phone stays in
 * it. The hash of its bytes names it from now on. @throws Error whose text says what to do
 */
export async function encodePhoto(file: Blob): Promise<{ hash: string; bytes: ArrayBuffer }> {
  if (file.size > MOST)
    throw new Error('That file is larger than 15 MB. Take the photo with a lower resolution.');
  if (!isWholePicture(new Uint8Array(await file.arrayBuffer()))) throw new Error(NOT_A_PHOTO);
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    throw new Error(NOT_A_PHOTO);
  }
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const width = Math.max(1, Math.round(picture.width * scale));
  const height = Math.max(1, Math.round(picture.height * scale));
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext('2d');
  if (!context) throw new Error('This browser cannot make the photo smaller. Use another browser.');
  context.fillStyle = '#fff';
  context.fillRect(0, 0, width, height);
  context.drawImage(picture, 0, 0, width, height);
  picture.close();
  const encoded = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY));
  if (!encoded) throw new Error(NOT_A_PHOTO);
  const bytes = await encoded.arrayBuffer();
  const hash = hex(await crypto.subtle.digest('SHA-256', bytes));
  return { hash, bytes };
}
/** Keeps a picture on this device until the office has it, signal or not. @throws Error whose text says what to do */
export async function keepPhotoHere(store: Store, run: string, file: Blob): Promise<string> {
  const { hash, bytes } = await encodePhoto(file);
  try {
    await store.put('photos', { hash, run, bytes, sent: 0, taken: now() });
  } catch (error) {
    throw new Error(
      `This device could not keep the photo (${(error as Error).name}). Free some storage and take it again.`,
      { cause: error },
    );
  }
  return hash;
}

/** Photos that the office does not have yet. */
export const unsentPhotos = async (store: Store, run?: string): Promise<StoredPhoto[]> =>
  (await store.getAllFromIndex('photos', 'sent', 0)).filter((p) => !p.refused && (!run || p.run === run));

/**
 * Sends a photo from where the last try left it. @throws OfficeError; one that will not change is kept beside the photo
 */
export async function sendPhoto(store: Store, photo: StoredPhoto): Promise<void> {
  const path = `/api/runs/${photo.run}/photos/${photo.hash}/parts`;
  try {
    let { have, whole } = await office<{ have: number; whole: boolean }>(path);
    while (!whole) {
      const piece = photo.bytes.slice(have, have + PIECE);
      ({ have, whole } = await office<{ have: number; whole: boolean }>(
        `${path}?at=${have}&of=${photo.bytes.byteLength}`,
        { method: 'PUT', file: new Blob([piece]) },
      ));
    }
    // the office has it: the copy here goes, the bench shows the office's
    await store.put('photos', { ...photo, bytes: new ArrayBuffer(0), sent: 1 });
  } catch (error) {
    const e = error as OfficeError;
    if (e.status === 409 || e.status === 413 || e.status === 422)
      await store.put('photos', { ...photo, refused: e.message });
    else throw error;
  }
}
