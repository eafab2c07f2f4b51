import { answer, bodyOf, signedIn } from '@/server/handle';
import { saveSystem } from '@/server/places/places';
import { systemSchema } from '@/wire/places';

/** Enters a system on the site named in the address, or changes the one with this id. */
export const PUT = signedIn<{ system: string }>('plan', async (session, request, { system }) =>
  answer(
    await saveSystem(
      session,
      system,
      new URL(request.url).searchParams.get('site'),
      await bodyOf(request, systemSchema),
    ),
  ),
);
