import type { Metadata } from 'next';
import { reduce } from '@/core/run/reduce';
import { wallGlyph } from '@/chart/wall';
import { dueWords } from '@/core/instrument/kit';
import { listKit } from '@/server/cabinet/cabinet';
import { listVisits } from '@/server/visits/visits';
import { cabinet } from '@/server/places/places';
import { openFollowUps } from '@/server/records/follow-ups';
import { ledger, openRuns } from '@/server/records/records';
import { now } from '@/server/now';
import { readWatches } from '@/server/watches/watches';
import { watchWords } from '@/ui/watch/words';
import { requireSession } from '@/server/session/session';
import { TodayView, type RunningRun } from '@/ui/today/today';
import { runningSummary } from '@/ui/today/summary';

export const metadata: Metadata = { title: 'Today' };
export default async function Today() {
  const session = await requireSession();
  const day = new Date(now()).toISOString().slice(0, 10);
  const [owed, open, gauges, kit, visits, sealed, watches] = await Promise.all([
    openFollowUps(session),
    openRuns(session),
    cabinet(session),
    listKit(session),
    listVisits(session, day),
    ledger(session, ''),
    readWatches(session),
  ]);
  const at = now();
  const runs: RunningRun[] = open.map(({ plan, events }) => {
    const state = reduce(plan, events);
    return { ...runningSummary(plan, state), glyph: wallGlyph(plan, state, at) };
  });
  const watching = watches
    .filter((w) => w.state.word !== 'ended')
    .map((w) => ({
      id: w.id,
      title: `${w.facts.place.site}: ${w.facts.place.system}`,
      words: watchWords(w.state, w.facts.zone),
      lost: w.state.word === 'lost',
      stale: at - (w.state.readings[w.state.readings.length - 1]?.at ?? w.facts.startedAt) > 3 * 86_400_000,
    }));
  const soon = new Date(at + 60 * 86400_000).toISOString().slice(0, 10);
  const due = [
    ...owed.map((f) => ({
      key: f.id,
      text: f.text,
      place: f.place,
      href: `/ledger/${f.run}`,
      close: f.kind === 'report' ? f.id : null,
      when: f.due,
      late: f.due < day,
    })),
    ...watches
      .filter((w) => w.state.word !== 'ended' && w.facts.until < soon)
      .map((w) => ({
        key: w.id,
        text: 'The watch: is it over?',
        place: `${w.facts.place.site}: ${w.facts.place.system}`,
        href: `/watches/${w.id}`,
        when: w.facts.until,
        late: w.facts.until < day,
      })),
    ...gauges
      .filter((g) => g.calibrationDue < soon && !g.withdrawn)
      .map((g) => ({
        key: g.id,
        text: `Calibration of ${g.name} (${g.serial})`,
        when: g.calibrationDue,
        late: g.calibrationDue < day,
      })),
    ...kit
      .filter((k) => k.due && k.due < soon && !k.withdrawn)
      .map((k) => ({ key: k.id, text: `${dueWords(k.kind)}: ${k.name}`, when: k.due, late: k.due < day })),
    ...(session.licence && session.licence.until < soon
      ? [
          {
            key: 'licence',
            text: `Your licence ${session.licence.number}`,
            when: session.licence.until,
            late: session.licence.until < day,
          },
        ]
      : []),
  ].sort((a, b) => a.when.localeCompare(b.when));
  return (
    <TodayView
      name={session.name}
      runs={runs}
      visits={visits.slice(0, 3)}
      day={day}
      due={due}
      watches={watching}
      recent={sealed.slice(0, 5)}
      serverNow={at}
    />
  );
}
