import { answer, bodyOf, signedIn } from '@/server/handle';
import { saveSite } from '@/server/places/places';
import { siteSchema } from '@/wire/places';

export const POST = signedIn('plan', async (session, request) =>
  answer(await saveSite(session, await bodyOf(request, siteSchema)), 201),
);
