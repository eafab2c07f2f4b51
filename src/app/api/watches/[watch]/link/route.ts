import { answer, bodyOf, signedIn } from '@/server/handle';
import { setLink } from '@/server/watches/watches';
import { watchLinkSchema } from '@/wire/watch';

export const POST = signedIn<{ watch: string }>('share', async (session, request, { watch }) =>
  answer(await setLink(session, watch, (await bodyOf(request, watchLinkSchema)).act as 'make')),
);
