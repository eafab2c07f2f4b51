import { answer, bodyOf, signedIn } from '@/server/handle';
import { copySystem } from '@/server/places/places';
import { copySystemSchema } from '@/wire/places';

export const POST = signedIn<{ system: string }>('plan', async (session, request, { system }) =>
  answer(await copySystem(session, system, await bodyOf(request, copySystemSchema)), 201),
);
