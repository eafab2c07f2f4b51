import { answer, bodyOf, signedIn } from '@/server/handle';
import { putOnDay } from '@/server/visits/days';
import { putOnDaySchema } from '@/wire/days';

/** Puts a due test on a day. */
export const POST = signedIn<{ id: string }>('plan', async (session, request, { id }) =>
  answer(await putOnDay(session, id, await bodyOf(request, putOnDaySchema)), 201),
);
