import { signedIn } from '@/server/handle';
import { readPhoto, smallPhoto } from '@/server/places/photos';

export const GET = signedIn<{ run: string; hash: string }>(async (session, request, { run, hash }) => {
  const whole = await readPhoto(session, run, hash);
  const small = new URL(request.url).searchParams.get('small') === '1';
  const bytes = small ? await smallPhoto(whole) : whole;
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'image/jpeg',
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    },
  });
});
