import type { Metadata } from 'next';
import Link from 'next/link';
import { viewerDay, viewerZone } from '@/server/session/zone';
import { readDays } from '@/server/visits/days';
import { Days } from '@/ui/visit/days';
import { addDays, isDay } from '@/core/quantity/local-date';
import { requireSession } from '@/server/session/session';
import { listVisits } from '@/server/visits/visits';
import { buttonClass } from '@/ui/kit/button-class';
import { NewVisitForm } from '@/ui/visit/new-visit';
import { dayWords } from '@/ui/visit/times';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Plan' };
/** The Monday of a day's week. */
const monday = (day: string): string => addDays(day, -((new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7));
export default async function PlanHome({ searchParams }: { searchParams: Promise<{ from?: string }> }) {
  const session = await requireSession();
  const today = await viewerDay();
  const { from: asked } = await searchParams;
  const from = monday(asked && isDay(asked) ? asked : today);
  const { things, due } = await readDays(session, from, await viewerZone());
  const before = addDays(today, -14);
  const all = await listVisits(session, before);
  const coming = all.filter((v) => v.day >= today);
  const past = all.filter((v) => v.day < today).reverse();
  const list = (visits: typeof all) => (
    <ul className="mt-2 border-t border-seam">
      {visits.map((v) => (
        <li key={v.id} className="border-b border-seam">
          <Link
            prefetch={false}
            href={`/plan/${v.id}`}
            className="grid min-h-16 gap-x-6 py-3 hover:text-lake sm:grid-cols-[11rem_1fr_auto]"
          >
            <span>
              {dayWords(v.day)}
              <span className="figure-narrow block text-sm text-quiet">{v.start}</span>
            </span>
            <span>
              <span className="block font-semibold">{v.title}</span>
              <span className="block text-sm text-quiet">{v.tests.join('; ') || 'no test on it yet'}</span>
            </span>
            <span className="font-semibold text-lake">Open</span>
          </Link>
        </li>
      ))}
    </ul>
  );
  return (
    <>
      <h1 className="text-2xl font-bold">Plan</h1>
      <p className="mt-1 max-w-2xl">
        A test is planned from its system: pressure, hold, gauge, kit. A visit lays the tests of a day side by
        side.
      </p>
      <Days from={from} today={today} things={things} due={due} />
      <div className="mt-8 grid gap-8 lg:grid-cols-[1fr_20rem]">
        <div>
          <h2 className="text-lg font-semibold">Visits to come</h2>
          {coming.length ? list(coming) : <p className="mt-2 text-quiet">No visit is planned.</p>}
          {past.length > 0 && (
            <>
              <h2 className="mt-8 text-lg font-semibold">The last two weeks</h2>
              {list(past)}
            </>
          )}
        </div>
        <div className="grid content-start gap-4">
          {may(session.role, 'plan') ? (
            <NewVisitForm today={today} />
          ) : (
            <p className="text-quiet">A tester or the office plans visits.</p>
          )}
          <Link prefetch={false} href="/places" className={buttonClass('plain')}>
            Plan a test: choose a place
          </Link>
          <Link prefetch={false} href="/outbox" className={buttonClass('plain')}>
            Simulated outbox
          </Link>
        </div>
      </div>
    </>
  );
}
