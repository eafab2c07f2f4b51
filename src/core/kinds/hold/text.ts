import { duration } from '@/core/quantity/duration';
import { showChange, showExact } from '@/core/quantity/exact';
import type { Hold } from '@/core/run/state';

/** A hold with its figures, as it ended. */
export function holdText(hold: Hold): string {
  if (hold.broken) return `void: ${hold.broken.reason}`;
  if (!hold.judgement || !hold.end) return 'not ended';
  const tops = hold.topUps.length
    ? `; ${hold.topUps.length} re-adjustment${hold.topUps.length > 1 ? 's' : ''}`
    : '';
  const added = hold.judgement.makeUp ? `; ${showExact(hold.judgement.makeUp.added)} added` : '';
  const short = hold.short ? `; ended before the planned ${hold.minutes} min: ${hold.short}` : '';
  return `${showExact(hold.start.figure)} to ${showExact(hold.end.figure)} (${showChange(hold.judgement.change)}) in ${duration(hold.judgement.elapsedMs)}${tops}${added}${short}`;
}
