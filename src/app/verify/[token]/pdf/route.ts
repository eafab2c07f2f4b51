import { pdfResponse } from '@/server/certificate/pdf';
import { printed } from '@/server/certificate/press';
import { open } from '@/server/handle';
import { rateLimit } from '@/server/limits';
import { houseUsage } from '@/server/people/usage';
import { publicRecord, recordOf } from '@/server/records/records';
import { clientOf } from '@/server/session/client';

const MINUTE = 60_000;
/** The face alone: what stands behind it is not for everybody who has the link. */
export const GET = open<{ token: string }>(async (request, { token }) => {
  const client = clientOf(request);
  if (client) await rateLimit(`public pdf, client ${client}`, 60, MINUTE);
  const found = await publicRecord(token);
  await rateLimit(`public pdf, link ${token}`, 30, MINUTE);
  const record = { ...(await recordOf(found, found.run)), usage: await houseUsage(found) };
  const bytes = await printed(record, process.env.VAST_URL ?? new URL(request.url).origin, 'face');
  return pdfResponse(bytes, record.seal.number);
});
