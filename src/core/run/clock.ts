/**
 * How much time lies between two entries. A device's clock and the office's can each be set, forwards or back; what a page
 * counts by itself cannot. Where they disagree the record says so, and never more time is counted than can have passed.
 */
import type { EventBase } from './events';

/** Disagreement of clocks that is printed, ms. House figure. */
export const CLOCK_TOLERANCE_MS = 2_000;

/** Where an entry stands on each of the clocks. */
export interface ClockPoint {
  /** The device's own clock, ms UTC. */ readonly device: number;
  /** Server minus device as last measured. */ readonly offset: number;
  /** Ms since the page was loaded: a clock that nobody sets. */ readonly mono: number;
  readonly pageLoad: string;
  readonly by: string;
}
/** The point at which the gauge was read: so much before the entry, on every clock. @param readAt device clock, ms */
export const clockPoint = (
  event: Pick<EventBase, 'at' | 'offset' | 'mono' | 'pageLoad' | 'device'>,
  readAt = event.at,
): ClockPoint => ({
  device: readAt,
  offset: event.offset,
  mono: event.mono - (event.at - readAt),
  pageLoad: event.pageLoad,
  by: event.device,
});

export interface Elapsed {
  readonly ms: number;
  /** How far the clocks stood apart, ms; 0 while they agree. */
  readonly apart: number;
}
/**
 * Time from one point to another. Within one page load the page's own count stands wherever the clocks differ from it. Across
 * page loads of one device its clock and the office's must agree: the smaller counts, except that a clock set back below the
 * start measures nothing. From one device to another the office's line is all there is.
 */
export function elapsedBetween(from: ClockPoint, to: ClockPoint): Elapsed {
  const office = to.device + to.offset - (from.device + from.offset);
  const agree = (other: number): Elapsed | null =>
    Math.abs(other - office) <= CLOCK_TOLERANCE_MS ? { ms: office, apart: 0 } : null;
  if (from.pageLoad === to.pageLoad) {
    const counted = to.mono - from.mono;
    return agree(counted) ?? { ms: counted, apart: Math.abs(counted - office) };
  }
  if (from.by !== to.by) return { ms: office, apart: 0 };
  const own = to.device - from.device;
  const apart = Math.abs(own - office);
  return (
    agree(own) ?? { ms: Math.min(own, office) > 0 ? Math.min(own, office) : Math.max(own, office, 0), apart }
  );
}
/** What the record says of clocks that stood apart. */
export const clockWords = (apart: number): string =>
  `The clocks disagreed by ${(apart / 1000).toFixed(1)} s over this hold; no more than can have passed was counted.`;
