import { answer, bodyOf, signedIn } from '@/server/handle';
import { rememberedMapping, rememberMapping } from '@/server/records/log-mappings';
import { logMappingSchema } from '@/wire/gauge-log';

export const GET = signedIn('read', async (session, request) => {
  const shape = (new URL(request.url).searchParams.get('shape') ?? '').slice(0, 400);
  return answer({ mapping: await rememberedMapping(session, shape) });
});
export const POST = signedIn('run', async (session, request) => {
  const { shape, mapping } = await bodyOf(request, logMappingSchema);
  await rememberMapping(session, shape, mapping);
  return answer({});
});
