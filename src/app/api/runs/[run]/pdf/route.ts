import { signedIn } from '@/server/handle';
import { pdfAnswer } from '@/server/certificate/pdf';
import { recordOf } from '@/server/records/records';

export const GET = signedIn<{ run: string }>(async (session, request, { run }) =>
  pdfAnswer(await recordOf(session, run), new URL(request.url)),
);
