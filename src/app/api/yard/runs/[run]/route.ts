import { answer, signedIn } from '@/server/handle';
import { yardNow } from '@/server/yard/runs';

export const GET = signedIn<{ run: string }>('read', async (session, _request, { run }) =>
  answer(await yardNow(session, run)),
);
