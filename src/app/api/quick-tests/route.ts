import { answer, bodyOf, signedIn } from '@/server/handle';
import { quickTest } from '@/server/places/quick';
import { quickTestSchema } from '@/wire/quick-test';

/** A test on what stands before a person. */
export const POST = signedIn('plan', async (session, request) =>
  answer(await quickTest(session, await bodyOf(request, quickTestSchema)), 201),
);
