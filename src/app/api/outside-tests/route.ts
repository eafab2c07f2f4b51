import { answer, bodyOf, signedIn } from '@/server/handle';
import { bringInTest, outsidePlan } from '@/server/runs/outside-test';
import { outsidePlanSchema, outsideTestSchema } from '@/wire/outside-test';

/** The log of a day, a reading a second. */
const MOST_LOG = 4_000_000;
export const POST = signedIn('run', async (session, request) =>
  answer(await bringInTest(session, await bodyOf(request, outsideTestSchema, MOST_LOG)), 201),
);
/** What a log must show of a procedure. */
export const PUT = signedIn('run', async (session, request) =>
  answer(await outsidePlan(session, await bodyOf(request, outsidePlanSchema))),
);
