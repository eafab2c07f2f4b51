import { certificatePdf, pdfResponse } from '@/server/certificate/pdf';
import { open } from '@/server/handle';
import { publicRecord, recordOf } from '@/server/records/records';

/** The face alone: what stands behind it is not for everybody who has the link. */
export const GET = open<{ token: string }>(async (request, { token }) => {
  const found = await publicRecord(token);
  const record = await recordOf(found, found.run);
  const bytes = await certificatePdf(record, process.env.VAST_URL ?? new URL(request.url).origin, 'face');
  return pdfResponse(bytes, record.seal.number);
});
