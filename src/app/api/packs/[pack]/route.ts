import type { RuleEdit } from '@/core/pack/house';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { editPack, readPack } from '@/server/rules/rules';
import { editPackSchema } from '@/wire/requests';

/** The pack's own file. */
export const GET = signedIn<{ pack: string }>(async (session, request, { pack: id }) => {
  const version = new URL(request.url).searchParams.get('version') ?? undefined;
  const { pack, text } = await readPack(session, id, version);
  return new Response(text, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="${pack.id}-${pack.version}.json"`,
      'cache-control': 'no-store',
    },
  });
});
export const POST = signedIn<{ pack: string }>(async (session, request, { pack: id }) => {
  const { version, edits } = await bodyOf(request, editPackSchema);
  const next = await editPack(session, id, version, edits as RuleEdit[]);
  return answer({ id: next.id, version: next.version });
});
