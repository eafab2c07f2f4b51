import { answer, signedIn } from '@/server/handle';
import { outsideOffers } from '@/server/runs/outside-test';

export const GET = signedIn<{ system: string }>('run', async (session, _request, { system }) =>
  answer(await outsideOffers(session, system)),
);
