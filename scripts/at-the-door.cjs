// Loaded before the web server, where each request comes in.
const http = require('node:http');

process.env.VAST_CLIENT_ADDRESS = '1';
// what comes by the hundred a second is answered here, by handlers that the application leaves (src/server/direct.ts)
const direct = (globalThis[Symbol.for('vast direct')] = new Map());

/**
 * From where it really came; what a client claims is overwritten. Behind a proxy of one's own (VAST_PROXY=1) the last
 * address of x-forwarded-for counts: the one the proxy added.
 */
function cameFrom({ headers, socket }) {
  const forwarded = process.env.VAST_PROXY === '1' ? headers['x-forwarded-for'] : undefined;
  const last = String(forwarded ?? '')
    .split(',')
    .pop()
    .trim();
  return last || socket?.remoteAddress || '';
}
const emit = http.Server.prototype.emit;
http.Server.prototype.emit = function (name, request, ...rest) {
  if (name !== 'request' || !request?.headers) return emit.call(this, name, request, ...rest);
  request.headers['x-vast-client'] = cameFrom(request);
  const answer = direct.get(`${request.method} ${request.url}`);
  if (!answer) return emit.call(this, name, request, ...rest);
  answer(request, rest[0]);
  return true;
};
