import type { Meaning } from '@/core/analysis/meaning';

/** A part of a hundred, as a length. */
const Share = ({ percent }: { percent: number }) => (
  <svg
    className="h-2.5 w-24 shrink-0 border border-seam"
    viewBox="0 0 100 10"
    preserveAspectRatio="none"
    aria-hidden
  >
    <rect width={percent} height="10" fill="var(--ochre)" />
  </svg>
);
const Lines = ({ title, lines }: { title: string; lines: readonly string[] }) =>
  lines.length > 0 && (
    <div>
      <h4 className="font-semibold">{title}</h4>
      <ul className="list-disc pl-5">
        {lines.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
    </div>
  );
/** What the trace means: one sentence and the next move; why, on asking. Advice: the rule alone judges. */
export function MeaningCard({
  meaning,
  judged,
  open = false,
}: {
  meaning: Meaning;
  /** What judges in its place, in a sentence. */
  judged: string;
  open?: boolean;
}) {
  const { headline, next, causes, fors, against, rests } = meaning;
  return (
    <section
      aria-label="What the trace means"
      className="border-l-4 border-ochre bg-panel px-3 py-2"
      data-meaning={meaning.told ?? 'untold'}
    >
      <p className="font-semibold">{headline}</p>
      {next && (
        <p>
          Next: {next.text}{' '}
          <span className="figure-narrow whitespace-nowrap text-quiet">About {next.minutes} min.</span>
        </p>
      )}
      <details open={open} className="mt-1 text-sm">
        <summary className="min-h-8 cursor-pointer py-1 text-lake">What speaks for it, what against</summary>
        <div className="grid gap-2 pt-1">
          <Lines title="For it" lines={fors} />
          <Lines title="Against it" lines={against} />
          <ul aria-label="Causes, by how probable they are">
            {causes.map((c) => (
              <li key={c.cause} className="flex items-center gap-2">
                <Share percent={c.percent} />
                <span className="figure-narrow w-12 text-right">{c.percent} %</span>
                <span>{c.words}</span>
              </li>
            ))}
          </ul>
          <dl className="flex flex-wrap gap-x-4 text-quiet">
            {rests.slice(0, 4).map((r) => (
              <div key={r.name} className="flex gap-1.5">
                <dt>{r.name}</dt>
                <dd className="figure-narrow">{r.value}</dd>
              </div>
            ))}
          </dl>
        </div>
      </details>
      <p className="text-sm text-quiet">Advice from the readings and the section’s facts. {judged}</p>
    </section>
  );
}
