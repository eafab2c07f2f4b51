import { fittingOptions } from '@/core/pack/answers';
import type { Choice } from '@/core/pack/schema';
import { Field, FIELD } from '@/ui/kit/field';

/** The pack's questions on which schools differ. An option that belongs to another answer is offered only with it. */
export function ChoiceFields({
  questions,
  chosen,
  onChange,
}: {
  questions: readonly Choice[];
  chosen: Readonly<Record<string, string>>;
  onChange: (chosen: Record<string, string>) => void;
}) {
  const answers: Record<string, string> = Object.fromEntries(
    questions.map((q) => [q.key, chosen[q.key] ?? q.default]),
  );
  for (const q of questions) {
    const fits = fittingOptions(q, answers);
    if (!fits.some((o) => o.key === answers[q.key]) && fits[0]) answers[q.key] = fits[0].key;
  }
  /** An answer that the change made impossible is given up; what was not chosen stays the pack's own. */
  const take = (key: string, option: string) => {
    const next: Record<string, string> = { ...chosen, [key]: option };
    const all = { ...answers, [key]: option };
    for (const q of questions)
      if (q.key !== key && !fittingOptions(q, all).some((o) => o.key === all[q.key])) delete next[q.key];
    onChange(next);
  };
  return questions.map((q) => (
    <Field key={q.key} label={q.question} className="mt-2">
      {(ids) => (
        <>
          <select
            {...ids}
            className={FIELD}
            value={answers[q.key]}
            onChange={(e) => take(q.key, e.target.value)}
          >
            {fittingOptions(q, answers).map((o) => (
              <option key={o.key} value={o.key}>
                {o.label}
              </option>
            ))}
          </select>
          <span className="block text-sm text-quiet">{q.reason}</span>
        </>
      )}
    </Field>
  ));
}
