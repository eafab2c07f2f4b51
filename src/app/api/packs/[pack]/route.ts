import { answer, bodyOf, signedIn } from '@/server/handle';
import { editPack, readPack, saveEditions, setPackAside } from '@/server/rules/rules';
import { editionsSchema, editPackSchema, packAsideSchema } from '@/wire/requests';

/** The pack's own file. */
export const GET = signedIn<{ pack: string }>('read', async (session, request, { pack: id }) => {
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
/** Edits a house pack, or says which edition of each source the organisation works to. */
export const POST = signedIn<{ pack: string }>('govern', async (session, request, { pack: id }) => {
  if (new URL(request.url).searchParams.has('editions')) {
    await saveEditions(session, id, (await bodyOf(request, editionsSchema)).editions);
    return answer({ id });
  }
  const { version, edits } = await bodyOf(request, editPackSchema);
  const next = await editPack(session, id, version, edits);
  return answer({ id: next.id, version: next.version });
});
/** Says whether the house works to the school of a pack. */
export const PUT = signedIn<{ pack: string }>('govern', async (session, request, { pack: id }) => {
  await setPackAside(session, id, (await bodyOf(request, packAsideSchema)).aside);
  return answer({ id });
});
