import { VERDICT_COLOUR } from '@/ui/kit/words';
import type { PublicFace } from '@/wire/records';
import { Fold } from './fold';

/** A record for anyone with its link. */
export function PublicCertificate({
  face,
  check,
}: {
  face: PublicFace;
  check: { good: boolean; faults: readonly string[] };
}) {
  return (
    <article className="grid gap-5" data-judged-in={face.judgedIn.join(' ')}>
      <header>
        <p className="text-sm text-quiet">{face.organisation}</p>
        <h1 className="text-2xl font-bold">{face.title}</h1>
        <p>{face.statusLine}</p>
      </header>
      {!check.good && (
        <p className="border-l-4 border-rust pl-3 text-lg font-semibold text-rust" role="alert">
          Do not rely on this record. {check.faults.join(' ')}
        </p>
      )}
      {face.marks.map((m) => (
        <p key={m} role="alert" className="border-2 border-ink px-4 py-2 text-lg font-semibold">
          {m}
        </p>
      ))}
      <section>
        <h2
          className={`inline-block border-2 border-current px-4 py-2 text-3xl font-bold ${VERDICT_COLOUR[face.word]}`}
        >
          {face.label}
        </h2>
        <p className="mt-3 text-lg">{face.plain}</p>
      </section>
      <Rows rows={face.first} />
      {face.seen.map((x) => (
        <section key={x.title}>
          <h2 className="font-semibold">{x.title}</h2>
          <ul className="list-inside list-disc">
            {x.lines.map((l) => (
              <li key={l}>{l}</li>
            ))}
          </ul>
        </section>
      ))}
      {check.good && (
        <p className="border-l-4 border-moss pl-3">
          Untouched since {face.organisation} sealed it on {face.sealed}: checked when you opened this page.
        </p>
      )}
      <div>
        <Fold title="How it was judged">
          <p>{face.sentence}</p>
          <Rows rows={face.rows} />
          <ol className="border-t border-seam">
            {face.stages.map((s, i) => (
              <li key={i} className="border-b border-seam py-1.5">
                <strong>{s.title}</strong>: {s.word}. <span className="text-sm">{s.text}</span>
              </li>
            ))}
          </ol>
        </Fold>
        <Fold title="Number and fingerprint, for whoever checks it">
          <p>
            <span className="figure">{face.number}</span>, sealed {face.sealed}
          </p>
          <p className="figure-narrow text-xs break-all">Fingerprint {face.hash}</p>
        </Fold>
      </div>
    </article>
  );
}
const Rows = ({ rows }: { rows: PublicFace['rows'] }) => (
  <dl className="grid gap-x-6 sm:grid-cols-[11rem_1fr]">
    {rows.map(([k, v]) => (
      <div key={k} className="contents">
        <dt className="border-t border-seam pt-2 text-sm text-quiet">{k}</dt>
        <dd className="border-seam pb-2 sm:border-t sm:pt-2">{v}</dd>
      </div>
    ))}
  </dl>
);
