/** The stand-in push service as a process of its own. */
import { startPushService } from './push';

const { url } = await startPushService(Number(process.env.VAST_PUSH_PORT ?? 3150));
console.log(`Simulated push service on ${url}`);
