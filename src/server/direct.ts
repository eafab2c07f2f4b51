/**
 * Handlers that are asked before the framework: what gauges show comes by the hundred a second, and the way through the
 * framework costs many times the work itself. The route stands beside, for a server that was started without its door
 * (scripts/at-the-door.cjs); both are one handler.
 */
import 'server-only';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import { API_HEADERS } from './api-headers';
import { log } from './log';

type Handler = (request: Request, context: { params: Promise<never> }) => Promise<Response>;
type Door = Map<string, (message: IncomingMessage, to: ServerResponse) => void>;
const door = (): Door | undefined =>
  (globalThis as Record<symbol, unknown>)[Symbol.for('vast direct')] as Door;

/** As the framework gives it to a route. */
function asRequest(message: IncomingMessage): Request {
  const headers = new Headers();
  for (const [name, value] of Object.entries(message.headers))
    for (const v of Array.isArray(value) ? value : [value]) if (v !== undefined) headers.append(name, v);
  return new Request(`http://${message.headers.host ?? 'localhost'}${message.url}`, {
    method: message.method!,
    headers,
    body: Readable.toWeb(message) as ReadableStream,
    duplex: 'half',
  } as RequestInit);
}
async function answerBy(handler: Handler, message: IncomingMessage, to: ServerResponse): Promise<void> {
  try {
    const answer = await handler(asRequest(message), { params: Promise.resolve(undefined as never) });
    to.writeHead(answer.status, { ...API_HEADERS, ...Object.fromEntries(answer.headers) });
    to.end(Buffer.from(await answer.arrayBuffer()));
  } catch (error) {
    // a handler answers what goes wrong in it: this is a request that is none, or a device that is gone
    log.warn({ err: error }, 'direct');
    if (to.headersSent) to.destroy();
    else to.writeHead(400).end();
  }
}
/** What is posted to this path is answered by this handler, where the server has a door. */
export function answerDirectly(path: string, handler: Handler): void {
  door()?.set(`POST ${path}`, (message, to) => void answerBy(handler, message, to));
}
