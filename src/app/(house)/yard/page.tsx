import { dueNow, progressOf, scenarioOfDay } from '@/core/yard/progress';
import { localDate } from '@/core/quantity/local-date';
import { now } from '@/server/now';
import { requireSession } from '@/server/session/session';
import { viewerZone } from '@/server/session/zone';
import { scenarioCards } from '@/server/yard/scenarios';
import { tasksOf } from '@/server/yard/training';
import { YardHead } from '@/ui/yard/yard-head';
import { YardList } from '@/ui/yard/yard-list';
import { may } from '@/wire/role';
import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Yard' };
const DAY_MS = 86_400_000;
export default async function YardPage() {
  const session = await requireSession();
  const [{ cards, results }, zone, tasks] = await Promise.all([
    scenarioCards(session),
    viewerZone(),
    tasksOf(session, session.person),
  ]);
  const at = now();
  const progress = progressOf(results);
  const due = new Set(dueNow(progress, at));
  const day = Math.floor(Date.parse(`${localDate(at, zone)}T00:00:00Z`) / DAY_MS);
  return (
    <>
      <YardHead at="yard" role={session.role}>
        Practice on simulated installations with something hidden in them. The same bench as on site; nothing
        here ever becomes a certificate.
      </YardHead>
      <YardList
        cards={cards}
        tasks={tasks}
        me={may(session.role, 'run') ? session.person : ''}
        today={scenarioOfDay(cards, progress, day)?.id ?? null}
        traps={progress.map((p) => ({
          trap: p.trap,
          met: p.met,
          mastered: p.mastered,
          due: p.due !== null && due.has(p.trap),
        }))}
      />
    </>
  );
}
