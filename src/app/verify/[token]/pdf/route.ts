import { pdfAnswer } from '@/server/certificate/pdf';
import { open } from '@/server/handle';
import { publicRecord, recordOf } from '@/server/records/records';

export const GET = open<{ token: string }>(async (request, { token }) => {
  const found = await publicRecord(token);
  return pdfAnswer(await recordOf(found, found.run), new URL('/', request.url));
});
