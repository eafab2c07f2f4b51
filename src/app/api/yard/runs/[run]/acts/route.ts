import { answer, bodyOf, signedIn } from '@/server/handle';
import { yardAct } from '@/server/yard/runs';
import { type YardRequest, yardActSchema } from '@/wire/yard';

export const POST = signedIn<{ run: string }>('run', async (session, request, { run }) =>
  answer(await yardAct(session, run, await bodyOf<YardRequest>(request, yardActSchema))),
);
