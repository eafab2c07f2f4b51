import { answer, signedIn } from '@/server/handle';
import { endSession } from '@/server/session/session';

export const DELETE = signedIn<{ session: string }>('read', async (own, _request, { session }) => {
  await endSession(own, session);
  return answer({});
});
