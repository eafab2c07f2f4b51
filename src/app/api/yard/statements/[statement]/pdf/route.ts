import { pdfResponse } from '@/server/certificate/pdf';
import { statementPdf } from '@/server/certificate/statement';
import { signedIn } from '@/server/handle';
import { inTurn } from '@/server/limits';
import { viewerZone } from '@/server/session/zone';
import { statement } from '@/server/yard/statements';

export const GET = signedIn<{ statement: string }>('run', async (session, _request, { statement: id }) => {
  const stated = await statement(session, id);
  const zone = await viewerZone();
  return pdfResponse(
    await inTurn('papers', { atOnce: 1, waiting: 40 }, () => statementPdf(stated, zone)),
    stated.number,
  );
});
