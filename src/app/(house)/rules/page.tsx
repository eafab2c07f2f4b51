import type { Metadata } from 'next';
import Link from 'next/link';
import { packsAside, rulePacks } from '@/server/rules/rules';
import { requireSession } from '@/server/session/session';
import { ImportPack } from '@/ui/rules/edit';
import { SchoolToggle } from '@/ui/rules/school-toggle';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Rules' };
export default async function RulesPage() {
  const session = await requireSession();
  const [packs, aside] = await Promise.all([rulePacks(session), packsAside(session)]);
  const govern = may(session.role, 'govern');
  return (
    <>
      <h1 className="text-2xl font-bold">Rules</h1>
      <p className="mt-1 max-w-3xl text-quiet">
        Every figure is a default from published practice or a house choice, with its source. Check the
        edition in force where you work.
      </p>
      <div className="mt-4 grid gap-8 lg:grid-cols-[1fr_20rem]">
        <ul className="grid content-start gap-4">
          {packs.map((p) => (
            <li key={p.id} className="border border-seam bg-panel p-4">
              <h2 className="text-lg font-semibold">
                <Link
                  prefetch={false}
                  className="text-lake underline-offset-4 hover:underline"
                  href={`/rules/${p.id}`}
                >
                  {p.title}
                </Link>
              </h2>
              <p className="text-sm text-quiet">
                {p.school}, {p.edition},{' '}
                <span className="figure-narrow">
                  {p.id} {p.version}
                </span>
                , by {p.author}, {p.dated}
              </p>
              {govern ? (
                <SchoolToggle pack={p.id} title={p.title} aside={aside.has(p.id)} />
              ) : (
                aside.has(p.id) && (
                  <p className="mt-1 text-sm text-ochre">
                    The house does not work to this: its tests are folded away where a test is chosen.
                  </p>
                )
              )}
              {p.basedOn && (
                <p className="mt-1 text-sm">
                  House pack from {p.basedOn.title} {p.basedOn.version}
                  {p.loosened?.length ? (
                    <span className="font-semibold text-ochre">
                      {' '}
                      · permits more in {p.loosened.length} places
                    </span>
                  ) : (
                    ' · nowhere more permitting'
                  )}
                </p>
              )}
              <ul className="mt-2">
                {p.procedures
                  .filter((x) => !x.partOnly)
                  .map((x) => (
                    <li key={x.id} className="border-t border-seam py-1.5">
                      <Link
                        prefetch={false}
                        className="flex min-h-11 flex-col justify-center hover:text-lake"
                        href={`/rules/${p.id}?procedure=${x.id}`}
                      >
                        {x.title}
                        <span className="block text-sm text-quiet">{x.summary}</span>
                      </Link>
                    </li>
                  ))}
                {p.sequences?.map((s) => (
                  <li key={s.id} className="border-t border-seam py-2">
                    {s.title}
                    <span className="block text-sm text-quiet">
                      In this order: {s.parts.map((x) => x.title).join(', then ')}.
                    </span>
                  </li>
                ))}
              </ul>
            </li>
          ))}
        </ul>
        {session.role === 'owner' ? (
          <div>
            <ImportPack />
          </div>
        ) : (
          <p className="text-quiet">The owner copies, edits and imports packs; everybody reads them.</p>
        )}
      </div>
    </>
  );
}
