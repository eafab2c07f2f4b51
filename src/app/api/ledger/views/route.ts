import { bodyOf, signedIn } from '@/server/handle';
import { saveView } from '@/server/records/ledger';
import { ledgerViewSchema } from '@/wire/ledger-schema';

export const POST = signedIn('read', async (session, request) =>
  Response.json(await saveView(session, await bodyOf(request, ledgerViewSchema))),
);
