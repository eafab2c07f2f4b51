import type { Metadata } from 'next';
import Link from 'next/link';
import { TRADES } from '@/core/trades';
import { addDays } from '@/core/quantity/local-date';
import { viewerDay } from '@/server/session/zone';
import { listPlaces, type PlaceSystem } from '@/server/places/places';
import { recall } from '@/server/places/inventory';
import { buttonClass } from '@/ui/kit/button-class';
import { Moment } from '@/ui/frame/zone';
import { requireSession } from '@/server/session/session';
import { isId } from '@/server/trouble';
import { may } from '@/wire/role';

const SELECT = 'mt-1 block min-h-12 border border-edge bg-panel px-2 text-base';
/** Until when a test is due: key, words, days from today. */
const DUE = [
  ['now', 'by today', 0],
  ['month', 'within a month', 31],
  ['year', 'within a year', 366],
] as const;
export const metadata: Metadata = { title: 'Places' };
export default async function Places({
  searchParams,
}: {
  searchParams: Promise<{ find?: string; after?: string; id?: string; trade?: string; due?: string }>;
}) {
  const session = await requireSession();
  const { find = '', after, id, trade: named = '', due = '' } = await searchParams;
  const trade = TRADES.find((t) => t.name === named);
  const within = DUE.find(([key]) => key === due);
  const narrowed = { ...(trade ? { trade: trade.name } : {}), ...(within ? { due: within[0] } : {}) };
  const from = after !== undefined && id && isId(id) ? { name: after, id } : undefined;
  const [{ places: shown, all }, found] = await Promise.all([
    listPlaces(session, {
      find,
      most: MOST_SHOWN + 1,
      trade,
      due: within && addDays(await viewerDay(), within[2]),
      ...(from ? { after: from } : {}),
    }),
    from ? [] : recall(session, find),
  ]);
  const places = shown.slice(0, MOST_SHOWN);
  const last = places[places.length - 1]?.site;
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-4">
        <h1 className="text-2xl font-bold">Places</h1>
        {may(session.role, 'plan') && (
          <Link prefetch={false} href="/places/new" className={buttonClass('act')}>
            New place
          </Link>
        )}
      </div>
      <FindPlaces find={find} trade={trade?.name ?? ''} due={within?.[0] ?? ''} />
      {find && !from && <WrittenDown found={found} />}
      {(find || trade || within) && (
        <h2 className="mt-4 text-lg font-semibold">
          {all === 0 ? 'No place is like that' : all === 1 ? 'One place' : `${all} places`}
        </h2>
      )}
      {!find && !trade && !within && all === 0 && (
        <p className="mt-4">
          No place is entered yet. Enter one with “New place”, or start the demo to see Millrace Quarter.
        </p>
      )}
      <ul className="mt-4 grid gap-3">
        {places.map(({ site, systems }) => (
          <li key={site.id} className="grid gap-3 border border-seam bg-panel p-4 lg:grid-cols-[20rem_1fr]">
            <div>
              <h2 className="text-lg font-semibold">{site.name}</h2>
              <p className="text-sm text-quiet">
                {site.address}
                <br />
                {site.customer}
              </p>
              <ChangeSite site={site} mayChange={may(session.role, 'plan')} />
            </div>
            <ul className="grid content-center gap-2">
              {systems.map((s) => (
                <li key={s.id}>
                  <Link
                    prefetch={false}
                    href={`/places/${s.id}`}
                    className="flex min-h-14 items-center justify-between gap-4 border border-edge px-4 py-2 hover:border-ink"
                  >
                    <span>
                      <span className="block font-semibold">{s.name}</span>
                      <span className="block text-sm text-quiet">{inBrief(s)}</span>
                    </span>
                    <span className="font-semibold text-lake">Open</span>
                  </Link>
                </li>
              ))}
              {systems.length === 0 && <li className="text-quiet">No system is entered here yet.</li>}
              {may(session.role, 'plan') && (
                <li>
                  <Link
                    prefetch={false}
                    href={`/places/site/${site.id}/new`}
                    className="inline-block min-h-11 py-2 text-lake underline-offset-4 hover:underline"
                  >
                    Another system here
                  </Link>
                </li>
              )}
            </ul>
          </li>
        ))}
      </ul>
      {(from || shown.length > places.length) && (
        <nav aria-label="Pages of places" className="mt-4 flex flex-wrap items-center gap-4">
          {from && (
            <Link
              prefetch={false}
              className={buttonClass('plain')}
              href={`/places?${new URLSearchParams({ find, ...narrowed })}`}
            >
              From the beginning
            </Link>
          )}
          {shown.length > places.length && last && (
            <Link
              prefetch={false}
              className={buttonClass('plain')}
              href={`/places?${new URLSearchParams({ find, ...narrowed, after: last.name, id: last.id })}`}
            >
              Next {MOST_SHOWN}
            </Link>
          )}
          <span className="text-quiet">
            {all} places in all; by name, address or customer one is found at once.
          </span>
        </nav>
      )}
    </>
  );
}
/** Words, trade and what is due: what narrows the places, in the address. */
const FindPlaces = ({ find, trade, due }: { find: string; trade: string; due: string }) => (
  <form
    className="mt-3 grid max-w-5xl grid-cols-2 items-end gap-3 sm:flex sm:flex-wrap"
    action="/places"
    role="search"
  >
    <label className="min-w-64 flex-1 text-sm max-sm:col-span-2">
      Find a place by name, address or customer; an appliance, meter or tank by make, model or serial
      <input
        name="find"
        defaultValue={find}
        className="mt-1 block min-h-12 w-full border border-edge bg-panel px-3 text-base"
        placeholder="serial SH-880"
      />
    </label>
    <label className="text-sm">
      Trade
      <select name="trade" defaultValue={trade} className={`${SELECT} max-sm:w-full`}>
        <option value="">every trade</option>
        {TRADES.map((t) => (
          <option key={t.name} value={t.name}>
            {t.name}
          </option>
        ))}
      </select>
    </label>
    <label className="text-sm">
      A test is due
      <select name="due" defaultValue={due} className={`${SELECT} max-sm:w-full`}>
        <option value="">or not</option>
        {DUE.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
    <button type="submit" className={buttonClass('plain', 'min-h-12')}>
      Find
    </button>
    <Link prefetch={false} href="/scan" className={buttonClass('plain', 'min-h-12')}>
      Scan
    </Link>
  </form>
);
/** Things of a make, model or serial, wherever they were written down. */
const WrittenDown = ({ found }: { found: Awaited<ReturnType<typeof recall>> }) => (
  <section className="mt-4" aria-labelledby="found">
    <h2 id="found" className="text-lg font-semibold">
      {found.length
        ? found.length === 1
          ? 'Written down once'
          : `Written down ${found.length} times`
        : 'Nothing of that make, model or serial was written down'}
    </h2>
    <ul>
      {found.map((f) => (
        <li key={`${f.system}${f.item.id}${f.seen?.at}${f.seen?.run}`} className="border-t border-seam py-2">
          <Link
            prefetch={false}
            className="text-lake underline-offset-4 hover:underline"
            href={`/places/${f.system}`}
          >
            {f.site}: {f.systemName}
          </Link>
          , {f.item.name}
          {f.item.place && `, ${f.item.place}`}
          <span className="block text-sm text-quiet">
            {[f.item.make, f.item.model, f.item.serial && `serial ${f.item.serial}`]
              .filter(Boolean)
              .join(', ')}
            {f.seen ? (
              <>
                ; seen <Moment at={f.seen.at} /> by {f.seen.by},{' '}
                <Link prefetch={false} className="underline" href={`/ledger/${f.seen.run}`}>
                  record
                </Link>
              </>
            ) : (
              '; on the page of the system, not seen on a visit yet'
            )}
          </span>
        </li>
      ))}
    </ul>
  </section>
);
/** More than this nobody looks through. */
const MOST_SHOWN = 60;
const inBrief = ({ meter, appliances, medium }: PlaceSystem): string =>
  [
    medium,
    ...(meter && meter !== 'none' ? [meter] : []),
    ...(appliances ? [`${appliances} appliance${appliances === 1 ? '' : 's'}`] : []),
  ].join(', ');

/** What is not entered of a place yet, and the way to enter or change it. */
const ChangeSite = ({
  site,
  mayChange,
}: {
  site: { readonly id: string; readonly name: string; readonly address: string; readonly customer: string };
  mayChange: boolean;
}) => (
  <>
    {(!site.address || !site.customer) && (
      <p className="text-sm text-ochre">
        {[!site.address && 'Address', !site.customer && 'Customer'].filter(Boolean).join(' and ')} not entered
        yet.
      </p>
    )}
    {mayChange && (
      <Link
        prefetch={false}
        href={`/places/site/${site.id}`}
        aria-label={`Change ${site.name}`}
        className="inline-block min-h-11 py-2 text-sm text-lake underline-offset-4 hover:underline"
      >
        Change
      </Link>
    )}
  </>
);
