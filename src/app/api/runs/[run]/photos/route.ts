import { answer, signedIn } from '@/server/handle';
import { keepPhoto } from '@/server/places/photos';
import { TroubleError } from '@/server/trouble';
import { mayRun } from '@/wire/role';

/** Takes a photo as the bytes of its file. */
export const POST = signedIn<{ run: string }>(async (session, request, { run }) => {
  if (!mayRun(session.role))
    throw new TroubleError(403, 'role', 'The office reads runs; a tester or apprentice takes the photos.');
  return answer(await keepPhoto(session, run, Buffer.from(await request.arrayBuffer())), 201);
});
