import { FOLLOW_UPS } from '@/core/after/follow-ups';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { createEvents, type EventAttributes } from 'ics';
import 'server-only';
import { openFollowUps } from './follow-ups';

/**
 * What is due as a calendar file: whole days, each under an id of its own, so that a calendar that takes the file again
 * changes them instead of doubling them. @param mine only what this person sees to
 */
export async function followUpCalendar(session: Session, mine: boolean): Promise<string> {
  const due = await openFollowUps(session, { person: mine ? session.person : undefined });
  const events = due.map((f): EventAttributes => {
    const [y, m, d] = f.due.split('-').map(Number) as [number, number, number];
    const next = new Date(Date.UTC(y, m - 1, d + 1));
    return {
      uid: `${f.id}@vast-stone`,
      title: `${FOLLOW_UPS[f.kind].words}: ${f.place || f.text}`,
      description: [f.text, f.ownerName ? `Seen to by ${f.ownerName}` : 'Nobody sees to it yet'].join('\n'),
      location: f.place,
      start: [y, m, d],
      end: [next.getUTCFullYear(), next.getUTCMonth() + 1, next.getUTCDate()],
    };
  });
  const { error, value } = createEvents(events, { calName: `Due: ${session.organisation}` });
  if (error || typeof value !== 'string')
    throw new TroubleError(
      500,
      'calendar',
      'The calendar file could not be made. Check the days of what is due.',
    );
  return value;
}
