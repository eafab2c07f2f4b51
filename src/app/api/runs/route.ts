import { answer, bodyOf, signedIn } from '@/server/handle';
import { startRun } from '@/server/runs/start';
import { startRunSchema } from '@/wire/requests';

export const POST = signedIn('run', async (session, request) =>
  answer(await startRun(session, await bodyOf(request, startRunSchema)), 201),
);
