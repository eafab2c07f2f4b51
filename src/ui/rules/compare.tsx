import { lineKey } from '@/core/grammar/lines';
import { compareProcedures, ruleLines } from '@/core/pack/lines';
import type { Pack, Procedure } from '@/core/pack/schema';

interface Side {
  readonly pack: Pack;
  readonly procedure: Procedure;
}
/** Two procedures side by side: what both say, what only one says, and where the second permits more. */
export function Compare({ first, second }: { first: Side; second: Side }) {
  const sameProcedure = first.procedure.id === second.procedure.id;
  const changes = compareProcedures(first.procedure, second.procedure);
  const byKey = new Map(changes.map((c) => [c.at.join('/'), c]));
  const lines = [ruleLines(first.procedure), ruleLines(second.procedure)];
  // different procedures share no stage: their figures are set against each other by what they are
  const rows = sameProcedure
    ? changes.map((c) => ({
        key: c.at.join('/'),
        where: c.where,
        label: c.label,
        a: c.from,
        b: c.to,
        more: c.permitsMore,
      }))
    : pairs(lines[0]!, lines[1]!);
  const head = (s: Side) => (
    <>
      {s.procedure.title}
      <span className="block text-sm font-normal text-quiet">
        {s.pack.school}, {s.pack.title} {s.pack.version}
      </span>
    </>
  );
  return (
    <section aria-labelledby="compare">
      <h2 id="compare" className="text-xl font-semibold">
        Side by side
      </h2>
      <p className="mt-1 text-quiet">
        {sameProcedure
          ? changes.length
            ? `${changes.length} lines differ; ${changes.filter((c) => c.permitsMore).length} of them permit more on the right.`
            : 'No line differs.'
          : 'Two different procedures: each by itself. Neither table may be used with the other’s steps.'}
      </p>
      <div className="mt-2 overflow-x-auto" role="region" aria-label="Comparison" tabIndex={0}>
        <table className="w-full min-w-[640px] table-fixed">
          <thead>
            <tr className="border-b border-ink text-left align-bottom">
              <th className="w-56 py-2 pr-3 font-normal text-quiet">Line</th>
              <th className="py-2 pr-3">{head(first)}</th>
              <th className="py-2">{head(second)}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.key} className="border-b border-seam align-top">
                <th scope="row" className="py-2 pr-3 text-left font-normal">
                  {r.label}
                  <span className="block text-sm text-quiet">{r.where}</span>
                </th>
                <td className={`py-2 pr-3 ${r.a !== r.b ? 'font-semibold' : 'text-quiet'}`}>
                  {r.a ?? <span className="text-quiet">not there</span>}
                </td>
                <td className={`py-2 ${r.a !== r.b ? 'font-semibold' : 'text-quiet'}`}>
                  {r.b ?? <span className="text-quiet">not there</span>}
                  {r.a !== null && r.a === r.b && <span className="block text-sm">the same</span>}
                  {r.more && <span className="block text-sm text-ochre">permits more</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {byKey.size === 0 && sameProcedure && <p className="mt-3">Both say the same in every line.</p>}
    </section>
  );
}

/** Figures of two procedures set against each other by kind of stage and label. */
function pairs(a: ReturnType<typeof ruleLines>, b: ReturnType<typeof ruleLines>) {
  const name = (l: (typeof a)[number]) => `${l.stage ?? l.where}|${l.label}`;
  const telling = (l: (typeof a)[number]) =>
    l.edit === 'figure' ||
    l.edit === 'number' ||
    [
      'Test pressure',
      'Boundary',
      'Permitted drop',
      'Minutes of the rule',
      'Planned',
      'Band',
      'Meters',
    ].includes(l.label);
  const left = a.filter(telling);
  const right = b.filter(telling);
  const used = new Set<string>();
  return [
    ...left.map((l) => {
      const other = right.find((r) => name(r) === name(l) && !used.has(lineKey(r)));
      if (other) used.add(lineKey(other));
      return {
        key: `a${lineKey(l)}`,
        where: l.where,
        label: l.label,
        a: l.value,
        b: other ? `${other.value}${other.where !== l.where ? ` (${other.where})` : ''}` : null,
        more: false,
      };
    }),
    ...right
      .filter((r) => !used.has(lineKey(r)))
      .map((r) => ({
        key: `b${lineKey(r)}`,
        where: r.where,
        label: r.label,
        a: null,
        b: r.value,
        more: false,
      })),
  ];
}
