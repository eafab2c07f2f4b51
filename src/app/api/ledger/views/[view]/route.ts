import { signedIn } from '@/server/handle';
import { dropView } from '@/server/records/ledger';

export const DELETE = signedIn<{ view: string }>('read', async (session, _request, { view }) => {
  await dropView(session, view);
  return Response.json({});
});
