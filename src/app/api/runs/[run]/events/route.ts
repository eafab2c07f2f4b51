import { answer, bodyOf, signedIn } from '@/server/handle';
import { now } from '@/server/now';
import { appendEvents, readRun } from '@/server/runs/log';
import { batchSchema, type Batch } from '@/wire/requests';

type Params = { run: string };
export const GET = signedIn<Params>(async (session, request, { run }) => {
  const after = Number(new URL(request.url).searchParams.get('after') ?? 0);
  const { events, sealed } = await readRun(
    session,
    run,
    Number.isSafeInteger(after) && after >= 0 ? after : 0,
  );
  return answer({ events, sealed, now: now() });
});
export const POST = signedIn<Params>(async (session, request, { run }) => {
  const { events } = (await bodyOf(request, batchSchema)) as unknown as Batch;
  return answer(await appendEvents(session, run, events));
});
