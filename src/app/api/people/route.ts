import { answer, bodyOf, signedIn } from '@/server/handle';
import { invite } from '@/server/people/people';
import { inviteSchema } from '@/wire/people';

/** Invites somebody; the link is answered once. */
export const POST = signedIn('govern', async (session, request) =>
  answer(
    await invite(
      session,
      await bodyOf(request, inviteSchema),
      process.env.VAST_URL ?? new URL(request.url).origin,
    ),
    201,
  ),
);
