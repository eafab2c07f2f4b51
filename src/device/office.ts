import type { Trouble } from '@/wire/requests';
import { learnOffset, now } from './clock';

/** The office's answer was a refusal: `status` 0 means that it could not be reached. */
export class OfficeError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    text: string,
    readonly path?: string,
  ) {
    super(text);
    this.name = 'OfficeError';
  }
}

const KEPT_ALIVE = 20_000; // characters, each at most three bytes

/** One request to the server; each answer also sets the clock. `keepalive`: it is sent to its end even when
 * the page is left meanwhile (where the body is small enough for it: browsers
 * allow 64 kB in all). @throws OfficeError */
export async function office<T>(
  path: string,
  options: { method?: string; body?: unknown; file?: Blob; signal?: AbortSignal; keepalive?: boolean } = {},
): Promise<T> {
  const sent = now();
  const body = options.body === undefined ? undefined : JSON.stringify(options.body);
  let response: Response;
  try {
    response = await fetch(path, {
      method: options.method ?? (options.body === undefined && !options.file ? 'GET' : 'POST'),
      ...(options.file ? { body: options.file } : {}),
      ...(body === undefined ? {} : { body, headers: { 'content-type': 'application/json' } }),
      signal: options.signal ?? AbortSignal.timeout(options.file ? 60_000 : 12_000),
      cache: 'no-store',
      ...(options.keepalive && (body?.length ?? 0) < KEPT_ALIVE ? { keepalive: true } : {}),
    });
  } catch {
    throw new OfficeError(
      0,
      'no-signal',
      'The office cannot be reached, so nothing was sent. What you typed still stands here: try again when there is a signal.',
    );
  }
  const server = Number(response.headers.get('x-server-time'));
  if (server) learnOffset(server, sent, now());
  const text = await response.text();
  let value: unknown;
  try {
    value = text ? JSON.parse(text) : null;
  } catch {
    throw new OfficeError(
      response.status || 500,
      'unreadable',
      'The server’s answer could not be read. Try again.',
    );
  }
  if (!response.ok) {
    const trouble = (value as Trouble | null)?.error;
    throw new OfficeError(
      response.status,
      trouble?.code ?? 'unexpected',
      trouble?.text ?? 'The server refused. Try again.',
      trouble?.path,
    );
  }
  return value as T;
}
