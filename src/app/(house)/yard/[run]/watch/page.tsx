import { found } from '@/app/(house)/found';
import { requireSession } from '@/server/session/session';
import { watched } from '@/server/yard/training';
import { WatchRun } from '@/ui/yard/watch-run';
import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Looking on' };
export default async function WatchPage({ params }: { params: Promise<{ run: string }> }) {
  const session = await requireSession();
  const { run } = await params;
  const first = await found(watched(session, run));
  return (
    <>
      <h1 className="text-2xl font-bold">Looking on: {first.name}</h1>
      <WatchRun run={run} first={first} />
    </>
  );
}
