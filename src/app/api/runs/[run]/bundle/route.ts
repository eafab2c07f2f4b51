import { signedIn } from '@/server/handle';
import { rateLimit } from '@/server/limits';
import { bundleOf } from '@/server/records/bundle';

export const GET = signedIn<{ run: string }>('share', async (session, request, { run }) => {
  await rateLimit(`bundle ${session.person}`, 30, 60_000);
  const { number, bytes } = await bundleOf(session, run, process.env.VAST_URL ?? new URL(request.url).origin);
  return new Response(bytes as BodyInit, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${number}.zip"`,
      'cache-control': 'no-store',
    },
  });
});
