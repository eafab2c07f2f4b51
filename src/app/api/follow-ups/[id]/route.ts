import { answer, signedIn } from '@/server/handle';
import { closeFollowUp } from '@/server/records/follow-ups';

/** Says that a follow-up is done. */
export const POST = signedIn<{ id: string }>(async (session, _request, { id }) => {
  await closeFollowUp(session, id);
  return answer({ done: true });
});
