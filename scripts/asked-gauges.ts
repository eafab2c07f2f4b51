/** For the database tests, in place of the simulated gauges: it answers, and tells what it was asked. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

/** @returns what is closed after the tests */
export async function askedGauges(tell: (url: string, body: unknown) => void = () => {}): Promise<Server> {
  const server = createServer((request, response) => {
    let text = '';
    request.on('data', (d: Buffer) => (text += d.toString('utf8')));
    request.on('end', () => {
      if (text) tell(request.url ?? '', JSON.parse(text));
      response.writeHead(200, { 'content-type': 'application/json' });
      response.end('{}');
    });
  }).listen(0, '127.0.0.1');
  await new Promise((r) => server.once('listening', r));
  process.env.VAST_GAUGE_URL = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return server;
}
