import { answer, bodyOf, signedIn } from '@/server/handle';
import { setPublicLink } from '@/server/records/handing-over';
import { linkActSchema } from '@/wire/records';

export const POST = signedIn<{ run: string }>('share', async (session, request, { run }) =>
  answer(await setPublicLink(session, run, (await bodyOf(request, linkActSchema)).act)),
);
