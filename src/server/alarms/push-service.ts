/** Sends to the push services of browsers, by the standard: encrypted for the device, signed by this installation. */
import 'server-only';
import { createHmac } from 'node:crypto';
import { lookup } from 'node:dns/promises';
import { BlockList, isIP } from 'node:net';
import { p256 } from '@noble/curves/nist.js';
import { generateRequestDetails } from 'web-push';
import type { PushMessage } from '@/wire/push';

/** How long a push service keeps an alarm for a device that is off, s: after that it is no news. House figure. */
const KEPT_S = 600;
const WAIT_MS = 10_000;

/** The key pair of this installation, always the same for the same secret: public, and as the library takes it. */
export function vapidKeys(): { readonly publicKey: string; readonly privateKey: string } {
  const seed = createHmac('sha512', process.env.VAST_SECRET ?? '')
    .update('vapid')
    .digest();
  const secret = p256.utils.randomSecretKey(seed.subarray(0, 48));
  return {
    publicKey: Buffer.from(p256.getPublicKey(secret, false)).toString('base64url'),
    privateKey: Buffer.from(secret).toString('base64url'),
  };
}

const inside = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['224.0.0.0', 3],
] as const)
  inside.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  ['::', 96],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
  ['::ffff:0:0', 96],
] as const)
  inside.addSubnet(net, bits, 'ipv6');
const isInside = (address: string): boolean => inside.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');

/** A stand-in of a push service that this installation was started with; '' for none. */
const standIn = () => process.env.VAST_PUSH_STAND_IN ?? '';
/** Whether an address could be a push service's: what a device says of itself must not make this server call its own house. */
export function mayBeService(endpoint: string): boolean {
  if (!URL.canParse(endpoint)) return false;
  const { protocol, port, hostname, origin, username } = new URL(endpoint);
  if (standIn() && origin === standIn()) return true;
  return (
    protocol === 'https:' &&
    port === '' &&
    username === '' &&
    isIP(hostname.replace(/^\[|\]$/g, '')) === 0 &&
    /\.[a-z]{2,}$/i.test(hostname) &&
    !/\.(local|localhost|internal|arpa|home|lan)$/i.test(hostname)
  );
}

export type Sent = 'sent' | 'gone' | 'failed';
/** Rings one device. `gone`: the person took the permission back, or the browser let it go. */
export async function push(
  to: { readonly endpoint: string; readonly p256dh: string; readonly auth: string },
  message: PushMessage,
): Promise<Sent> {
  if (!mayBeService(to.endpoint)) return 'gone';
  const { hostname, origin } = new URL(to.endpoint);
  try {
    if (origin !== standIn()) {
      const found = await lookup(hostname, { all: true });
      if (found.some((a) => isInside(a.address))) return 'gone';
    }
    const house = process.env.VAST_URL ?? '';
    const request = generateRequestDetails(
      { endpoint: to.endpoint, keys: { p256dh: to.p256dh, auth: to.auth } },
      JSON.stringify(message),
      {
        TTL: KEPT_S,
        urgency: 'high',
        contentEncoding: 'aes128gcm',
        vapidDetails: {
          subject: house.startsWith('https://') ? house : 'mailto:alarms@vast-stone.invalid',
          ...vapidKeys(),
        },
      },
    );
    const response = await fetch(request.endpoint, {
      method: request.method,
      headers: Object.fromEntries(Object.entries(request.headers).map(([k, v]) => [k, String(v)])),
      body: new Uint8Array(request.body ?? Buffer.alloc(0)),
      redirect: 'error',
      signal: AbortSignal.timeout(WAIT_MS),
    });
    await response.body?.cancel();
    return response.ok ? 'sent' : [404, 410].includes(response.status) ? 'gone' : 'failed';
  } catch {
    return 'failed';
  }
}
