import { signedIn } from '@/server/handle';
import { recordOf } from '@/server/records/records';
import { readingsCsv } from '@/wire/readings-csv';

export const GET = signedIn<{ run: string }>('share', async (session, _request, { run }) => {
  const record = await recordOf(session, run);
  return new Response(readingsCsv(record.body), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${record.seal.number}-readings.csv"`,
      'cache-control': 'no-store',
    },
  });
});
