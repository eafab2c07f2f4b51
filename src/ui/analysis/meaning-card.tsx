'use client';
import type { Meaning } from '@/core/analysis/meaning';
import { Pop } from '@/ui/kit/pop';

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
/** What speaks for the cause and against it, the other causes, and what it rests on. */
function Reasons({ meaning: { causes, fors, against, rests } }: { meaning: Meaning }) {
  return (
    <div className="grid gap-2">
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
      <dl className="flex flex-wrap gap-x-4 text-sm text-quiet">
        {rests.map((r) => (
          <div key={r.name} className="flex gap-1.5">
            <dt>{r.name}</dt>
            <dd className="figure-narrow">{r.value}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
const Next = ({ next }: { next: Meaning['next'] }) =>
  next && (
    <p>
      Next: {next.text} <span className="whitespace-nowrap text-quiet">About {next.minutes} min.</span>
    </p>
  );
const ADVICE = 'Advice from the readings and the section’s facts.';

/** Beside a running hold: the cause and the next move in two lines, the reasons on asking. The end reading judges. */
export const MeaningLine = ({ meaning }: { meaning: Meaning }) => (
  <section
    aria-label="What the trace means"
    className="border-l-4 border-ochre pl-3 text-sm sm:text-base"
    data-meaning={meaning.told ?? 'untold'}
  >
    <Pop
      className="text-left font-semibold underline decoration-dotted decoration-quiet underline-offset-4"
      cardClass="max-h-[70dvh] w-[min(30rem,92vw)] overflow-auto p-4 text-base"
      trigger={
        <>
          {meaning.headline}
          <span className="sr-only">, why?</span>
        </>
      }
    >
      {() => (
        <>
          <Reasons meaning={meaning} />
          <p className="mt-3 text-sm text-quiet">{ADVICE} The end reading judges.</p>
        </>
      )}
    </Pop>
    <Next next={meaning.next} />
  </section>
);
/** What a trace meant, on a record: the reasons stand open; there is no next move. */
export const MeaningCard = ({ meaning }: { meaning: Meaning }) => (
  <section
    aria-label="What the trace means"
    className="grid gap-2 border-l-4 border-ochre bg-panel px-4 py-3"
    data-meaning={meaning.told ?? 'untold'}
  >
    <p className="text-lg font-semibold">{meaning.headline}</p>
    <Reasons meaning={meaning} />
    <p className="text-sm text-quiet">{ADVICE} The rule alone judges.</p>
  </section>
);
