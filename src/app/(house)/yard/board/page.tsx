import { demand } from '@/server/permission';
import { requireSession } from '@/server/session/session';
import { viewerDay, viewerZone } from '@/server/session/zone';
import { faultsByScenario, scenarioCards } from '@/server/yard/scenarios';
import { board } from '@/server/yard/training';
import { BoardView } from '@/ui/yard/board';
import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Training' };
export default async function BoardPage() {
  const session = await requireSession();
  demand(session, 'seal');
  const [known, { cards }, faults, zone, day] = await Promise.all([
    board(session),
    scenarioCards(session),
    faultsByScenario(session),
    viewerZone(),
    viewerDay(),
  ]);
  return (
    <>
      <h1 className="text-2xl font-bold">Training</h1>
      <BoardView board={known} cards={cards} faults={faults} zone={zone} today={day} />
    </>
  );
}
