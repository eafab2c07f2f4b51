import { office, type OfficeError } from './office';

const MOST = 15_000_000;

/**
 * Sends a photo to be kept beside a run.
 * @returns the hash it is known by  @throws Error whose text says what to do
 */
export async function sendPhoto(run: string, file: File): Promise<string> {
  if (file.size > MOST)
    throw new Error('That file is larger than 15 MB. Take the photo with a lower resolution.');
  try {
    const { hash } = await office<{ hash: string }>(`/api/runs/${run}/photos`, { file });
    return hash;
  } catch (error) {
    const e = error as OfficeError;
    throw new Error(
      e.status === 0
        ? 'The photo could not be sent: there is no signal. What was written stays; add the photo where there is one.'
        : e.message,
    );
  }
}
