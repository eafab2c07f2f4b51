import { lineKey, type RuleLine } from '@/core/grammar/lines';
import { ruleLines } from '@/core/pack/lines';
import type { Procedure } from '@/core/pack/schema';

/** Lines of a procedure by the heading they stand under, in reading order. */
export function sections(lines: readonly RuleLine[]): { where: string; stage: string; lines: RuleLine[] }[] {
  const out: { where: string; stage: string; lines: RuleLine[]; key: string }[] = [];
  for (const line of lines) {
    const key = line.at[0] === 'stages' ? `stage ${line.at[1]}` : line.where;
    let section = out.find((s) => s.key === key);
    if (!section) out.push((section = { key, where: line.where, stage: line.stage ?? '', lines: [] }));
    section.lines.push(line);
  }
  return out;
}
const PERMITS: Record<RuleLine['permits'], string> = {
  greater: 'a greater figure permits more',
  smaller: 'a smaller figure permits more',
  removed: 'taking it away permits more',
  added: 'adding it permits more',
  any: 'any change counts as permitting more',
  none: '',
};

/** A procedure as a person reads it: every stage with its figures, their sources and what follows. */
export function Reading({ procedure }: { procedure: Procedure }) {
  const all = sections(ruleLines(procedure));
  const parts = new Map((procedure.parts ?? []).map((p) => [p.first, p.title]));
  return (
    <article className="grid gap-6" aria-labelledby={procedure.id}>
      <header>
        <h2 id={procedure.id} className="text-xl font-semibold">
          {procedure.title}
        </h2>
        <p className="mt-1 max-w-3xl">{procedure.summary}</p>
        <p className="mt-2 max-w-3xl text-sm">
          Proves {procedure.proves.join('; ')}. Cannot prove {procedure.cannotProve.join('; ')}.
        </p>
      </header>
      {all.map((section) => {
        const stage = section.lines[0]!.at[0] === 'stages' ? String(section.lines[0]!.at[1]) : null;
        const instruction = section.lines.find((l) => l.label === 'Instruction');
        return (
          <section
            key={section.where + (stage ?? '')}
            className={stage ? 'border-l-8 border-block pl-4' : ''}
          >
            {stage && parts.has(stage) && (
              <p className="mb-2 text-lg font-semibold text-lake">Part: {parts.get(stage)}</p>
            )}
            <h3 className="text-lg font-semibold">{section.where}</h3>
            {instruction && <p className="max-w-3xl">{instruction.value}</p>}
            <dl className="mt-2">
              {section.lines
                .filter((l) => l !== instruction)
                .map((l) => (
                  <div
                    key={lineKey(l)}
                    className="grid gap-x-4 border-t border-seam py-2 sm:grid-cols-[13rem_1fr]"
                  >
                    <dt className="text-quiet">{l.label}</dt>
                    <dd className="min-w-0">
                      <span className={l.edit === 'figure' || l.edit === 'number' ? 'figure' : ''}>
                        {l.value}
                      </span>
                      {(l.source || (l.edit && l.edit !== 'remove')) && (
                        <span className="block text-sm text-quiet">
                          {l.source}
                          {l.source && /house (choice|figure|standard)/i.test(l.source) && (
                            <> · unpublished: the pack author’s own choice</>
                          )}
                          {l.edit && l.edit !== 'remove' && PERMITS[l.permits] && (
                            <>
                              {l.source ? ' · ' : ''}
                              {PERMITS[l.permits]}
                            </>
                          )}
                        </span>
                      )}
                    </dd>
                  </div>
                ))}
            </dl>
          </section>
        );
      })}
    </article>
  );
}
