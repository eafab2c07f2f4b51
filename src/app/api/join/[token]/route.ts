import { answer, bodyOf, open } from '@/server/handle';
import { join } from '@/server/people/people';
import { joinSchema } from '@/wire/people';

export const POST = open<{ token: string }>(async (request, { token }) =>
  answer(await join(token, (await bodyOf(request, joinSchema)).password)),
);
