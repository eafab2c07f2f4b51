/** The office's own proof of what it gave a device: what comes back with it is what went out, and when. */
import 'server-only';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { canonical } from '@/core/record/canonical';
import { now } from '@/server/now';
import type { Given } from '@/wire/carried';

/** What may be given: a proof of one thing is none of another. */
type What = 'system' | 'cabinet';

const proofOf = (org: string, what: What, at: number, value: unknown): string =>
  createHmac('sha256', process.env.VAST_SECRET ?? '')
    .update(`carried ${what}\0${org}\0${at}\0${canonical(value)}`)
    .digest('base64url');
export function give<T>(org: string, what: What, value: T): Given<T> {
  const at = now();
  return { value, at, proof: proofOf(org, what, at, value) };
}
/** Whether a value is what this office gave this organisation then. */
export function isGiven(org: string, what: What, { value, at, proof }: Given<unknown>): boolean {
  let own: Buffer;
  try {
    own = Buffer.from(proofOf(org, what, at, value));
  } catch {
    return false; // a number that no office gives
  }
  const told = Buffer.from(proof);
  return told.length === own.length && timingSafeEqual(told, own);
}
