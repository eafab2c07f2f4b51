import type { Metadata } from 'next';
import Link from 'next/link';
import { localDate } from '@/core/quantity/local-date';
import { recallSearch } from '@/server/places/inventory';
import { requireSession } from '@/server/session/session';
import { may } from '@/wire/role';
import { viewerZone } from '@/server/session/zone';
import { buttonClass } from '@/ui/kit/button-class';

export const metadata: Metadata = { title: 'Recall search' };
const FIELDS = [
  ['make', 'Make'],
  ['model', 'Model'],
  ['from', 'Serial from'],
  ['to', 'Serial to'],
] as const;
type Params = Partial<Record<(typeof FIELDS)[number][0], string | string[]>>;
export default async function RecallPage({ searchParams }: { searchParams: Promise<Params> }) {
  const session = await requireSession();
  const params = await searchParams;
  const wanted = Object.fromEntries(
    FIELDS.map(([name]) => [name, String(params[name] ?? '').slice(0, 120)]),
  ) as Record<(typeof FIELDS)[number][0], string>;
  const asked = Object.values(wanted).some((v) => v.trim());
  const zone = await viewerZone();
  const found = asked ? await recallSearch(session, wanted) : [];
  const file = new URLSearchParams(wanted).toString();
  return (
    <>
      <h1 className="text-2xl font-bold">Recall search</h1>
      <p className="mt-1 max-w-2xl">
        A maker calls parts back by make, model or a range of serials. This finds every one that stands on the
        page of a system or was written down on a visit, also where it was replaced since.
      </p>
      <form
        action="/ledger/recall"
        className="mt-4 grid max-w-4xl grid-cols-2 gap-3 sm:grid-cols-5"
        role="search"
      >
        {FIELDS.map(([name, label]) => (
          <label key={name} className="text-sm">
            {label}
            <input
              name={name}
              defaultValue={wanted[name]}
              maxLength={120}
              className="mt-1 block min-h-12 w-full border border-edge bg-panel px-2 text-base"
            />
          </label>
        ))}
        <button type="submit" className={buttonClass('act', 'self-end max-sm:col-span-2')}>
          Find
        </button>
      </form>
      {asked && (
        <>
          <div className="mt-5 flex flex-wrap items-center justify-between gap-3">
            <h2 className="text-lg font-semibold" role="status">
              {found.length === 0
                ? 'No such part was ever written down here'
                : `${found.length} part${found.length === 1 ? '' : 's'} at ${new Set(found.map((f) => f.site)).size} place${new Set(found.map((f) => f.site)).size === 1 ? '' : 's'}`}
            </h2>
            {found.length > 0 && may(session.role, 'share') && (
              <a className={buttonClass('plain', 'min-h-11 text-sm')} href={`/api/recall/csv?${file}`}>
                CSV
              </a>
            )}
          </div>
          {found.length === 0 && (
            <p>
              Fewer words find more; a part whose plate was never read cannot be found by its serial. Search
              by make and model alone too.
            </p>
          )}
          <ul className="mt-2 border-t border-seam">
            {found.map((f, i) => (
              <li key={i} className="border-b border-seam py-2">
                <Link
                  prefetch={false}
                  className="font-semibold text-lake underline-offset-4 hover:underline"
                  href={`/places/${f.system}`}
                >
                  {f.site}: {f.systemName}
                </Link>
                <span className="text-quiet">, {f.customer}</span>
                <span className="block">
                  {f.name}
                  {f.place && `, ${f.place}`}:{' '}
                  {[f.make, f.model, f.serial && `serial ${f.serial}`].filter(Boolean).join(', ')}
                </span>
                <span className="block text-sm text-quiet">
                  {f.seen ? (
                    <>
                      seen {localDate(Date.parse(f.seen.at), zone)},{' '}
                      <Link prefetch={false} className="underline" href={`/ledger/${f.seen.run}`}>
                        record
                      </Link>
                    </>
                  ) : (
                    'on the page of the system; not looked at yet'
                  )}
                  {f.replaced && <strong className="text-ink">; another part stands there since</strong>}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
