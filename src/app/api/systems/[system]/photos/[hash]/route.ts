import { answer, bytesOf, signedIn } from '@/server/handle';
import { hangPhoto, readPartPhoto, takeDownPhoto } from '@/server/places/part-photos';
import { photoAnswer, MOST_KEPT_BYTES } from '@/server/places/photos';

type Params = { system: string; hash: string };
export const GET = signedIn<Params>('read', async (session, request, { system, hash }) =>
  photoAnswer(await readPartPhoto(session, system, hash), request),
);
/** The photo as bytes, ?part= on which it hangs. */
export const PUT = signedIn<Params>('note', async (session, request, { system, hash }) =>
  answer(
    await hangPhoto(session, system, {
      part: new URL(request.url).searchParams.get('part') ?? '',
      hash,
      bytes: Buffer.from(await bytesOf(request, MOST_KEPT_BYTES)),
    }),
  ),
);
export const DELETE = signedIn<Params>('note', async (session, _request, { system, hash }) =>
  answer(await takeDownPhoto(session, system, hash)),
);
