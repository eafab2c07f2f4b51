import { readEditions, readPack, rulePacks } from '@/server/rules/rules';
import { requireSession } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { buttonClass } from '@/ui/kit/button-class';
import { Compare } from '@/ui/rules/compare';
import { Reading, ShortReading } from '@/ui/rules/reading';
import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { CompareForm, EditionsPart, LengthPart, Loosened, OwnersPart, Sources, Versions } from './parts';

export const metadata: Metadata = { title: 'Rule pack' };
export default async function PackPage({
  params,
  searchParams,
}: {
  params: Promise<{ pack: string }>;
  searchParams: Promise<{ procedure?: string; with?: string; version?: string; short?: string }>;
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
  const mayEdit = session.role === 'owner' && newest;
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
          <CompareForm pack={pack} procedure={procedure} candidates={candidates} chosen={asked.with ?? ''} />
          <Loosened pack={pack} />
          {other && second ? (
            base && other === base.pack ? (
              <Compare first={{ pack: other, procedure: second }} second={{ pack, procedure }} />
            ) : (
              <Compare first={{ pack, procedure }} second={{ pack: other, procedure: second }} />
            )
          ) : (
            <>
              <LengthPart pack={pack} procedure={procedure} short={asked.short !== undefined} />
              {asked.short === undefined ? (
                <Reading procedure={procedure} />
              ) : (
                <ShortReading procedure={procedure} />
              )}
            </>
          )}
        </div>
        <div className="grid content-start gap-4">
          {mayEdit && <OwnersPart pack={pack} procedure={procedure} />}
          <a
            className={buttonClass('plain', 'min-h-12')}
            href={`/api/packs/${pack.id}?version=${pack.version}`}
          >
            Export this pack
          </a>
          <Versions pack={pack} procedure={procedure} history={history} />
          <EditionsPart pack={pack} procedure={procedure} editions={editions} mayEdit={mayEdit} />
          <Sources pack={pack} />
        </div>
      </div>
    </>
  );
}
