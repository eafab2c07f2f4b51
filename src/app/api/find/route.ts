import { findAnything } from '@/server/find/find';
import { answer, signedIn } from '@/server/handle';
import { viewerZone } from '@/server/session/zone';

/** ?words=: a few of each kind. */
export const GET = signedIn('read', async (session, request) => {
  const words = new URL(request.url).searchParams.get('words') ?? '';
  return answer({ found: await findAnything(session, words, await viewerZone()) });
});
