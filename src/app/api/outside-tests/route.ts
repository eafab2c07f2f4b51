import { answer, bodyOf, signedIn } from '@/server/handle';
import { bringInTest, outsidePlan } from '@/server/runs/outside-test';
import { outsidePlanSchema, outsideTestSchema } from '@/wire/outside-test';

export const POST = signedIn(async (session, request) =>
  answer(await bringInTest(session, await bodyOf(request, outsideTestSchema)), 201),
);
/** What a log must show of a procedure. */
export const PUT = signedIn(async (session, request) =>
  answer(await outsidePlan(session, await bodyOf(request, outsidePlanSchema))),
);
