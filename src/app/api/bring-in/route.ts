import { answer, bodyOf, signedIn } from '@/server/handle';
import { bringIn } from '@/server/places/bring-in';
import { rememberedTable } from '@/server/records/log-mappings';
import { type BringIn, bringInSchema } from '@/wire/bring-in/schema';

export const GET = signedIn('plan', async (session, request) => {
  const shape = (new URL(request.url).searchParams.get('shape') ?? '').slice(0, 400);
  return answer({ mapping: await rememberedTable(session, shape) });
});
/** Rows of a table, some at a time. */
export const POST = signedIn('plan', async (session, request) =>
  answer(await bringIn(session, (await bodyOf(request, bringInSchema)) as unknown as BringIn)),
);
