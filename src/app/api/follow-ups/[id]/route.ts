import { answer, bodyOf, signedIn } from '@/server/handle';
import { assignFollowUp, closeFollowUp } from '@/server/records/follow-ups';
import { closeSchema, followUpSchema } from '@/wire/ledger-schema';

/** Says that it is done. */
export const POST = signedIn<{ id: string }>('share', async (session, request, { id }) => {
  await closeFollowUp(session, id, (await bodyOf(request, closeSchema)).text);
  return answer({});
});
/** Says who sees to it, and by when. */
export const PUT = signedIn<{ id: string }>('share', async (session, request, { id }) => {
  await assignFollowUp(session, id, await bodyOf(request, followUpSchema));
  return answer({});
});
