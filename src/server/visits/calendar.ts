import 'server-only';
import { createEvents, type EventAttributes } from 'ics';
import { currentPlan } from '@/core/visit/current';
import { TroubleError } from '@/server/trouble';
import { visitNow } from '@/wire/visit-now';
import { visitStart } from '@/wire/visit-time';
import { readVisit } from './visits';

/** A visit as a calendar file. Times are UTC, so that every calendar shows them in its own zone. */
export async function visitCalendar(
  scope: { org: string },
  id: string,
): Promise<{ name: string; text: string }> {
  const view = await readVisit(scope, id);
  const { facts } = view;
  const begin = visitStart(facts);
  const { promise, now } = visitNow(view, begin);
  const plan = currentPlan(facts, promise, now);
  const moment = (minutes: number): EventAttributes['start'] => {
    const d = new Date(begin + Math.round(minutes) * 60_000);
    return [d.getUTCFullYear(), d.getUTCMonth() + 1, d.getUTCDate(), d.getUTCHours(), d.getUTCMinutes()];
  };
  const utc = {
    startInputType: 'utc',
    startOutputType: 'utc',
    endInputType: 'utc',
    endOutputType: 'utc',
  } as const;
  const sites = [...new Set(facts.tests.map((t) => t.siteName))].join(', ');
  const whole: EventAttributes = {
    ...utc,
    uid: `${facts.id}@vast-stone`,
    title: facts.title,
    description: [
      ...facts.tests.map((t) => `${t.siteName}: ${t.title}${t.gaugeName ? `, gauge ${t.gaugeName}` : ''}`),
      ...(facts.present.length ? [`Present: ${facts.present.join(', ')}`] : []),
      ...(facts.permit ? [`Permit ${facts.permit}`] : []),
    ].join('\n'),
    location: sites,
    start: moment(0),
    end: moment(Math.max(5, plan.length)),
  };
  const holds = facts.tasks.flatMap((t): EventAttributes[] => {
    const slot = plan.slots.find((s) => s.task === t.id);
    if (!slot || t.wait <= 0) return [];
    return [
      {
        ...utc,
        uid: `${facts.id}-${t.id}@vast-stone`,
        title: `${t.title}: read the gauge at the end`,
        start: moment(slot.handsEnd),
        end: moment(Math.max(slot.end, slot.handsEnd + 1)),
        // two minutes before the wait is over, wherever the calendar is
        alarms: [
          {
            action: 'display',
            description: `${t.title}: back to the gauge`,
            trigger: moment(Math.max(slot.handsEnd, slot.closeStart - 2)),
          },
        ],
      },
    ];
  });
  const { error, value } = createEvents([whole, ...holds]);
  if (error || !value)
    throw new TroubleError(
      500,
      'calendar',
      'The calendar file could not be made. Check the day and the start time of the visit.',
    );
  return {
    name: `${facts.title.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.ics`.replace(/[^\x20-\x7e]/g, ''),
    text: value,
  };
}
