import { answer, signedIn } from '@/server/handle';
import { partPhotosOf } from '@/server/places/part-photos';

export const GET = signedIn<{ system: string }>('read', async (session, _request, { system }) =>
  answer(await partPhotosOf(session, system)),
);
