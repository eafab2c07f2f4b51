import { answer, bodyOf, open } from '@/server/handle';
import { takeReadings } from '@/server/gauge/ingest';
import { gaugeBatchSchema, type GaugeBatch } from '@/wire/requests';

export const POST = open(async (request) => {
  const token = request.headers.get('authorization')?.replace(/^Bearer /, '') ?? '';
  return answer(await takeReadings(token, (await bodyOf(request, gaugeBatchSchema)) as GaugeBatch));
});
