import { answer, bodyOf, signedIn } from '@/server/handle';
import { voidRecord } from '@/server/sealing/marks';
import { voidSchema } from '@/wire/ledger-schema';

export const POST = signedIn<{ run: string }>('seal', async (session, request, { run }) =>
  answer(await voidRecord(session, run, (await bodyOf(request, voidSchema)).reason)),
);
