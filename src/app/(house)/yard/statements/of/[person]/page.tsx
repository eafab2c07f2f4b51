import { found } from '@/app/(house)/found';
import { requireSession } from '@/server/session/session';
import { viewerZone } from '@/server/session/zone';
import { statementsOf } from '@/server/yard/statements';
import { NewStatement } from '@/ui/yard/new-statement';
import { moment } from '@/ui/kit/words';
import type { Metadata } from 'next';
import Link from 'next/link';

export const metadata: Metadata = { title: 'Statements of practice' };
export default async function StatementsPage({ params }: { params: Promise<{ person: string }> }) {
  const session = await requireSession();
  const { person } = await params;
  const [list, zone] = await Promise.all([found(statementsOf(session, person)), viewerZone()]);
  return (
    <>
      <p className="text-sm text-quiet">
        <Link prefetch={false} href="/yard" className="text-lake underline">
          Yard
        </Link>
      </p>
      <h1 className="text-2xl font-bold">Statements of practice</h1>
      <p className="max-w-prose text-quiet">
        What was practised up to a day, numbered in a series of its own. It is no certificate, and says so.
      </p>
      <NewStatement person={person} />
      {!list.length && <p className="mt-4 text-quiet">None was made yet.</p>}
      <ul className="mt-4 max-w-3xl">
        {list.map((x) => (
          <li key={x.id} className="border-b border-seam py-2">
            <Link prefetch={false} href={`/yard/statements/${x.id}`} className="font-semibold underline">
              {x.number}
            </Link>
            , {x.body.name}: {x.body.traps.filter((t) => t.mastered).length} traps mastered of{' '}
            {x.body.traps.length} met; made by {x.body.by}, {moment(x.made, zone)}
          </li>
        ))}
      </ul>
    </>
  );
}
