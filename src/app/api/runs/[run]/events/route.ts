import { answer, bodyOf, signedIn } from '@/server/handle';
import { now } from '@/server/now';
import { readRun, takeEvents } from '@/server/runs/log';
import { batchSchema, type Batch } from '@/wire/requests';

/** Some hundred entries of a run, each with a stream or a signature in it. */
const MOST_BATCH = 6_000_000;
type Params = { run: string };
export const GET = signedIn<Params>('read', async (session, request, { run }) => {
  const after = Number(new URL(request.url).searchParams.get('after') ?? 0);
  const { events, sealed } = await readRun(
    session,
    run,
    Number.isSafeInteger(after) && after >= 0 ? after : 0,
  );
  return answer({ events, sealed, now: now() });
});
export const POST = signedIn<Params>('run', async (session, request, { run }) => {
  const { events } = (await bodyOf(request, batchSchema, MOST_BATCH)) as unknown as Batch;
  return answer(await takeEvents(session, run, events));
});
