import { answer, bodyOf, signedIn } from '@/server/handle';
import { leakBook, writeLeak } from '@/server/leaks/leaks';
import { leakRequestSchema } from '@/wire/leaks';

export const GET = signedIn<{ system: string }>('read', async (session, _request, { system }) =>
  answer(await leakBook(session, system)),
);
/** Everybody of the house writes into the book: who finds a leak, who mends it, and the office that hears of it. */
export const POST = signedIn<{ system: string }>('note', async (session, request, { system }) =>
  answer(await writeLeak(session, system, await bodyOf(request, leakRequestSchema)), 201),
);
