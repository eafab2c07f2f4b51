import type { Sheet, SheetVisit } from '@/wire/days';
import { minutesWords } from '@/ui/kit/words';
import Link from 'next/link';
import { clockOf } from './times';

const KIND = { hold: 'A hold ends', test: 'Test due', other: 'Due', visit: '' } as const;
const H = 'mt-3 text-sm text-quiet';

/** A day as it is taken along on paper: each visit on what fits together, with room to write. */
export function DaySheet({ sheet }: { sheet: Sheet }) {
  return (
    <>
      {sheet.visits.length === 0 && <p className="mt-4">No visit is planned on this day.</p>}
      {sheet.visits.map((v) => (
        <Visit key={v.id} visit={v} />
      ))}
      {sheet.besides.length > 0 && (
        <section className="mt-6 break-inside-avoid">
          <h2 className="border-t-2 border-ink pt-2 text-lg font-semibold">Besides</h2>
          <ul>
            {sheet.besides.map((t) => (
              <li key={t.id} className="border-b border-seam py-1.5">
                {t.at && <span className="figure-narrow">{t.at} </span>}
                <span className="font-semibold">{t.title}</span>: {KIND[t.kind]}
                {t.about && `, ${t.about}`}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
function Visit({ visit: v }: { visit: SheetVisit }) {
  const notes = [
    v.permit && `permit ${v.permit}`,
    v.present.length && `present: ${v.present.join(', ')}`,
    v.promise && `back in use by ${v.promise}`,
  ].filter(Boolean);
  return (
    <section className="mt-6">
      <h2 className="flex flex-wrap items-baseline gap-x-4 border-t-2 border-ink pt-2 text-xl font-semibold">
        <span className="figure">{v.start}</span>
        <Link prefetch={false} className="hover:text-lake" href={`/plan/${v.id}`}>
          {v.title}
        </Link>
        <span className="text-base font-normal">{v.people.join(', ') || 'nobody is named yet'}</span>
      </h2>
      <div className="grid gap-x-8 md:grid-cols-2 print:grid-cols-2">
        <div>
          {v.places.map((p) => (
            <p key={p.name} className="mt-2">
              <span className="font-semibold">{p.name}</span>
              {p.address && <span className="block">{p.address}</span>}
              {p.customer && <span className="block text-quiet">{p.customer}</span>}
            </p>
          ))}
          {notes.length > 0 && <p className="mt-2">{notes.join('; ')}</p>}
          <h3 className={H}>Tests</h3>
          <ul>
            {v.tests.map((t) => (
              <li key={t.id} className="flex gap-3 py-1">
                <span aria-hidden className="mt-1 size-4 shrink-0 border-2 border-ink" />
                <span>
                  {t.title}
                  <span className="block text-sm text-quiet">
                    {t.place}
                    {t.gauge && `, gauge ${t.gauge}`}
                  </span>
                </span>
              </li>
            ))}
            {v.tests.length === 0 && <li>no test on it yet</li>}
          </ul>
          {v.kit.length > 0 && (
            <>
              <h3 className={H}>To load</h3>
              <ul className="columns-2 gap-6 text-sm">
                {v.kit.map((k) => (
                  <li key={k.group + k.name} className="flex break-inside-avoid gap-2 py-0.5">
                    <span aria-hidden className="mt-1 size-3 shrink-0 border border-ink" />
                    {k.name}
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
        <div>
          <h3 className={H}>In time</h3>
          {v.cannot && <p className="text-rust">{v.cannot}</p>}
          <ul>
            {v.tasks.map((t, i) => (
              <li key={i} className="grid grid-cols-[9rem_1fr] border-b border-seam py-1">
                <span className="figure-narrow whitespace-nowrap">
                  {clockOf(v.begin, t.start, v.zone)}–{clockOf(v.begin, t.end, v.zone)}
                </span>
                <span>
                  {t.title}
                  {t.waits > 0 && (
                    <span className="text-quiet">, of it {minutesWords(Math.round(t.waits))} waiting</span>
                  )}
                </span>
              </li>
            ))}
          </ul>
          <h3 className={H}>Noted</h3>
          <div aria-hidden className="h-20 border border-seam" />
        </div>
      </div>
    </section>
  );
}
