import { formOf, pdfResponse } from '@/server/certificate/pdf';
import { printed } from '@/server/certificate/press';
import { signedIn } from '@/server/handle';
import { printedRecord } from '@/server/records/records';

export const GET = signedIn<{ run: string }>('read', async (session, request, { run }) => {
  const url = new URL(request.url);
  const form = formOf(url);
  const both = url.searchParams.get('both') === '1';
  const record = { ...(await printedRecord(session, run)), both };
  const bytes = await printed(record, process.env.VAST_URL ?? url.origin, form);
  return pdfResponse(bytes, form === 'certificate' ? record.seal.number : `${record.seal.number}-${form}`);
});
