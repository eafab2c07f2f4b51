import { answer, bodyOf, signedIn } from '@/server/handle';
import { copyPack, importPack } from '@/server/rules/rules';
import { copyPackSchema, importPackSchema } from '@/wire/requests';

/** A pack as text, escaped in JSON. */
const MOST_PACK = 3_000_000;
/** Imports a pack from its file, or copies one to a house pack. */
export const POST = signedIn('govern', async (session, request) => {
  const copies = new URL(request.url).searchParams.has('copy');
  const pack = copies
    ? await copyPack(session, await bodyOf(request, copyPackSchema))
    : await importPack(session, (await bodyOf(request, importPackSchema, MOST_PACK)).text);
  return answer({ id: pack.id, version: pack.version, title: pack.title }, 201);
});
