import { requireSession } from '@/server/session/session';
import { ShownRoom } from '@/ui/yard/shown-room';
import { YardHead } from '@/ui/yard/yard-head';
import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Why it is so' };
export default async function ShownPage() {
  const session = await requireSession();
  return (
    <>
      <YardHead at="shown" role={session.role}>
        Four things the trade rests on, reckoned by what bench and Desk reckon with. Slide, and see what
        moves.
      </YardHead>
      <ShownRoom />
    </>
  );
}
