/** What is known of a section and a gauge before a reading is looked at: the facts that an analysis starts from. */
import { convert, type Unit, UNITS } from '@/core/quantity/unit';

/** Pa, or m of a level: what an analysis reckons in. */
export const reckoned = (unit: Unit): Unit =>
  UNITS[unit].dimension === 'length' ? 'm' : UNITS[unit].dimension === 'absolute' ? 'Pa(abs)' : 'Pa';
/** How many of those one of a gauge's unit is; a difference, so that no zero counts. */
export const perUnit = (unit: Unit): number => convert(1, unit, reckoned(unit));

export interface Sample {
  /** ms */ readonly t: number;
  /** What was displayed: Pa or m where an analysis reckons, otherwise the gauge's unit. */ readonly p: number;
}
export interface Warmth {
  /** seconds from the first reading */ readonly t: number;
  /** degrees above the first entry, K */ readonly k: number;
}
export interface SectionFacts {
  /** What stands in it, by how its pressure moves. A level is in m, everything else in Pa. */
  readonly filling: 'gas' | 'liquid' | 'level' | 'vacuum';
  /** Gauge pressure when the trace begins, Pa; of a vacuum absolute; of a level 0. */
  readonly pressure: number;
  readonly atmosphere: number;
  /** What one Pa takes, m3 (gas at atmospheric conditions; water); of a level m3 for one m. */
  readonly give: number;
  /** Relative standard uncertainty of it. */
  readonly giveUncertainty: number;
  /** What one kelvin does, Pa; 0 where warmth does nothing. */
  readonly perKelvin: number;
  /** Standard uncertainty of the temperature nobody read: K a minute, and at most so many over the whole. */
  readonly drift: { readonly perMinute: number; readonly most: number };
  /** Walls that stretch. */
  readonly stretches: boolean;
  /** Pressure behind a closed valve, Pa gauge; null where nothing stands behind one. */
  readonly supply: number | null;
  /** The leak that matters, m3/s as the rate of this section is told. */
  readonly matters: number;
  /** The gauge's display step and the smallest movement that counts, in the unit of the readings. */
  readonly step: number;
  readonly perceptible: number;
  /** Temperatures that were read, ascending; fewer than two: none. */
  readonly warmth: readonly Warmth[];
  /** Standard uncertainty of the thermometer's difference, K. */
  readonly thermometer: number;
}
/** What moved the gauge, or did not. */
export type Cause =
  | 'steady'
  | 'leak'
  | 'temperature'
  | 'temperature+leak'
  | 'stretch'
  | 'stretch+leak'
  | 'let-by'
  | 'let-by+leak'
  | 'air'
  | 'step'
  | 'stuck'
  | 'moisture'
  | 'moisture+leak';
/** Causes in which the section loses what it holds, or a vacuum lets in. */
export const LEAKS: ReadonlySet<Cause> = new Set([
  'leak',
  'temperature+leak',
  'stretch+leak',
  'let-by+leak',
  'moisture+leak',
]);
/** What nobody read of the warmth over so long, K. @param seconds from the last time that anybody did */
export const unread = ({ drift }: SectionFacts, seconds: number): number =>
  Math.min(drift.most, (drift.perMinute * seconds) / 60);
/** Warmth at a moment: straight from one entry to the next, and as the nearest one says before and after all of them. */
export function warmthAt(list: readonly Warmth[], t: number): number {
  const after = list.findIndex((w) => w.t >= t);
  if (after <= 0) return list[after === 0 ? 0 : list.length - 1]!.k;
  const [a, b] = [list[after - 1]!, list[after]!];
  return a.k + ((b.k - a.k) * (t - a.t)) / (b.t - a.t || 1);
}
