import { answer, signedIn } from '@/server/handle';
import { bringInRecord, MOST_FILE_BYTES } from '@/server/records/outside';
import { TroubleError } from '@/server/trouble';

/** A record file or bundle of another Vast Stone, as bytes. */
export const POST = signedIn(async (session, request) => {
  const bytes = new Uint8Array(await request.arrayBuffer());
  if (bytes.length > MOST_FILE_BYTES)
    throw new TroubleError(
      413,
      'too-large',
      'That file is too large to be a record. Choose a record file or a bundle.',
    );
  return answer(await bringInRecord(session, bytes), 201);
});
