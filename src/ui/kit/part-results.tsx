import type { PartResult } from '@/core/verdict/verdict';
import { VERDICT_COLOUR } from './words';

/** What a run said: its sentence, or the result of each part where it has several. */
export function Results({
  verdict,
  className,
}: {
  verdict: { readonly sentence: string; readonly parts?: readonly PartResult[] };
  className: string;
}) {
  if (!verdict.parts) return <p className="max-w-3xl text-lg leading-snug">{verdict.sentence}</p>;
  return (
    <dl className={`mt-3 ${className}`}>
      {verdict.parts.map((p) => (
        <div key={p.key} className="grid gap-x-4 border-t border-seam py-2 sm:grid-cols-[14rem_1fr]">
          <dt className="font-semibold">{p.title}</dt>
          <dd>
            <span className={`font-semibold ${p.word ? VERDICT_COLOUR[p.word] : ''}`}>{p.label}</span>
            {p.sentence && <span className="block">{p.sentence}</span>}
          </dd>
        </div>
      ))}
    </dl>
  );
}
