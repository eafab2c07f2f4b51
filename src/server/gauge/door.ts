import 'server-only';
import { answer, bodyOf, open } from '@/server/handle';
import { gaugeBatchSchema, type GaugeBatch } from '@/wire/requests';
import { takeReadings } from './ingest';

/** What a gauge shows, by the token it was paired with. */
export const postReadings = open<never>(async (request) => {
  const token = request.headers.get('authorization')?.replace(/^Bearer /, '') ?? '';
  return answer(await takeReadings(token, (await bodyOf(request, gaugeBatchSchema)) as GaugeBatch));
});
