import { answer, signedIn } from '@/server/handle';
import { rebuildLedger } from '@/server/records/ledger';

/** Makes the ledger anew from the sealed records. */
export const POST = signedIn('govern', async (session) => {
  return answer({ lines: await rebuildLedger(session) });
});
