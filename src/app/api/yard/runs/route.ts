import { answer, bodyOf, signedIn } from '@/server/handle';
import { beginYard } from '@/server/yard/runs';
import { beginYardSchema } from '@/wire/yard';

export const POST = signedIn('run', async (session, request) =>
  answer(await beginYard(session, await bodyOf(request, beginYardSchema)), 201),
);
