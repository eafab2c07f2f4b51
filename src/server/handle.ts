import 'server-only';
import { ValidationError, type Schema } from 'yup';
import { PackError } from '@/core/pack/error';
import { PlanError } from '@/core/plan/plan';
import { SealError } from '@/core/record/record';
import { clockMoves, now } from '@/server/now';
import type { Action } from '@/wire/role';
import { demand } from '@/server/permission';
import { currentSession, type Session } from '@/server/session/session';
import { answersNow } from '@/database/client';
import { databaseTrouble, faultNumber } from '@/database/trouble';
import { TroubleError, valueRefused } from '@/server/trouble';
import { DATABASE_TROUBLE, faultOf } from '@/wire/database-trouble';
import { log } from './log';
import { depthOf, fromThisSite } from './request';

/** More than this no form has; routes that take more say so. */
export const MOST_JSON = 1_000_000;
/** Nothing that is sent here is nested deeper. */
const MOST_DEEP = 60;

/** JSON answer with the server's clock in a header, for the device's offset. */
export const answer = (value: unknown, status = 200, extra: Record<string, string> = {}): Response =>
  Response.json(value, {
    status,
    headers: {
      ...(clockMoves() ? {} : { 'x-server-time': String(now()) }),
      'cache-control': 'no-store',
      ...extra,
    },
  });

/** Turns anything thrown into an answer that says what to do; nothing of the inside leaks. */
export function troubleAnswer(error: unknown): Response {
  const { digest } = (error ?? {}) as { digest?: string };
  const id = (digest && faultOf(digest).number) || faultNumber();
  const say = (status: number, code: string, text: string, path?: string) =>
    answer({ error: { code, text, ...(path ? { path } : {}) } }, status, { 'x-request-id': id });
  if (error instanceof TroubleError) return say(error.status, error.code, error.message, error.path);
  if (error instanceof ValidationError)
    return say(422, 'invalid', `${error.path ? `${error.path}: ` : ''}${error.message}`, error.path);
  if (error instanceof PlanError) return say(422, error.code, error.message);
  if (error instanceof PackError)
    return say(422, 'pack', `${error.path ? `${error.path}: ` : ''}${error.message}`, error.path);
  if (error instanceof SealError) return say(409, error.code, error.message);
  const away = databaseTrouble(error, answersNow());
  if (away) {
    log.warn({ err: error, request: id }, away);
    return say(503, away, DATABASE_TROUBLE[away].done);
  }
  if (valueRefused(error))
    return say(
      422,
      'value',
      'Something in it cannot be a value here: a day, an id or a character. Look at what you typed or at the link, and try again.',
    );
  log.error({ err: error, request: id }, 'unexpected');
  return say(
    500,
    'unexpected',
    `Something went wrong on the server. Nothing you entered is lost; try again. If it goes on, tell whoever keeps the server this number: ${id}.`,
  );
}

/** Whoever sent is gone: that is no fault of this server, nor of its database. */
const brokenOff = (): never => {
  throw new TroubleError(400, 'broken-off', 'What was sent broke off on its way. Send it again.');
};
/**
 * The bytes of a request, up to a limit: what says that it is larger is not read, what turns out to be is left off there.
 * @throws TroubleError 413, and 400 where it breaks off
 */
export async function bytesOf(request: Request, most: number): Promise<Uint8Array<ArrayBuffer>> {
  const tooLarge = () =>
    new TroubleError(
      413,
      'too-large',
      `That is more than can be sent at once here: ${Math.floor(most / 1000)} kB at most. Nothing was kept.`,
    );
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge();
  const reader = request.body?.getReader();
  const pieces: Uint8Array[] = [];
  let length = 0;
  for (;;) {
    const piece = await reader?.read().catch(brokenOff);
    if (!piece || piece.done) break;
    length += piece.value.length;
    if (length > most) {
      await reader!.cancel().catch(() => undefined);
      throw tooLarge();
    }
    pieces.push(piece.value);
  }
  const whole = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

/** The parsed body of a request. @throws TroubleError, ValidationError */
export async function bodyOf<T>(request: Request, schema: Schema<T>, most = MOST_JSON): Promise<T> {
  const text = new TextDecoder().decode(await bytesOf(request, most));
  if (depthOf(text) > MOST_DEEP)
    throw new TroubleError(400, 'not-json', 'The request was not readable. Reload the page and try again.');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new TroubleError(400, 'not-json', 'The request was not readable. Reload the page and try again.');
  }
  try {
    return schema.validateSync(value, { strict: true });
  } catch (error) {
    // a rule of the whole met a part that is not there: its own field would have said so
    if (!(error instanceof TypeError)) throw error;
    throw new TroubleError(
      422,
      'invalid',
      'Something that belongs in it is missing or of the wrong kind. Reload the page and try again.',
    );
  }
}

/** Refuses requests that another site made a browser send. */
function sameOrigin(request: Request): void {
  const told = { origin: request.headers.get('origin'), site: request.headers.get('sec-fetch-site') };
  if (!fromThisSite(request.method, told, request.headers.get('host')))
    throw new TroubleError(403, 'other-site', 'This request came from another site and was refused.');
}

type Context<P> = { params: Promise<P> };
/** A route handler for anyone. */
export function open<P>(work: (request: Request, params: P) => Promise<Response>) {
  return async (request: Request, context: Context<P>): Promise<Response> => {
    try {
      sameOrigin(request);
      return await work(request, await context.params);
    } catch (error) {
      return troubleAnswer(error);
    }
  };
}
/** A route handler for a signed-in person who may do this by the table of roles. */
export function signedIn<P>(
  action: Action,
  work: (session: Session, request: Request, params: P) => Promise<Response>,
) {
  return open<P>(async (request, params) => {
    const session = await currentSession();
    if (!session)
      throw new TroubleError(
        401,
        'signed-out',
        'You are signed out. Sign in again; what you entered is kept on this device.',
      );
    demand(session, action);
    return work(session, request, params);
  });
}
