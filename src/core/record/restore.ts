import type { Plan } from '@/core/plan/plan';
import type { PlacedEvent } from '@/core/run/events';
import type { RecordBody } from './record';

/** Fields that are floats in memory and decimal strings in a sealed body. */
const NUMERIC =
  /^(minutes|settleMinutes|lateAfter|perMinute|shortHoldMinutes|shortHoldMost|most|rule|house|rhythm|barometerOver)$/;

/**
 * Brings a parsed sealed body back to the shapes the core works on: sealed bodies hold no fractional numbers, so the
 * pack's few (0.05 K per minute) come back from their decimal strings.
 */
export function restoreBody(
  text: string,
): Omit<RecordBody, 'plan' | 'events'> & { readonly plan: Plan; readonly events: readonly PlacedEvent[] } {
  return JSON.parse(text, function (this: object, key, value) {
    if (!NUMERIC.test(key) || typeof value !== 'string' || !/^-?\d+(\.\d+)?$/.test(value)) return value;
    // the arguments of a named formula stay text; one of them is called "most" like a figure of the temperatures
    if (key === 'most' && !('perMinute' in this)) return value;
    return Number(value);
  });
}
