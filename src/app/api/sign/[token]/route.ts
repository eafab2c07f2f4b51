import { answer, bodyOf, open } from '@/server/handle';
import { signByLink } from '@/server/runs/signature-links';
import { linkSignatureSchema } from '@/wire/signatures';

export const POST = open<{ token: string }>(async (request, { token }) => {
  await signByLink(token, await bodyOf(request, linkSignatureSchema));
  return answer({}, 201);
});
