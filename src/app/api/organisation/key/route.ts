import { answer, signedIn } from '@/server/handle';
import { rotateKey } from '@/server/sealing/keys';

export const POST = signedIn('govern', async (session) => answer(await rotateKey(session), 201));
