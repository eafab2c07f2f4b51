/** Every trade there is. A new one adds its own. */
import type { System } from '@/core/installation/section';
import { drain } from './drain';
import { gas } from './gas';
import { main } from './main';
import { propane } from './propane';
import type { Trade } from './trade';
import { water } from './water';

export type { Trade } from './trade';
export const TRADES: readonly Trade[] = [gas, propane, water, drain, main];
/** The trade of an installation. @throws RangeError where none knows it: a medium nobody entered as a trade */
export function tradeOf(system: Pick<System, 'medium' | 'duty'>): Trade {
  const trade = TRADES.find((t) => t.has(system));
  if (!trade) throw new RangeError(`No trade knows ${system.medium}.`);
  return trade;
}
/** The trade of a medium as somebody typed it; undefined where none knows it. */
export const tradeFor = (medium: string): Trade | undefined =>
  TRADES.find((t) => t.has({ medium: medium as System['medium'] }));
