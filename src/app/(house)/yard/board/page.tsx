import { requireSession } from '@/server/session/session';
import { viewerDay, viewerZone } from '@/server/session/zone';
import { faultsByScenario, scenarioCards } from '@/server/yard/scenarios';
import { board } from '@/server/yard/training';
import { BoardView } from '@/ui/yard/board';
import { YardHead } from '@/ui/yard/yard-head';
import { may } from '@/wire/role';
import type { Metadata } from 'next';
import { notFound } from 'next/navigation';

export const metadata: Metadata = { title: 'Training' };
export default async function BoardPage() {
  const session = await requireSession();
  if (!may(session.role, 'seal')) notFound();
  const [known, { cards }, faults, zone, day] = await Promise.all([
    board(session),
    scenarioCards(session),
    faultsByScenario(session),
    viewerZone(),
    viewerDay(),
  ]);
  return (
    <>
      <YardHead at="board" role={session.role}>
        Who practises and how far they came, what is set, and what goes on now.
      </YardHead>
      <BoardView board={known} cards={cards} faults={faults} zone={zone} today={day} />
    </>
  );
}
