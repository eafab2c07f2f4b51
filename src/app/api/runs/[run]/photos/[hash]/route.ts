import { signedIn } from '@/server/handle';
import { readPhoto } from '@/server/places/photos';

export const GET = signedIn<{ run: string; hash: string }>(async (session, _request, { run, hash }) => {
  const bytes = await readPhoto(session, run, hash);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'image/jpeg',
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    },
  });
});
