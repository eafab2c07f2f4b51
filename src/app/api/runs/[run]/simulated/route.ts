import { answer, bodyOf, signedIn } from '@/server/handle';
import { simulatedState, workSimulated } from '@/server/gauge/simulated';
import { handDone } from '@/server/yard/runs';
import { simulatedActionSchema } from '@/wire/requests';

type Params = { run: string };
export const GET = signedIn<Params>('read', async (session, _request, { run }) =>
  answer(await simulatedState(session, run)),
);
export const POST = signedIn<Params>('run', async (session, request, { run }) =>
  answer(
    await workSimulated(session, run, await bodyOf(request, simulatedActionSchema), (work, action) =>
      handDone(session, run, work, action),
    ),
  ),
);
