import { saveGauge } from '@/server/cabinet/cabinet';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { gaugeFormSchema } from '@/wire/cabinet';

export const POST = signedIn('calibrate', async (session, request) =>
  answer(await saveGauge(session, await bodyOf(request, gaugeFormSchema)), 201),
);
