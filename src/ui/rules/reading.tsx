import { lineKey, type RuleLine } from '@/core/grammar/lines';
import { ruleLines, sections, shortOf } from '@/core/pack/lines';
import type { Procedure } from '@/core/pack/schema';

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
            {...(stage ? { id: `stage-${stage}` } : {})}
            className={stage ? 'scroll-mt-4 border-l-8 border-block pl-4' : ''}
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
/** A procedure for whoever revises it: every stage in its order, with its figures and nothing else. */
export function ShortReading({ procedure }: { procedure: Procedure }) {
  const parts = new Map((procedure.parts ?? []).map((p) => [p.first, p.title]));
  return (
    <article className="grid gap-3" aria-labelledby={procedure.id} data-short>
      <header>
        <h2 id={procedure.id} className="text-xl font-semibold">
          {procedure.title}, in short
        </h2>
        <p className="max-w-3xl">
          Proves {procedure.proves.join('; ')}. Cannot prove {procedure.cannotProve.join('; ')}.
        </p>
      </header>
      <ol className="grid">
        {shortOf(procedure).map((section, i) => (
          <li
            key={`${i} ${section.title}`}
            {...(section.stage ? { id: `stage-${section.stage}` } : {})}
            className="grid scroll-mt-4 gap-x-4 border-t border-seam py-2 sm:grid-cols-[15rem_1fr]"
          >
            <h3 className="font-semibold">
              {section.stage && parts.has(section.stage) && (
                <span className="block text-lake">{parts.get(section.stage)}</span>
              )}
              {section.title}
            </h3>
            <ul>
              {section.figures.map((f) => (
                <li key={`${f.label} ${f.value}`}>
                  <span className="text-quiet">{f.label}</span>{' '}
                  <span className="figure-narrow">{f.value}</span>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
      <p className="text-sm text-quiet">
        For learning it by heart. At work the bench says the whole, with its cautions; check the edition in
        force.
      </p>
    </article>
  );
}
