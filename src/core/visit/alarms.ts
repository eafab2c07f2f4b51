/** When a visit rings for those who go: in time to set out, and when it begins. */
import type { Alarm } from '@/core/run/alarms';
import type { VisitFacts } from './facts';

/** Minutes before a visit begins; 0 is its begin. House figures. */
const BEFORE = [30, 0] as const;

/**
 * The alarms of a visit, also those that are past; none once a test of it has begun.
 * @param start when it begins, ms
 */
export function visitAlarms(
  visit: Pick<VisitFacts, 'id' | 'title' | 'start' | 'tests'>,
  start: number,
): Alarm[] {
  if (visit.tests.some((t) => t.run)) return [];
  return BEFORE.map((m) => ({
    // another time is another alarm
    tag: `visit:${visit.id}:${start}:${m}`,
    at: start - m * 60_000,
    text: m ? `${visit.title}: begins in ${m} minutes, at ${visit.start}.` : `${visit.title}: begins now.`,
  }));
}
/** Whether a visit is a person's: they planned it, or are named as present. */
export const goesTo = (visit: Pick<VisitFacts, 'present'>, plannedBy: string, person: string): boolean =>
  [plannedBy, ...visit.present].some((name) => name.trim().toLowerCase() === person.trim().toLowerCase());
