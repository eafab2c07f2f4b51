import type { Metadata } from 'next';
import Link from 'next/link';
import { viewerDay, viewerZone } from '@/server/session/zone';
import { readDays } from '@/server/visits/days';
import { Days } from '@/ui/visit/days';
import { addDays, isDay } from '@/core/quantity/local-date';
import { requireSession } from '@/server/session/session';
import { listMembers } from '@/server/people/people';
import { listVisits } from '@/server/visits/visits';
import { buttonClass } from '@/ui/kit/button-class';
import { NewVisitForm } from '@/ui/visit/new-visit';
import { dayWords } from '@/ui/visit/times';
import { WEEKS } from '@/wire/days';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Plan' };
/** The Monday of a day's week. */
const monday = (day: string): string => addDays(day, -((new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7));
export default async function PlanHome({
  searchParams,
}: {
  searchParams: Promise<{ from?: string; weeks?: string; who?: string }>;
}) {
  const session = await requireSession();
  const today = await viewerDay();
  const { from: asked, weeks: shown, who: whose } = await searchParams;
  const weeks = shown === '1' ? 1 : WEEKS;
  const team = (await listMembers(session)).filter((m) => may(m.role, 'run'));
  const who = team.find((m) => m.id === whose)?.id ?? '';
  const from = monday(asked && isDay(asked) ? asked : today);
  const { things, due } = await readDays(session, from, await viewerZone(), { weeks, who });
  const before = addDays(today, -14);
  const all = (await listVisits(session, before)).filter((v) => !who || v.people.includes(who));
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
              <span className="block text-sm text-quiet">
                {[
                  team
                    .filter((m) => v.people.includes(m.id))
                    .map((m) => m.name)
                    .join(', '),
                  v.tests.join('; ') || 'no test on it yet',
                ]
                  .filter(Boolean)
                  .join(': ')}
              </span>
            </span>
            <span className="font-semibold text-lake">Open</span>
          </Link>
        </li>
      ))}
    </ul>
  );
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-3">
        <div>
          <h1 className="text-2xl font-bold">Plan</h1>
          <p className="mt-1 max-w-2xl">
            A test is planned from its system: pressure, hold, gauge, kit. A visit lays the tests of a day
            side by side.
          </p>
        </div>
        <form action="/plan" className="no-print flex flex-wrap items-end gap-3">
          <input type="hidden" name="from" value={from} />
          {weeks === 1 && <input type="hidden" name="weeks" value="1" />}
          <label className="text-sm">
            Visits of
            <select
              name="who"
              defaultValue={who}
              className="mt-1 block min-h-12 border border-edge bg-panel px-2 text-base"
            >
              <option value="">everybody</option>
              {team.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.id === session.person ? `me (${m.name})` : m.name}
                </option>
              ))}
            </select>
          </label>
          <button type="submit" className={buttonClass('plain')}>
            Show
          </button>
        </form>
      </div>
      <Days from={from} today={today} things={things} due={due} weeks={weeks} who={who} />
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
