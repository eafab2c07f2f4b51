import { answer, bodyOf, open } from '@/server/handle';
import { pairGauge } from '@/server/gauge/ingest';
import { pairSchema } from '@/wire/requests';

export const POST = open(async (request) =>
  answer(await pairGauge((await bodyOf(request, pairSchema)).code)),
);
