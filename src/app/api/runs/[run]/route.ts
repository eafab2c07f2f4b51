import { answer, signedIn } from '@/server/handle';
import { now } from '@/server/now';
import { readRun } from '@/server/runs/log';

export const GET = signedIn<{ run: string }>('read', async (session, _request, { run }) =>
  answer({ ...(await readRun(session, run)), now: now() }),
);
