import type { About } from '@/core/yard/questions/question';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { ask } from '@/server/yard/questions';
import { askSchema } from '@/wire/yard';

export const POST = signedIn('run', async (session, request) =>
  answer(await ask(session, (await bodyOf(request, askSchema)).about as About)),
);
