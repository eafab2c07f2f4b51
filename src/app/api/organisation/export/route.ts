import { signedIn } from '@/server/handle';
import { exportOrganisation } from '@/server/people/moving';

export const GET = signedIn(async (session) => {
  const { name, bytes } = await exportOrganisation(session);
  return new Response(bytes as BodyInit, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
});
