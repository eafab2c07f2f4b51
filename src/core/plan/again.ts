/** The last test of a place once more: what of it still holds stands ready; what would permit more is asked afresh. */
import { calibrationHolds, type Gauge } from '@/core/instrument/gauge';
import type { Offer } from './offer';

/** The newest test of an installation, as it was begun. */
export interface LastTest {
  readonly pack: string;
  readonly procedure: string;
  readonly case: string;
  readonly choices: Readonly<Record<string, string>>;
  readonly section: string | null;
  /** ISO date, where the viewer is. */
  readonly on: string;
  /** The gauge that judged; null: none was chosen. */
  readonly gauge: string | null;
}
export interface Again {
  readonly offer: Offer;
  readonly case: Offer['cases'][number];
  readonly choices: Readonly<Record<string, string>>;
  readonly section: string | null;
  readonly gauge: { readonly id: string; readonly name: string } | null;
  /** The case permits more than another would: whether it still is one is asked, never carried. */
  readonly asks: boolean;
  /** ISO date of the last time, where the viewer is. */
  readonly on: string;
}

/**
 * What can be begun again with one press. What is no longer offered is not; answers a school no longer has fall back to its usual
 * ones; a gauge out of date, or gone, is left to be chosen.
 * @param day ISO date  @param sections keys that can be tested now, where the place has several
 */
export function againOf(
  last: LastTest | null,
  offers: readonly Offer[],
  gauges: readonly Gauge[],
  day: string,
  sections: readonly string[],
): Again | null {
  const offer = last && offers.find((o) => o.pack === last.pack && o.id === last.procedure);
  const one = offer?.cases.find((c) => c.key === last!.case);
  if (!offer || !one) return null;
  if (offer.oneSection && !(last.section && sections.includes(last.section))) return null;
  const gauge = gauges.find((g) => g.id === last.gauge && calibrationHolds(g, day));
  return {
    offer,
    case: one,
    choices: Object.fromEntries(
      offer.choices.flatMap((c) => {
        const key = last.choices[c.key];
        return key !== undefined && c.options.some((o) => o.key === key) ? [[c.key, key]] : [];
      }),
    ),
    section: offer.oneSection ? last.section : null,
    gauge: gauge ? { id: gauge.id, name: gauge.name } : null,
    asks: one.permits,
    on: last.on,
  };
}
