import type { Metadata } from 'next';
import Link from 'next/link';
import { listPlaces } from '@/server/places/places';
import { requireSession } from '@/server/session/session';

export const metadata: Metadata = { title: 'Places' };
export default async function Places() {
  const places = await listPlaces(await requireSession());
  return (
    <>
      <h1 className="text-2xl font-bold">Places</h1>
      {places.length === 0 && (
        <p className="mt-4">
          No place is entered yet. The demo brings Millrace Quarter: start without --empty to see it.
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
                      <span className="block text-sm text-quiet">
                        {s.facts.meter.name}, {s.facts.appliances.length} appliances, {s.facts.medium}
                      </span>
                    </span>
                    <span className="font-semibold text-lake">Open</span>
                  </Link>
                </li>
              ))}
              {systems.length === 0 && <li className="text-quiet">No system is entered here yet.</li>}
            </ul>
          </li>
        ))}
      </ul>
    </>
  );
}
