/**
 * An early warning while a hold runs: where the limit will be broken with more than 99 %. What is looked at often is wrong more
 * often; but the probability of the good end, given all readings so far, is on average never other than it was before them
 * (a martingale), so that it falls to one in a thousand for at most one good hold in a thousand, however often it is looked at
 * (Ville's inequality). The bound is therefore set at one in a thousand. Never an early good end.
 */
import { ahead, type Analysis } from './analyse';
import type { Cause } from './section';

/** A good end is called lost below this probability. */
export const LOST = 0.001;
/** A warning names a cause from so much on: it is read in a hurry. House figure. */
const NAMED = 0.99;
/** Before so much of the hold has passed nothing is said, and not by fewer readings. House figures. */
const EARLIEST = { part: 0.1, readings: 8 };

export interface Warning {
  readonly way: 'falls' | 'rises';
  /** What stands out as its cause; null: cannot tell. */
  readonly cause: Cause | null;
}
/** Displays that break the limit, in the unit of the facts: at or below `low`, at or above `high`; null: no limit that way. */
export interface Limits {
  readonly low: number | null;
  readonly high: number | null;
}
/** @param begin, end of the hold, ms  @param at ms of the newest reading  @returns null where nothing is certain enough */
export function earlyWarning(
  a: Analysis,
  limits: Limits,
  begin: number,
  end: number,
  at: number,
): Warning | null {
  if (at < begin + EARLIEST.part * (end - begin) || a.readings.t.length < EARLIEST.readings || at >= end)
    return null;
  const there = ahead(a, end);
  const first = a.causes[0]!;
  const cause = first.probability >= NAMED ? first.cause : null;
  const { step } = a.readings;
  // the end's display is a whole step: it breaks the limit when what stands behind it rounds to it
  if (limits.low !== null && there.below(limits.low + step / 2) > 1 - LOST) return { way: 'falls', cause };
  if (limits.high !== null && there.below(limits.high - step / 2) < LOST) return { way: 'rises', cause };
  return null;
}
