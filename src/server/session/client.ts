import 'server-only';

/**
 * The network address a request came from, as the server itself saw it: the start script notes it on each request
 * (scripts/at-the-door.cjs) over whatever a client says of itself. '' where the server was started without it.
 */
export const clientOf = (request: Request): string =>
  process.env.VAST_CLIENT_ADDRESS === '1' ? (request.headers.get('x-vast-client') ?? '').slice(0, 60) : '';
