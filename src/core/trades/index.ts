/** Every trade there is. A new one adds its own. */
import type { System } from '@/core/installation/section';
import { drain } from './drain';
import { duct } from './duct';
import { gas } from './gas';
import { main } from './main';
import { pool } from './pool';
import { propane } from './propane';
import { refrigerant } from './refrigerant';
import type { Trade } from './trade';
import { water } from './water';

export type { Trade } from './trade';
export const TRADES: readonly Trade[] = [gas, propane, water, drain, main, pool, refrigerant, duct];
/** The trade of an installation: of those that carry its medium the one it serves. @throws RangeError where none knows it: a medium nobody entered as a trade */
export function tradeOf(system: Pick<System, 'medium' | 'duty'>): Trade {
  const carrying = TRADES.filter((t) => t.carries.includes(system.medium));
  const trade = carrying.find((t) => system.duty && system.duty in t.serves) ?? carrying[0];
  if (!trade) throw new RangeError(`No trade knows ${system.medium}.`);
  return trade;
}
/**
 * How the installations of a trade are told from those of others that carry the same: `tradeOf` as a list. `duties`: uses that are
 * its own; `not`: where it has those of which no more is said, the uses that are another's; null where it has them not.
 */
export function toldBy(trade: Trade): {
  readonly media: readonly string[];
  readonly duties: readonly string[];
  readonly not: readonly string[] | null;
} {
  const others = TRADES.filter((t) => t !== trade && t.carries.some((m) => trade.carries.includes(m)));
  const first = trade.carries.every((m) => tradeFor(m) === trade);
  return {
    media: trade.carries,
    duties: Object.keys(trade.serves),
    not: first ? others.flatMap((t) => Object.keys(t.serves)) : null,
  };
}
/** The trade of a medium as somebody typed it; undefined where none knows it. */
export const tradeFor = (medium: string): Trade | undefined => TRADES.find((t) => t.carries.includes(medium));
export const MEDIA: readonly string[] = [...new Set(TRADES.flatMap((t) => t.carries))];
/** What an installation with a medium can be there for, by key, with words. */
export const servedBy = (medium: string): Readonly<Record<string, string>> =>
  Object.fromEntries(
    TRADES.filter((t) => t.carries.includes(medium)).flatMap((t) => Object.entries(t.serves)),
  );
/** Every use an installation can have, of whichever medium. */
export const USES: readonly string[] = TRADES.flatMap((t) => Object.keys(t.serves));
/** What is said of the use of an installation, where its medium has that use. */
export const dutyFrom = (medium: string, duty: string): { readonly duty?: string } =>
  duty in servedBy(medium) ? { duty } : {};
