/** A practice taken up again from the moment at which it went wrong: what came before it is kept, what came after is not. */
import { momentOf, type PlacedEvent } from '@/core/run/events';
import type { YardAct } from './acts';
import type { Session } from './session';

/** So long before that moment it is taken up, so that there is time to do otherwise, ms. House figure. */
const BEFORE = 5_000;
/** What belongs to the end of a practice, or to its clock: it does not come along. */
const LEFT: readonly YardAct['kind'][] = ['concluded', 'halted', 'signed', 'paused', 'passed'];
export interface Prefix {
  readonly events: readonly PlacedEvent[];
  readonly acts: readonly YardAct[];
  /** The moment on its line at which it goes on, ms. */ readonly at: number;
}
/** @param wrong ms, the moment at which it went wrong */
export function prefixOf(s: Pick<Session, 'plan' | 'events' | 'acts'>, wrong: number): Prefix {
  const began = Date.parse(s.plan.made.at);
  const events = s.events.filter((e) => momentOf(e) < wrong);
  const acts = s.acts.filter((a) => a.at < wrong && !LEFT.includes(a.kind));
  const last = Math.max(began, ...events.map(momentOf), ...acts.map((a) => a.at));
  return { events, acts, at: Math.max(last + 1, wrong - BEFORE) };
}
/** The same words with other ids in them. @param ids by those that stand there */
export const renamed = <T>(value: T, ids: ReadonlyMap<string, string>): T =>
  JSON.parse(JSON.stringify(value), (_key, v: unknown) =>
    typeof v === 'string' ? (ids.get(v) ?? v) : v,
  ) as T;
