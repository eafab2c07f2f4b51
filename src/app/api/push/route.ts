import { dropPushDevice, keepPushDevice, pushState, tryPushDevice } from '@/server/alarms/devices';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { pushDeviceSchema, pushEndpointSchema } from '@/wire/push';

export const GET = signedIn('read', async (session, request) =>
  answer(await pushState(session, new URL(request.url).searchParams.get('endpoint') ?? '')),
);
/** Rings this device from now on. */
export const POST = signedIn('read', async (session, request) => {
  await keepPushDevice(session, await bodyOf(request, pushDeviceSchema));
  return answer({}, 201);
});
/** Rings it once, now. */
export const PUT = signedIn('read', async (session, request) => {
  await tryPushDevice(session, (await bodyOf(request, pushEndpointSchema)).endpoint);
  return answer({});
});
export const DELETE = signedIn('read', async (session, request) => {
  await dropPushDevice(session, (await bodyOf(request, pushEndpointSchema)).endpoint);
  return answer({});
});
