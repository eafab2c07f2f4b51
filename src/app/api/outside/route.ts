import { answer, bytesOf, signedIn } from '@/server/handle';
import { bringInRecord, MOST_FILE_BYTES } from '@/server/records/outside';

/** A record file or bundle of another Vast Stone, as bytes. */
export const POST = signedIn('plan', async (session, request) =>
  answer(await bringInRecord(session, await bytesOf(request, MOST_FILE_BYTES)), 201),
);
