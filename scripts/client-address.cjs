// Loaded before the web server: writes on each request from where it really came. What a client claims is overwritten.
// Behind a proxy of one's own (VAST_PROXY=1) the last address of x-forwarded-for counts: the one the proxy added.
const http = require('node:http');

process.env.VAST_CLIENT_ADDRESS = '1';
const emit = http.Server.prototype.emit;
http.Server.prototype.emit = function (name, request, ...rest) {
  if (name === 'request' && request?.headers) {
    const forwarded = process.env.VAST_PROXY === '1' ? request.headers['x-forwarded-for'] : undefined;
    const last = String(forwarded ?? '')
      .split(',')
      .pop()
      .trim();
    request.headers['x-vast-client'] = last || request.socket?.remoteAddress || '';
  }
  return emit.call(this, name, request, ...rest);
};
