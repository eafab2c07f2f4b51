import { answer, bodyOf, signedIn } from '@/server/handle';
import { supersede } from '@/server/sealing/marks';
import { supersedeSchema } from '@/wire/records';

export const POST = signedIn<{ run: string }>('seal', async (session, request, { run }) =>
  answer(await supersede(session, run, await bodyOf(request, supersedeSchema)), 201),
);
