import { answer, bodyOf, signedIn } from '@/server/handle';
import { replayFrom } from '@/server/yard/replay';
import { againSchema } from '@/wire/yard';

export const POST = signedIn<{ run: string }>('run', async (session, request, { run }) =>
  answer(await replayFrom(session, run, (await bodyOf(request, againSchema)).run), 201),
);
