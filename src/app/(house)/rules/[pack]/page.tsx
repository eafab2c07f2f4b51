import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { sourcesOf, WHOLE_PACK } from '@/core/pack/editions';
import { lineKey } from '@/core/grammar/lines';
import { ruleLines } from '@/core/pack/lines';
import { readEditions, readPack, rulePacks } from '@/server/rules/rules';
import { requireSession } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { buttonClass } from '@/ui/kit/button-class';
import { Compare } from '@/ui/rules/compare';
import { CopyPack, EditPack } from '@/ui/rules/edit';
import { Editions } from '@/ui/rules/editions';
import { Reading } from '@/ui/rules/reading';
import { Moment } from '@/ui/frame/zone';

export const metadata: Metadata = { title: 'Rule pack' };
const PERMITS: Record<string, string> = {
  greater: 'A greater figure permits more',
  smaller: 'A smaller figure permits more',
  removed: 'Taking it away permits more',
};
export default async function PackPage({
  params,
  searchParams,
}: {
  params: Promise<{ pack: string }>;
  searchParams: Promise<{ procedure?: string; with?: string; version?: string }>;
}) {
  const session = await requireSession();
  const { pack: id } = await params;
  const asked = await searchParams;
  const found = await readPack(session, id, asked.version).catch((e: unknown) => {
    if (e instanceof TroubleError) notFound();
    throw e;
  });
  const { pack, history } = found;
  const [all, editions] = await Promise.all([rulePacks(session), readEditions(session, pack.id)]);
  const procedure = pack.procedures.find((p) => p.id === asked.procedure) ?? pack.procedures[0]!;
  const [otherPack, otherProcedure] = (asked.with ?? '').split('/');
  const base =
    pack.basedOn && (await readPack(session, pack.basedOn.id, pack.basedOn.version).catch(() => null));
  const candidates = [
    ...(base ? [base.pack] : []),
    ...all.filter((p) => !base || p.id !== base.pack.id || p.version !== base.pack.version),
  ];
  const other = candidates.find((p) => p.id === otherPack);
  const second = other?.procedures.find((p) => p.id === otherProcedure);
  const newest = history[0]!.version === pack.version;
  return (
    <>
      <p className="text-sm">
        <Link prefetch={false} className="text-lake underline-offset-4 hover:underline" href="/rules">
          Rules
        </Link>
      </p>
      <h1 className="text-2xl font-bold">{pack.title}</h1>
      <p className="text-quiet">
        {pack.school}, {pack.edition},{' '}
        <span className="figure-narrow">
          {pack.id} {pack.version}
        </span>
        , by {pack.author}, {pack.dated}
        {newest ? '' : ' · an earlier version, kept for its records'}
      </p>
      <p className="mt-1 max-w-3xl text-sm">{pack.notice}</p>
      <div className="mt-5 grid gap-8 lg:grid-cols-[1fr_20rem]">
        <div className="grid min-w-0 content-start gap-6">
          <nav aria-label="Procedures of this pack" className="flex flex-wrap gap-2">
            {pack.procedures.map((p) => (
              <Link
                key={p.id}
                prefetch={false}
                aria-current={p.id === procedure.id ? 'page' : undefined}
                className={buttonClass(p.id === procedure.id ? 'act' : 'plain', 'min-h-11')}
                href={`/rules/${pack.id}?procedure=${p.id}`}
              >
                {p.title}
              </Link>
            ))}
          </nav>
          <form className="flex flex-wrap items-end gap-3" action={`/rules/${pack.id}`}>
            <input type="hidden" name="procedure" value={procedure.id} />
            <label className="min-w-0 flex-1 text-sm">
              Compare with
              <select
                name="with"
                defaultValue={asked.with ?? ''}
                className="mt-1 block min-h-11 w-full border border-edge bg-panel px-2 text-base"
              >
                <option value="">nothing: read it by itself</option>
                {candidates.flatMap((p) =>
                  p.procedures
                    .filter((x) => !(p.id === pack.id && x.id === procedure.id))
                    .map((x) => (
                      <option key={`${p.id}/${x.id}`} value={`${p.id}/${x.id}`}>
                        {p.school}, {p.title} {p.version}: {x.title}
                      </option>
                    )),
                )}
              </select>
            </label>
            <button type="submit" className={buttonClass('plain', 'min-h-11')}>
              Show
            </button>
          </form>
          {pack.loosened && pack.loosened.length > 0 && (
            <section aria-labelledby="loosened" className="border-l-4 border-ochre pl-4">
              <h2 id="loosened" className="text-lg font-semibold">
                Permits more than {pack.basedOn?.title}
              </h2>
              <ul>
                {pack.loosened.map((l) => (
                  <li key={l.path} className="py-1">
                    {l.what}: <span className="figure-narrow">{l.from}</span> to{' '}
                    <span className="figure-narrow">{l.to}</span>. Reason: {l.reason}
                  </li>
                ))}
              </ul>
            </section>
          )}
          {other && second ? (
            base && other === base.pack ? (
              <Compare first={{ pack: other, procedure: second }} second={{ pack, procedure }} />
            ) : (
              <Compare first={{ pack, procedure }} second={{ pack: other, procedure: second }} />
            )
          ) : (
            <Reading procedure={procedure} />
          )}
        </div>
        <div className="grid content-start gap-4">
          {session.role === 'owner' && newest && (
            <>
              {pack.basedOn ? (
                <EditPack
                  key={procedure.id}
                  pack={pack.id}
                  version={pack.version}
                  procedure={procedure.id}
                  lines={ruleLines(procedure).flatMap((l) =>
                    l.edit
                      ? [
                          {
                            key: lineKey(l),
                            at: l.at,
                            where: l.where,
                            label: l.label,
                            value: l.value,
                            edit: l.edit,
                            permits: PERMITS[l.permits] ?? 'Any change counts as permitting more',
                          },
                        ]
                      : [],
                  )}
                />
              ) : (
                <CopyPack pack={pack.id} version={pack.version} />
              )}
            </>
          )}
          <a
            className={buttonClass('plain', 'min-h-12')}
            href={`/api/packs/${pack.id}?version=${pack.version}`}
          >
            Export this pack
          </a>
          <section aria-labelledby="history">
            <h2 id="history" className="text-lg font-semibold">
              Versions
            </h2>
            <ul className="mt-1">
              {history.map((h) => (
                <li key={h.version} className="border-t border-seam py-2">
                  <Link
                    prefetch={false}
                    className="text-lake underline-offset-4 hover:underline"
                    href={`/rules/${pack.id}?version=${h.version}&procedure=${procedure.id}`}
                  >
                    <span className="figure-narrow">{h.version}</span>
                  </Link>{' '}
                  <span className="text-sm text-quiet">
                    <Moment at={h.made} />, {h.madeBy ?? 'came with the product'}
                  </span>
                  {h.changes.map((c) => (
                    <span key={c} className="block text-sm">
                      {c}
                    </span>
                  ))}
                </li>
              ))}
            </ul>
          </section>
          <Editions
            key={`${pack.id}/${procedure.id}`}
            pack={pack.id}
            mayEdit={session.role === 'owner' && newest}
            lines={[
              { source: WHOLE_PACK, title: 'Everything in this pack' },
              ...sourcesOf(procedure).map((source) => ({ source, title: source })),
            ].map(({ source, title }) => ({
              title,
              ...(editions.find((e) => e.source === source) ?? {
                source,
                edition: '',
                clause: '',
                jurisdiction: '',
              }),
            }))}
          />
          <section aria-labelledby="sources">
            <h2 id="sources" className="text-lg font-semibold">
              Sources
            </h2>
            <ul className="mt-1 text-sm">
              {pack.sources.map((s) => (
                <li key={s.key} className="border-t border-seam py-1.5">
                  {s.title}
                  {s.clause && <span className="text-quiet">: {s.clause}</span>}
                </li>
              ))}
            </ul>
          </section>
        </div>
      </div>
    </>
  );
}
