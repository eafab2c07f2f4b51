import type { Metadata } from 'next';
import { wallGlyph } from '@/chart/wall';
import { listVisits } from '@/server/visits/visits';
import { openFollowUps } from '@/server/records/follow-ups';
import { newestRecords } from '@/server/records/ledger';
import { openRuns } from '@/server/records/records';
import { listMembers } from '@/server/people/people';
import { now } from '@/server/now';
import { testNowFor } from '@/server/places/test-now';
import { keepAnchored } from '@/server/sealing/anchors';
import { readWatches } from '@/server/watches/watches';
import { watchWords } from '@/ui/watch/words';
import { lastTested } from '@/server/runs/last-test';
import { viewerDay, viewerZone } from '@/server/session/zone';
import { requireSession } from '@/server/session/session';
import { hrefOf } from '@/ui/owed/href-of';
import { TodayView, type RunningRun } from '@/ui/today/today';
import { runningSummary, unreadableSummary } from '@/ui/today/summary';
import { UNREADABLE } from '@/server/runs/standing';

export const metadata: Metadata = { title: 'Today' };
/** So many open runs stand there at once; the others by one tap. */
const MOST_OPEN = 30;
/** The most urgent of what is owed; all of it has a page of its own. */
const MOST_OWED = 30;
export default async function Today({ searchParams }: { searchParams: Promise<{ open?: string }> }) {
  const session = await requireSession();
  const day = await viewerDay();
  // the last day's anchor is made, and sent, with the first look at a new one; that it cannot be made is no reason not to look
  await keepAnchored(session).catch(() => undefined);
  const [owed, open, members, visits, sealed, watches, tested] = await Promise.all([
    openFollowUps(session, { most: MOST_OWED }),
    openRuns(session, (await searchParams).open === 'all' ? undefined : MOST_OPEN),
    listMembers(session),
    listVisits(session, day),
    newestRecords(session, 5),
    readWatches(session),
    lastTested(session, 4, await viewerZone()),
  ]);
  const at = now();
  // a house in which nothing was ever tested: its first screen is where a test begins
  const nothingYet = !tested.length && !open.all && !sealed.length && !visits.length;
  const runs: RunningRun[] = open.runs.map(({ plan, state }) => {
    return state
      ? { ...runningSummary(plan, state), glyph: wallGlyph(plan, state, at) }
      : { ...unreadableSummary(plan, UNREADABLE), glyph: [] };
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
  const due = owed.map((f) => ({
    id: f.id,
    kind: f.kind,
    text: f.text,
    place: f.place,
    due: f.due,
    late: f.due < day,
    owner: f.owner,
    closes: f.closes,
    href: hrefOf(f),
  }));
  return (
    <TodayView
      name={session.name}
      runs={runs}
      more={open.all - runs.length}
      visits={visits.slice(0, 3)}
      day={day}
      due={due}
      members={members}
      person={session.person}
      watches={watching}
      recent={sealed}
      tested={tested}
      first={nothingYet ? await testNowFor(session) : null}
      serverNow={at}
    />
  );
}
