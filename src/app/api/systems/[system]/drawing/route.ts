import { answer, bodyOf, signedIn } from '@/server/handle';
import { saveNetwork } from '@/server/places/places';
import { networkFromForm } from '@/wire/network';
import { networkSchema } from '@/wire/network-schema';

export const PUT = signedIn<{ system: string }>('plan', async (session, request, { system }) =>
  answer(await saveNetwork(session, system, networkFromForm(await bodyOf(request, networkSchema)))),
);
