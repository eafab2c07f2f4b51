import { answer, bodyOf, signedIn } from '@/server/handle';
import { train, watched } from '@/server/yard/training';
import { trainSchema, type TrainRequest } from '@/wire/yard';

type Params = { run: string };
export const GET = signedIn<Params>('seal', async (session, _request, { run }) =>
  answer(await watched(session, run)),
);
export const POST = signedIn<Params>('seal', async (session, request, { run }) =>
  answer(await train(session, run, await bodyOf<TrainRequest>(request, trainSchema))),
);
