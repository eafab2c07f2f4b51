import { saveKit } from '@/server/cabinet/cabinet';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { kitFormSchema } from '@/wire/cabinet';

export const POST = signedIn('plan', async (session, request) =>
  answer(await saveKit(session, await bodyOf(request, kitFormSchema)), 201),
);
