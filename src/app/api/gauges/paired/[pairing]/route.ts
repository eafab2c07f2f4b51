import { endPairing } from '@/server/gauge/pairing';
import { answer, signedIn } from '@/server/handle';

/** Ends a pairing: its token opens nothing from then on. */
export const DELETE = signedIn<{ pairing: string }>('run', async (session, _request, { pairing }) => {
  await endPairing(session, pairing);
  return answer({});
});
