import { Readable } from 'node:stream';
import { signedIn } from '@/server/handle';
import { jobFile } from '@/server/jobs/jobs';

/** The file that a job made, read as it is sent. */
export const GET = signedIn<{ job: string }>('share', async (session, _request, { job }) => {
  const { name, bytes, pieces } = await jobFile(session, job);
  return new Response(Readable.toWeb(Readable.from(pieces, { objectMode: false })) as BodyInit, {
    headers: {
      'content-type': 'application/zip',
      'content-length': String(bytes),
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
});
