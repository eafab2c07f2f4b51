import { answer, signedIn } from '@/server/handle';
import { hangPhoto, readPartPhoto, takeDownPhoto } from '@/server/places/part-photos';
import { photoAnswer } from '@/server/places/photos';

type Params = { system: string; hash: string };
export const GET = signedIn<Params>(async (session, request, { system, hash }) =>
  photoAnswer(await readPartPhoto(session, system, hash), request),
);
/** The photo as bytes, ?part= on which it hangs. */
export const PUT = signedIn<Params>(async (session, request, { system, hash }) =>
  answer(
    await hangPhoto(session, system, {
      part: new URL(request.url).searchParams.get('part') ?? '',
      hash,
      bytes: Buffer.from(await request.arrayBuffer()),
    }),
  ),
);
export const DELETE = signedIn<Params>(async (session, _request, { system, hash }) =>
  answer(await takeDownPhoto(session, system, hash)),
);
