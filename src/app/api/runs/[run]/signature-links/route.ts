import { answer, bodyOf, signedIn } from '@/server/handle';
import { makeSignatureLink } from '@/server/runs/signature-links';
import { signatureLinkSchema } from '@/wire/signatures';

export const POST = signedIn<{ run: string }>('run', async (session, request, { run }) => {
  const { token } = await makeSignatureLink(session, run, await bodyOf(request, signatureLinkSchema));
  return answer({ link: `${process.env.VAST_URL ?? new URL(request.url).origin}/sign/${token}` }, 201);
});
