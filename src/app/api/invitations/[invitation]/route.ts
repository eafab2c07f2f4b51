import { answer, signedIn } from '@/server/handle';
import { withdrawInvitation } from '@/server/people/people';

export const DELETE = signedIn<{ invitation: string }>(
  'govern',
  async (session, _request, { invitation }) => {
    await withdrawInvitation(session, invitation);
    return answer({});
  },
);
