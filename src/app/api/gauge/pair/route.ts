import { answer, bodyOf, open } from '@/server/handle';
import { pairGauge } from '@/server/gauge/pairing';
import { clientOf } from '@/server/session/client';
import { pairSchema } from '@/wire/requests';

export const POST = open(async (request) => {
  const { code, device } = await bodyOf(request, pairSchema);
  return answer(await pairGauge(code, device ?? '', clientOf(request)));
});
