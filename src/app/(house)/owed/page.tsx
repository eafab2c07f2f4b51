import type { Metadata } from 'next';
import { listMembers } from '@/server/people/people';
import { readOwed } from '@/server/records/owed';
import { requireSession } from '@/server/session/session';
import { viewerDay } from '@/server/session/zone';
import { hrefOf } from '@/ui/owed/href-of';
import { OwedView } from '@/ui/owed/owed-view';
import { owedQueryFrom } from '@/wire/owed';

export const metadata: Metadata = { title: 'Owed' };
export default async function Owed({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const session = await requireSession();
  const query = owedQueryFrom(await searchParams);
  const day = await viewerDay();
  const [{ parts, all }, members] = await Promise.all([readOwed(session, query, day), listMembers(session)]);
  return (
    <OwedView
      // another list begins with nothing chosen
      key={JSON.stringify(query)}
      query={query}
      day={day}
      all={all}
      parts={parts.map((p) => ({
        ...p,
        lines: p.lines.map((l) => ({ ...l, late: l.due < day, href: hrefOf(l) })),
      }))}
      members={members}
    />
  );
}
