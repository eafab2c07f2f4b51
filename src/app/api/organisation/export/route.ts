import { signedIn } from '@/server/handle';
import { inTurn, rateLimit } from '@/server/limits';
import { exportOrganisation } from '@/server/people/moving';

/** ?links=1: with the links that are open. */
export const GET = signedIn('govern', async (session, request) => {
  await rateLimit(`export ${session.org}`, 6, 10 * 60_000);
  const withLinks = new URL(request.url).searchParams.get('links') === '1';
  const { name, bytes } = await inTurn('exports', { atOnce: 1, waiting: 4 }, () =>
    exportOrganisation(session, withLinks),
  );
  return new Response(bytes as BodyInit, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
});
