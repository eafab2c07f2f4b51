import { lineKey } from '@/core/grammar/lines';
import { sourcesOf, WHOLE_PACK, type WorksTo } from '@/core/pack/editions';
import { ruleLines } from '@/core/pack/lines';
import type { Pack, Procedure } from '@/core/pack/schema';
import type { readPack } from '@/server/rules/rules';
import { Moment } from '@/ui/frame/zone';
import { buttonClass } from '@/ui/kit/button-class';
import { CopyPack, EditPack } from '@/ui/rules/edit';
import { Editions } from '@/ui/rules/editions';
import Link from 'next/link';

const PERMITS: Record<string, string> = {
  greater: 'A greater figure permits more',
  smaller: 'A smaller figure permits more',
  removed: 'Taking it away permits more',
};

/** Which other procedure it is read beside. */
export function CompareForm({
  pack,
  procedure,
  candidates,
  chosen,
}: {
  pack: Pack;
  procedure: Procedure;
  candidates: readonly Pack[];
  chosen: string;
}) {
  return (
    <form className="flex flex-wrap items-end gap-3" action={`/rules/${pack.id}`}>
      <input type="hidden" name="procedure" value={procedure.id} />
      <label className="min-w-0 flex-1 text-sm">
        Compare with
        <select
          name="with"
          defaultValue={chosen}
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
  );
}
/** Where a house pack permits more than what it was copied from, each with its reason. */
export function Loosened({ pack }: { pack: Pack }) {
  if (!pack.loosened?.length) return null;
  return (
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
  );
}
/** What the owner can do with it: a house pack is edited, any other copied first. */
export function OwnersPart({ pack, procedure }: { pack: Pack; procedure: Procedure }) {
  return (
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
  );
}
type History = Awaited<ReturnType<typeof readPack>>['history'];
export function Versions({
  pack,
  procedure,
  history,
}: {
  pack: Pack;
  procedure: Procedure;
  history: History;
}) {
  return (
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
  );
}
export function EditionsPart({
  pack,
  procedure,
  editions,
  mayEdit,
}: {
  pack: Pack;
  procedure: Procedure;
  editions: readonly WorksTo[];
  mayEdit: boolean;
}) {
  return (
    <Editions
      key={`${pack.id}/${procedure.id}`}
      pack={pack.id}
      mayEdit={mayEdit}
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
  );
}
export function Sources({ pack }: { pack: Pack }) {
  return (
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
  );
}

/** The whole of it for work, or in short for learning it by heart. */
export function LengthPart({ pack, procedure, short }: { pack: Pack; procedure: Procedure; short: boolean }) {
  const address = `/rules/${pack.id}?procedure=${procedure.id}&version=${pack.version}`;
  const ways = [
    [false, 'Whole, for work', address],
    [true, 'In short, to learn it', `${address}&short`],
  ] as const;
  return (
    <nav aria-label="Length" className="flex flex-wrap gap-2">
      {ways.map(([is, words, href]) => (
        <Link
          key={words}
          prefetch={false}
          href={href}
          aria-current={is === short ? 'page' : undefined}
          className={buttonClass(is === short ? 'act' : 'plain', 'min-h-11')}
        >
          {words}
        </Link>
      ))}
    </nav>
  );
}
