import { answer, bodyOf, signedIn } from '@/server/handle';
import { group } from '@/server/yard/statements';
import { groupSchema } from '@/wire/yard';

export const POST = signedIn('seal', async (session, request) =>
  answer(await group(session, await bodyOf(request, groupSchema)), 201),
);
