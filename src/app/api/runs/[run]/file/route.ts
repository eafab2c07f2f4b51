import { signedIn } from '@/server/handle';
import { recordOf } from '@/server/records/records';
import { writeRecordFile } from '@/wire/record-file';

export const GET = signedIn<{ run: string }>('share', async (session, _request, { run }) => {
  const record = await recordOf(session, run);
  return new Response(writeRecordFile(record), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="${record.seal.number}.json"`,
      'cache-control': 'no-store',
    },
  });
});
