import { answer, bodyOf, open } from '@/server/handle';
import { linkEntry } from '@/server/watches/watches';
import { watchEntrySchema } from '@/wire/watch';

/** Write-only: an entry goes in, and only what it itself says comes back. */
export const POST = open<{ token: string }>(async (request, { token }) =>
  answer(await linkEntry(token, await bodyOf(request, watchEntrySchema))),
);
