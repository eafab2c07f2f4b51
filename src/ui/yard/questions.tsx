'use client';
import type { Score } from '@/core/yard/progress';
import { type About, type Choice, type Question, QUESTIONS } from '@/core/yard/questions/question';
import { useAttempt } from '@/ui/kit/use-attempt';
import { office } from '@/device/office';
import { TraceChart } from '@/ui/charts/trace';
import { Button } from '@/ui/kit/button';
import { FIELD, Field } from '@/ui/kit/field';
import { useSize } from '@/ui/kit/use-size';
import type { Asked, Told } from '@/wire/yard';
import { useState } from 'react';

const scoreWords = (s: Score | undefined): string =>
  s?.asked ? `${s.right} of ${s.asked} right` : 'not asked yet';
/** Short questions one after another: chosen by kind, answered, told why. */
export function QuestionsView({ scores: known }: { scores: Readonly<Record<string, Score>> }) {
  const [scores, setScores] = useState(known);
  const [asked, setAsked] = useState<Asked | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const { busy, trouble, attempt } = useAttempt();
  const next = (about: About) =>
    attempt(async () => {
      if (asked?.about !== about) setAsked(null);
      const put = await office<Asked>('/api/yard/questions', { body: { about } });
      setTold(null);
      setAsked(put);
    });
  const answer = (a: object) =>
    attempt(async () => {
      const { about, n, mark } = asked!;
      const t = await office<Told>('/api/yard/questions/answer', { body: { about, n, mark, ...a } });
      setTold(t);
      setScores((s) => ({ ...s, [about]: t.score }));
    });
  return (
    <div className="mt-3 grid gap-4">
      <div className="grid gap-2 sm:grid-cols-3" role="group" aria-label="Kind of question">
        {(Object.keys(QUESTIONS) as About[]).map((about) => (
          <Button
            key={about}
            tone={asked?.about === about ? 'act' : 'plain'}
            aria-pressed={asked?.about === about}
            disabled={busy}
            onClick={() => void next(about)}
          >
            <span className="grid">
              <span>{QUESTIONS[about]}</span>
              <span className="text-sm font-normal">{scoreWords(scores[about])}</span>
            </span>
          </Button>
        ))}
      </div>
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
      {busy && !asked && <p className="text-quiet">A test is being conducted for you …</p>}
      {asked && (
        <One
          key={`${asked.about} ${asked.n}`}
          asked={asked}
          told={told}
          busy={busy}
          onAnswer={(a) => void answer(a)}
          onNext={() => void next(asked.about)}
        />
      )}
    </div>
  );
}
function One({
  asked,
  told,
  busy,
  onAnswer,
  onNext,
}: {
  asked: Asked;
  told: Told | null;
  busy: boolean;
  onAnswer: (a: object) => void;
  onNext: () => void;
}) {
  const { question: q } = asked;
  const [choice, setChoice] = useState('');
  const [reason, setReason] = useState('');
  const [figure, setFigure] = useState('');
  const value = Number(figure.trim().replace(',', '.').replace('−', '-'));
  const wrong = figure.trim() !== '' && !Number.isFinite(value);
  const whole =
    (!q.choices || choice) && (!q.reasons || reason) && (q.unit === undefined || (figure.trim() && !wrong));
  const send = () =>
    onAnswer({
      ...(q.choices ? { choice } : {}),
      ...(q.reasons ? { reason } : {}),
      ...(q.unit === undefined ? {} : { figure: value }),
    });
  return (
    <article className="border-2 border-dashed border-heather p-3 sm:p-4" data-question={asked.about}>
      <p className="text-sm text-heather">
        Practice, {q.trade}; question {asked.n + 1}
      </p>
      <h2 className="text-lg font-semibold">{q.title}</h2>
      <div className="mt-2 grid gap-5 lg:grid-cols-2">
        <Given q={q} />
        <form
          className="grid content-start gap-4"
          onSubmit={(e) => {
            e.preventDefault();
            if (whole && !told) send();
          }}
        >
          {q.choices && (
            <Choices
              name={q.ask}
              of={q.choices}
              value={choice}
              onChange={setChoice}
              right={told?.solution.choice}
              narrow
            />
          )}
          {q.reasons && (
            <Choices
              name="Because"
              of={q.reasons}
              value={reason}
              onChange={setReason}
              right={told?.solution.reason}
            />
          )}
          {q.unit !== undefined && (
            <Field
              label={q.ask}
              {...(q.unit ? { hint: `in ${q.unit}; three in a hundred off counts as right` } : {})}
              wrong={wrong ? 'Type digits, like 20.35.' : undefined}
            >
              {(ids) => (
                <input
                  {...ids}
                  className={`${FIELD} max-w-60`}
                  inputMode="decimal"
                  autoComplete="off"
                  readOnly={told !== null}
                  value={figure}
                  onChange={(e) => setFigure(e.target.value)}
                />
              )}
            </Field>
          )}
          {told ? (
            <Answered told={told} onNext={onNext} busy={busy} />
          ) : (
            <Button type="submit" tone="act" disabled={!whole || busy}>
              That is my answer
            </Button>
          )}
        </form>
      </div>
    </article>
  );
}
/** What was conducted and read. */
function Given({ q }: { q: Question }) {
  const [setEl, { width }] = useSize();
  return (
    <div className="grid content-start gap-3" ref={setEl}>
      {q.trace && width > 0 && (
        <TraceChart
          request={{
            width,
            height: 260,
            points: q.trace.points.map(({ t, p }) => ({ t: t - q.trace!.from, p })),
            marks: [],
            from: 0,
            to: q.trace.to - q.trace.from,
            decimals: q.trace.decimals,
            streamed: true,
          }}
          unit={q.trace.unit}
          title="What the gauge showed"
        />
      )}
      {q.lines && (
        <ol className="grid">
          {q.lines.map((l, i) => (
            <li
              key={`${i} ${l.title}`}
              className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-3 border-b border-seam py-1.5"
            >
              <span>{l.title}</span>
              <span className="figure-narrow">{l.text}</span>
            </li>
          ))}
        </ol>
      )}
      {q.facts.length > 0 && (
        <dl className="grid gap-1.5">
          {q.facts.map((f) => (
            <div key={`${f.name} ${f.value}`} className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-3">
              <dt className="text-quiet">{f.name}</dt>
              <dd>
                {f.value}
                {f.source && (
                  <span className="block text-sm text-quiet">{f.source}; check the edition in force</span>
                )}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}
function Choices({
  name,
  of,
  value,
  onChange,
  right,
  narrow = false,
}: {
  name: string;
  of: readonly Choice[];
  value: string;
  onChange: (key: string) => void;
  /** What counts, once it is told. */ right: readonly string[] | undefined;
  narrow?: boolean;
}) {
  return (
    <fieldset className="min-w-0">
      <legend className="font-semibold">{name}</legend>
      <div className={`mt-1 grid gap-1.5 ${narrow ? 'sm:grid-cols-2' : ''}`}>
        {of.map((c) => {
          const counts = right?.includes(c.key) ?? false;
          const missed = right && c.key === value && !counts;
          return (
            <label
              key={c.key}
              className={`grid min-h-12 grid-cols-[24px_1fr] items-center gap-2 border px-2 py-1.5 has-focus-visible:outline-2 has-focus-visible:outline-ink ${
                counts
                  ? 'border-moss border-l-8'
                  : missed
                    ? 'border-rust border-l-8'
                    : value === c.key
                      ? 'border-heather border-l-8'
                      : 'border-edge'
              }`}
            >
              <input
                type="radio"
                className="size-5 accent-(--heather)"
                name={name}
                checked={value === c.key}
                disabled={right !== undefined}
                onChange={() => onChange(c.key)}
              />
              <span>
                {c.text}
                {counts && <span className="text-moss"> (this is it)</span>}
                {missed && <span className="text-rust"> (your answer)</span>}
              </span>
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}
function Answered({ told, onNext, busy }: { told: Told; onNext: () => void; busy: boolean }) {
  const { solution: s, parts } = told;
  const half = !told.right && s.reason && (parts.choice || parts.reason);
  const o = s.opponent;
  return (
    <section aria-live="polite" className="grid gap-2 border-t border-seam pt-3" data-told={told.right}>
      <h3 className={`text-lg font-semibold ${told.right ? 'text-moss' : 'text-rust'}`}>
        {told.right
          ? 'Right'
          : half
            ? parts.choice
              ? 'The verdict is right, the reason is another'
              : 'The reason is right, the verdict is another'
            : s.figure
              ? `It is ${s.figure.text}`
              : 'Not this'}
      </h3>
      {s.tells.map((t) => (
        <p key={t} className="max-w-prose">
          {t}
        </p>
      ))}
      {o && (
        <p className="border-l-4 border-heather pl-3">
          The analysis read the same: “{o.says}”{' '}
          {o.right === null ? 'It cannot tell.' : o.right ? 'It is right.' : 'It is wrong.'}{' '}
          {told.score.asked > 1 && (
            <span className="text-quiet">
              So far you {told.score.right}, it {told.score.beside.right} of {told.score.asked};{' '}
              {told.score.beside.open} times it could not tell.
            </span>
          )}
        </p>
      )}
      <p className="text-sm text-quiet">{s.source}</p>
      <Button tone="act" disabled={busy} onClick={onNext}>
        {busy ? 'A test is being conducted …' : 'Next question'}
      </Button>
    </section>
  );
}
