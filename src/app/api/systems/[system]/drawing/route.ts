import { answer, bodyOf, signedIn } from '@/server/handle';
import { saveNetwork } from '@/server/places/places';
import { networkFromForm, networkSchema } from '@/wire/network';

export const PUT = signedIn<{ system: string }>(async (session, request, { system }) =>
  answer(await saveNetwork(session, system, networkFromForm(await bodyOf(request, networkSchema)))),
);
