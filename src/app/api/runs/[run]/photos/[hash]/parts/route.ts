import { answer, bytesOf, signedIn } from '@/server/handle';
import { keepPhotoPart, photoProgress } from '@/server/places/photos';
import { TroubleError } from '@/server/trouble';

/** The device sends pieces of a quarter of this. */
const MOST_PIECE = 1_000_000;
/** How much of a photo is here: an upload that lost its signal goes on from there. */
export const GET = signedIn<{ run: string; hash: string }>('run', async (session, _request, { run, hash }) =>
  answer(await photoProgress(session, run, hash)),
);
/** The next piece, as bytes: ?at= where it begins, ?of= how long the whole is. */
export const PUT = signedIn<{ run: string; hash: string }>('run', async (session, request, { run, hash }) => {
  const { searchParams } = new URL(request.url);
  const [at, of] = ['at', 'of'].map((n) => Number(searchParams.get(n)));
  if (!Number.isSafeInteger(at) || !Number.isSafeInteger(of) || at! < 0 || of! <= 0)
    throw new TroubleError(422, 'piece', 'The piece of the photo does not say where it belongs.');
  return answer(
    await keepPhotoPart(session, run, hash, {
      at: at!,
      of: of!,
      bytes: Buffer.from(await bytesOf(request, MOST_PIECE)),
    }),
  );
});
