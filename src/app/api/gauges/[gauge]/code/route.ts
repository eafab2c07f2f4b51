import { makeCode } from '@/server/gauge/pairing';
import { answer, signedIn } from '@/server/handle';

/** A code by which one device is paired with this gauge. */
export const POST = signedIn<{ gauge: string }>('run', async (session, _request, { gauge }) =>
  answer(await makeCode(session, gauge), 201),
);
