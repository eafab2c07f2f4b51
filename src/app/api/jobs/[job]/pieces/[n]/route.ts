import { answer, bytesOf, signedIn } from '@/server/handle';
import { putPiece } from '@/server/jobs/jobs';
import { PIECE_BYTES } from '@/wire/jobs';

export const PUT = signedIn<{ job: string; n: string }>('govern', async (session, request, { job, n }) => {
  await putPiece(session, job, Number(n), await bytesOf(request, PIECE_BYTES));
  return answer({ ok: true });
});
