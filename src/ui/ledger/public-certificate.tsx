import type { VerdictWord } from '@/core/verdict/verdict';
import { VERDICT_COLOUR } from '@/ui/kit/words';

interface Face {
  readonly number: string;
  readonly title: string;
  readonly statusLine: string;
  readonly organisation: string;
  readonly sealed: string;
  readonly word: VerdictWord;
  readonly label: string;
  readonly sentence: string;
  readonly plain: string;
  readonly rows: readonly (readonly [string, string])[];
  readonly stages: readonly { readonly title: string; readonly word: string; readonly text: string }[];
  readonly hash: string;
  readonly judgedIn: readonly string[];
  readonly marks: readonly string[];
}
/** A record for anyone with its link. */
export function PublicCertificate({
  face,
  check,
}: {
  face: Face;
  check: { good: boolean; faults: readonly string[] };
}) {
  return (
    <article className="grid gap-5" data-judged-in={face.judgedIn.join(' ')}>
      <p
        className={`border-l-4 pl-3 text-lg ${check.good ? 'border-moss' : 'border-rust font-semibold text-rust'}`}
        role={check.good ? undefined : 'alert'}
      >
        {check.good
          ? 'Untouched: this record matches its fingerprint, its signature and its place in the series.'
          : `Do not rely on this record. ${check.faults.join(' ')}`}
      </p>
      {face.marks.map((m) => (
        <p key={m} role="alert" className="border-2 border-ink px-4 py-2 text-lg font-semibold">
          {m}
        </p>
      ))}
      <header>
        <h1 className="text-2xl font-bold">{face.title}</h1>
        <p>
          {face.organisation}. {face.statusLine}
        </p>
        <p>
          <span className="figure">{face.number}</span>, sealed {face.sealed}
        </p>
      </header>
      <section>
        <h2
          className={`inline-block border-2 border-current px-4 py-2 text-2xl font-bold ${VERDICT_COLOUR[face.word]}`}
        >
          {face.label}
        </h2>
        <p className="mt-3 text-lg">{face.sentence}</p>
        <p className="mt-2">{face.plain}</p>
      </section>
      <dl className="grid gap-x-6 sm:grid-cols-[11rem_1fr]">
        {face.rows.map(([k, v]) => (
          <div key={k} className="contents">
            <dt className="border-t border-seam pt-2 text-sm text-quiet">{k}</dt>
            <dd className="border-seam pb-2 sm:border-t sm:pt-2">{v}</dd>
          </div>
        ))}
      </dl>
      <ol className="border-t border-seam">
        {face.stages.map((s, i) => (
          <li key={i} className="border-b border-seam py-1.5">
            <strong>{s.title}</strong>: {s.word}. <span className="text-sm">{s.text}</span>
          </li>
        ))}
      </ol>
      <p className="figure-narrow text-xs break-all">Fingerprint {face.hash}</p>
    </article>
  );
}
