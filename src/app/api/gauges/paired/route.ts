import { pairedOf } from '@/server/gauge/pairing';
import { answer, signedIn } from '@/server/handle';

export const dynamic = 'force-dynamic';
/** Devices that are paired with gauges of the cabinet. */
export const GET = signedIn('read', async (session) => answer(await pairedOf(session)));
