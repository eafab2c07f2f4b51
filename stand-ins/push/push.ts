/**
 * Stand-in for the push service of a browser (RFC 8030, 8188, 8291, 8292): it makes up devices, takes what is sent to them,
 * looks whether it is signed by whom it says and encrypted for that device, and shows what was in it. For tests and trials:
 * no device hears anything of it.
 */
import {
  createDecipheriv,
  createECDH,
  createPublicKey,
  type ECDH,
  hkdfSync,
  randomBytes,
  verify,
} from 'node:crypto';
import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

export interface Delivered {
  /** What the device would show. */
  readonly message: unknown;
  readonly ttl: number;
  readonly urgency: string;
  /** Of the sender's signature: for which service it was made, until when it holds, s, and who to turn to. */
  readonly audience: string;
  readonly expires: number;
  readonly subject: string;
  /** The sender's public key. */
  readonly key: string;
}
interface Device {
  readonly own: ECDH;
  readonly auth: Buffer;
  readonly got: Delivered[];
  gone: boolean;
}
const bytes = (text: string) => Buffer.from(text, 'base64url');
const hkdf = (key: Buffer, salt: Buffer, info: Buffer | string, length: number) =>
  Buffer.from(hkdfSync('sha256', key, salt, info, length));

/** What was encrypted for a device (aes128gcm, one record). @throws Error when it was not */
function opened({ own, auth }: Device, body: Buffer): unknown {
  const salt = body.subarray(0, 16);
  const size = body[20]!;
  const sender = body.subarray(21, 21 + size);
  const sealed = body.subarray(21 + size);
  const info = Buffer.concat([Buffer.from('WebPush: info\0'), own.getPublicKey(), sender]);
  const secret = hkdf(own.computeSecret(sender), auth, info, 32);
  const decipher = createDecipheriv(
    'aes-128-gcm',
    hkdf(secret, salt, 'Content-Encoding: aes128gcm\0', 16),
    hkdf(secret, salt, 'Content-Encoding: nonce\0', 12),
  );
  decipher.setAuthTag(sealed.subarray(-16));
  const padded = Buffer.concat([decipher.update(sealed.subarray(0, -16)), decipher.final()]);
  // the last record ends in a 2 and zeros
  return JSON.parse(padded.subarray(0, padded.lastIndexOf(2)).toString('utf8'));
}
/** What the sender's signature says. @throws Error when it is not theirs */
function signed(header: string): { aud: string; exp: number; sub: string; key: string } {
  const [, token, key] = /^vapid t=([^,]+), ?k=(.+)$/.exec(header) ?? [];
  const [head, claims, signature] = (token ?? '').split('.') as [string, string, string];
  const point = bytes(key!);
  const jwk = {
    kty: 'EC',
    crv: 'P-256',
    x: point.subarray(1, 33).toString('base64url'),
    y: point.subarray(33).toString('base64url'),
  };
  const whose = createPublicKey({ key: jwk, format: 'jwk' });
  if (
    !verify(
      'sha256',
      Buffer.from(`${head}.${claims}`),
      { key: whose, dsaEncoding: 'ieee-p1363' },
      bytes(signature),
    )
  )
    throw new Error('not signed by whom it says');
  return {
    ...(JSON.parse(bytes(claims).toString('utf8')) as { aud: string; exp: number; sub: string }),
    key: key!,
  };
}
const bodyOf = async (request: IncomingMessage): Promise<Buffer> => {
  const pieces: Buffer[] = [];
  for await (const piece of request) pieces.push(piece as Buffer);
  return Buffer.concat(pieces);
};

/** Starts one. Ways: POST /devices makes a device, GET /devices/ID tells what it got, DELETE lets it go, POST /push/ID sends to it. */
export async function startPushService(port = 0): Promise<{ url: string; server: Server }> {
  const devices = new Map<string, Device>();
  const server = createServer((request, response) => {
    void answer(request).then(
      ([status, value]) => {
        response.writeHead(status, {
          'content-type': 'application/json',
          'access-control-allow-origin': '*',
        });
        response.end(JSON.stringify(value));
      },
      (error: Error) => response.writeHead(400).end(JSON.stringify({ trouble: error.message })),
    );
  });
  async function answer(request: IncomingMessage): Promise<[number, unknown]> {
    const [, what, id] = (request.url ?? '').split('/');
    const device = id ? devices.get(id) : undefined;
    if (what === 'devices' && request.method === 'POST') {
      const made = randomBytes(12).toString('hex');
      const own = createECDH('prime256v1');
      own.generateKeys();
      const auth = randomBytes(16);
      devices.set(made, { own, auth, got: [], gone: false });
      const keys = { p256dh: own.getPublicKey('base64url'), auth: auth.toString('base64url') };
      return [201, { id: made, endpoint: `${url}/push/${made}`, keys }];
    }
    if (!device) return [404, {}];
    if (what === 'devices' && request.method === 'DELETE') device.gone = true;
    if (what === 'devices') return [200, device.got];
    if (what !== 'push' || request.method !== 'POST') return [404, {}];
    if (device.gone) return [410, {}];
    const { aud, exp, sub, key } = signed(request.headers.authorization ?? '');
    if (aud !== url || exp < Date.now() / 1000) return [403, {}];
    device.got.push({
      message: opened(device, await bodyOf(request)),
      ttl: Number(request.headers.ttl),
      urgency: String(request.headers.urgency),
      audience: aud,
      expires: exp,
      subject: sub,
      key,
    });
    return [201, {}];
  }
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return { url, server };
}
