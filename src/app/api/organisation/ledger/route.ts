import { answer, signedIn } from '@/server/handle';
import { requireOwner } from '@/server/people/people';
import { rebuildLedger } from '@/server/records/ledger';

/** Makes the ledger anew from the sealed records. */
export const POST = signedIn(async (session) => {
  requireOwner(session);
  return answer({ lines: await rebuildLedger(session) });
});
