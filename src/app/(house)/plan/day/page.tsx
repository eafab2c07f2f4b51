import type { Metadata } from 'next';
import Link from 'next/link';
import { isDay } from '@/core/quantity/local-date';
import { listMembers } from '@/server/people/people';
import { requireSession } from '@/server/session/session';
import { viewerDay, viewerZone } from '@/server/session/zone';
import { daySheet } from '@/server/visits/sheet';
import { PrintButton } from '@/ui/plan/print-button';
import { DaySheet } from '@/ui/visit/day-sheet';
import { dayWords } from '@/ui/visit/times';

export const metadata: Metadata = { title: 'Day sheet' };
export default async function DayPage({
  searchParams,
}: {
  searchParams: Promise<{ day?: string; who?: string }>;
}) {
  const session = await requireSession();
  const asked = await searchParams;
  const day = asked.day && isDay(asked.day) ? asked.day : await viewerDay();
  const person = (await listMembers(session)).find((m) => m.id === asked.who);
  const sheet = await daySheet(session, day, person?.id ?? '', await viewerZone());
  return (
    <>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <p className="no-print text-sm">
            <Link prefetch={false} className="text-lake underline-offset-4 hover:underline" href="/plan">
              Plan
            </Link>
          </p>
          <h1 className="text-2xl font-bold">
            {dayWords(day)}
            {person && `, ${person.name}`}
          </h1>
          <p className="text-quiet">{session.organisation}</p>
        </div>
        <div className="no-print">
          <PrintButton>Print this day</PrintButton>
        </div>
      </div>
      <DaySheet sheet={sheet} />
    </>
  );
}
