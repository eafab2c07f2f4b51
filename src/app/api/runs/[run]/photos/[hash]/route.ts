import { signedIn } from '@/server/handle';
import { photoAnswer, readPhoto } from '@/server/places/photos';

export const GET = signedIn<{ run: string; hash: string }>('read', async (session, request, { run, hash }) =>
  photoAnswer(await readPhoto(session, run, hash), request),
);
