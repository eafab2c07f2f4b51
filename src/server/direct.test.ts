/** @jest-environment node */
import { once } from 'node:events';
import { createServer, request as ask, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import '../../scripts/at-the-door.cjs';
import { answerDirectly } from './direct';
import { answer, bytesOf, open } from './handle';
import { log } from './log';

const MOST = 1000;
const seen: string[] = [];
let server: Server;
let port: number;
beforeAll(async () => {
  answerDirectly(
    '/api/shown',
    open<never>(async (request) => {
      const body = new TextDecoder().decode(await bytesOf(request, MOST));
      if (body === 'broken') throw new Error('inside');
      seen.push(`${request.headers.get('x-vast-client')} ${body}`);
      return answer({ body });
    }),
  );
  server = createServer((_, to) => to.end('framework')).listen(0, '127.0.0.1');
  await once(server, 'listening');
  port = (server.address() as AddressInfo).port;
});
afterAll(() => server.close());

function send(method: string, path: string, body = '', headers: Record<string, string> = {}) {
  return new Promise<{ status: number; text: string; headers: Record<string, unknown> }>((done, fail) => {
    const out = ask({ port, method, path, headers }, (from) => {
      let text = '';
      from.on('data', (piece) => (text += String(piece)));
      from.on('end', () => done({ status: from.statusCode!, text, headers: from.headers }));
    });
    out.on('error', fail);
    out.end(body);
  });
}

test('a post to its path is answered before the framework, with the headers of the api; everything else goes on to it', async () => {
  const direct = await send('POST', '/api/shown', 'x', { 'x-vast-client': 'a claim' });
  expect([direct.status, direct.text]).toEqual([200, '{"body":"x"}']);
  expect(direct.headers).toMatchObject({
    'content-type': 'application/json',
    'cache-control': 'no-store',
    'x-content-type-options': 'nosniff',
    'content-security-policy': expect.stringContaining("script-src 'none'") as string,
  });
  expect(seen.at(-1)).toBe('127.0.0.1 x');
  for (const [method, path] of [
    ['GET', '/api/shown'],
    ['POST', '/api/shown?x'],
    ['POST', '/api/other'],
  ] as const)
    expect((await send(method, path)).text).toBe('framework');
});
test('what is too large, comes from another site or breaks inside is answered as by any route', async () => {
  const large = await send('POST', '/api/shown', 'x'.repeat(MOST + 1));
  expect([large.status, large.text]).toEqual([413, expect.stringContaining('more than can be sent')]);
  const drip = await send('POST', '/api/shown', 'x'.repeat(MOST + 1), { 'transfer-encoding': 'chunked' });
  expect(drip.status).toBe(413);
  expect((await send('POST', '/api/shown', 'x', { origin: 'http://elsewhere.example' })).status).toBe(403);
  const broken = await send('POST', '/api/shown', 'broken');
  expect([broken.status, broken.text]).toEqual([500, expect.not.stringContaining('inside')]);
});
test('a device that is gone in the middle, and a request that is none, harm nobody', async () => {
  const warned = jest.spyOn(log, 'warn');
  const gone = connect(port, '127.0.0.1');
  gone.write('POST /api/shown HTTP/1.1\r\nhost: x\r\ncontent-length: 50\r\n\r\nhalf');
  await new Promise((r) => setTimeout(r, 30));
  gone.destroy();
  await new Promise((r) => setTimeout(r, 30));
  // nobody is told that the database is away
  expect(warned).not.toHaveBeenCalled();
  const bad = connect(port, '127.0.0.1');
  bad.write('POST /api/shown HTTP/1.1\r\nhost: a b\r\ncontent-length: 1\r\n\r\nx');
  const [said] = (await once(bad, 'data')) as [Buffer];
  expect(said.toString()).toMatch(/^HTTP\/1\.1 400/);
  bad.destroy();
  expect((await send('POST', '/api/shown', 'still there')).status).toBe(200);
  expect(seen).not.toContainEqual(expect.stringContaining('half'));
});
