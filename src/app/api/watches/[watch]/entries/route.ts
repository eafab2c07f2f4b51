import { answer, bodyOf, signedIn } from '@/server/handle';
import { memberEntry } from '@/server/watches/watches';
import { watchEntrySchema } from '@/wire/watch';

export const POST = signedIn<{ watch: string }>('note', async (session, request, { watch }) =>
  answer(await memberEntry(session, watch, await bodyOf(request, watchEntrySchema))),
);
