import { answer, bodyOf, signedIn } from '@/server/handle';
import { practise } from '@/server/places/quick';
import { practiseSchema } from '@/wire/quick-test';

/** A practice run on the installation that stands ready. */
export const POST = signedIn('run', async (session, request) =>
  answer(await practise(session, await bodyOf(request, practiseSchema)), 201),
);
