import { answer, bodyOf, signedIn } from '@/server/handle';
import { tell } from '@/server/yard/questions';
import { answerSchema } from '@/wire/yard';

export const POST = signedIn('run', async (session, request) =>
  answer(await tell(session, await bodyOf(request, answerSchema))),
);
