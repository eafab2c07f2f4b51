/** What could be behind a hold that moved: the trade's suspects, ordered by what the trace says of them and by what is looked at first. */
import { roleOf } from '@/core/roles';
import { tradeOf } from '@/core/trades';
import { type Suspect, suspectsOf } from '@/core/trades/suspects';
import type { Plan } from '@/core/plan/plan';
import type { Hold } from '@/core/run/state';
import type { Meaning } from './meaning';
import { LEAKS } from './section';

export interface Ranked extends Suspect {
  /** What the trace gives it, percent; null where there was no trace to ask. */
  readonly percent: number | null;
}
/** How the probability of a leak is shared between where it can be: always own kit first. House figures. */
const SHARE = { own: 0.45, exposed: 0.35, hidden: 0.2, other: 0 };

/**
 * Suspects of a hold, the likeliest first; among leaks own kit before what can be reached, that before what is hidden.
 * @param hold null where none could be made: it would not stand, or a fan blew
 * @param meaning what its trace meant; null where the readings were too few
 */
export function ranked(plan: Plan, hold: Hold | null, meaning: Meaning | null): Ranked[] {
  // what would not be held fell
  const direction = hold ? hold.judgement?.direction : 'fall';
  const flow = hold ? roleOf(hold.role).regulator === true : false;
  const fits = (s: Suspect) =>
    s.when === 'both' ||
    (s.when === 'flow' ? flow : s.when === 'rises' ? direction === 'rise' : direction !== 'rise');
  const probable = (causes: (cause: Meaning['causes'][number]['cause']) => boolean) =>
    (meaning?.enough ? meaning.causes : []).reduce((sum, c) => sum + (causes(c.cause) ? c.percent : 0), 0);
  const weight = (s: Suspect): number => {
    if (!meaning?.enough) return 0;
    if (!s.cause) return probable((c) => LEAKS.has(c)) * SHARE[s.where];
    return probable((c) => c === s.cause || c.split('+').includes(s.cause!));
  };
  const order = ['own', 'exposed', 'hidden', 'other'];
  return suspectsOf(tradeOf(plan.system).name)
    .filter(fits)
    .map((s, at) => ({ s, at, weight: weight(s) }))
    .sort((a, b) => b.weight - a.weight || order.indexOf(a.s.where) - order.indexOf(b.s.where) || a.at - b.at)
    .map(({ s, weight: w }) => ({ ...s, percent: meaning?.enough ? Math.round(w) : null }));
}
