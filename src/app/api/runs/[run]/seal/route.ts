import { answer, signedIn } from '@/server/handle';
import { sealRun } from '@/server/sealing/seal';

export const POST = signedIn<{ run: string }>('seal', async (session, _request, { run }) =>
  answer(await sealRun(session, run)),
);
