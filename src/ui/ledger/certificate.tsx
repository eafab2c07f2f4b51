import { SectionFigure } from '@/ui/network/section-figure';
import { notCoveredIn } from '@/core/plan/not-covered';
import type { ReactNode } from 'react';
import { holdTrace } from '@/chart/run-trace';
import { wallCourses } from '@/chart/wall';
import { faceOf, inZone } from '@/core/record/face';
import { storyOf } from '@/core/record/story';
import type { Seal } from '@/core/record/seal';
import { signatureLines } from '@/core/record/signatures';
import { stepTimes } from '@/core/run/step-times';
import type { RunState } from '@/core/run/state';
import { FittedTrace } from '@/ui/charts/fitted-trace';
import { courseWords, Wall } from '@/ui/charts/wall';
import { VERDICT_COLOUR, VERDICT_INK } from '@/ui/kit/words';
import { Evidence } from './evidence';
import { Results } from '@/ui/kit/part-results';
import { Why } from '@/ui/kit/why';

/** The face of a sealed record, from its sealed text alone; `log` adds everything that happened, in order. */
export function CertificateView({
  body,
  seal,
  marks = [],
  photos = true,
  log,
  check,
  children,
}: {
  body: string;
  seal: Seal;
  /** What was said of it afterwards, in words. */
  marks?: readonly string[];
  /** Whether its photos are kept here under its run. */
  photos?: boolean;
  log: boolean;
  check: { good: boolean; faults: readonly string[] };
  /** What can be done with it: stands after the result. */
  children?: ReactNode;
}) {
  const face = faceOf(body);
  const { plan, state } = face;
  const v = face.body.verdict;
  const request = face.deciding
    ? holdTrace(plan, state, state.visits[face.deciding.visit - 1]!, face.deciding.hold, 0)
    : null;
  const courses = wallCourses(plan, state, state.lastAt).filter((c) => c.visit !== null);
  const h = 'text-sm text-quiet';
  return (
    <article className="grid grid-cols-[minmax(0,1fr)] gap-6">
      <header className="grid gap-4 lg:grid-cols-[1fr_auto]">
        <div>
          <p className={h}>{plan.organisation.name}</p>
          <h1 className="text-2xl font-bold">{face.title}</h1>
          <p>{face.statusLine}</p>
        </div>
        <div className="lg:text-right">
          <p className="figure text-2xl">{seal.number}</p>
          <p className={h}>
            sealed {inZone(Date.parse(face.body.sealedAt), plan.made.zone)} by {face.body.sealer.name}
          </p>
        </div>
      </header>
      <p
        className={`border-l-4 pl-3 ${check.good ? 'border-moss' : 'border-rust font-semibold text-rust'}`}
        role={check.good ? undefined : 'alert'}
      >
        {check.good
          ? 'Checked now: the record matches its fingerprint, its signature and its place in the series.'
          : `Do not rely on this record. ${check.faults.join(' ')}`}
      </p>
      {marks.map((m) => (
        <p key={m} className="border-2 border-ink px-4 py-2 text-lg font-semibold" role="note">
          {m}
        </p>
      ))}
      {plan.supersedes && (
        <p>
          In place of {plan.supersedes.number}: {plan.supersedes.reason}
        </p>
      )}
      <section>
        <h2
          className={`inline-block border-2 border-current px-4 py-2 text-3xl font-bold ${VERDICT_COLOUR[v.word]}`}
        >
          {v.label}
        </h2>
        <Results verdict={v} className="max-w-4xl" />
        <p className="mt-2 max-w-3xl">{v.plain}</p>
      </section>
      {children}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-4 lg:grid-cols-2">
        <section>
          <h2 className={h}>Site and customer</h2>
          <p>
            {plan.site.name}, {plan.site.address}. {plan.site.customer}
          </p>
        </section>
        <section>
          <h2 className={h}>System</h2>
          <p>
            {plan.system.name}: {face.tested}. Bounded by {plan.system.supplyValve} (owner:{' '}
            {plan.system.supplyValveOwner}).
          </p>
        </section>
        <section className="lg:col-span-2">
          <h2 className={h}>Section as it stood in the test</h2>
          <SectionFigure section={plan.system} className="mt-1" />
        </section>
        <section>
          <h2 className={h}>Inside the test</h2>
          <p>
            {plan.system.inScope.join('; ')}.
            {plan.system.appliances.length > 0 &&
              ` Appliances that day: ${plan.system.appliances.map((a) => a.name).join(', ')}.`}
          </p>
        </section>
        <section>
          <h2 className={h}>Not covered</h2>
          <p>
            {notCoveredIn(plan).join('; ')}.{face.skipped.map((s) => ` ${s}.`)}
          </p>
        </section>
        <section>
          <h2 className={h}>Gauge that judged</h2>
          <p>
            {face.gauge}. Zero open to air: {face.zeros}.
          </p>
        </section>
        <section>
          <h2 className={h}>Limits</h2>
          <ul>
            {face.limits.map((l, i) => (
              <li key={i}>
                {l.name}:{' '}
                <Why
                  facts={{
                    title: l.name,
                    source: l.source,
                    text: l.name === 'permitted drop' ? `Row: ${face.row}.` : undefined,
                  }}
                >
                  <span className="figure-narrow">{l.value}</span>
                </Why>
              </li>
            ))}
          </ul>
          <p className={h}>
            {plan.pack.title}, {plan.pack.school}, {plan.pack.edition}
            {plan.engine && `, judgement ${plan.engine}`}. Check the edition in force where you work.
          </p>
        </section>
        <section>
          <h2 className={h}>What the hold could have seen</h2>
          {v.adequacy ? (
            <p>
              <Why facts={{ title: v.adequacy.figure.name, ...v.adequacy.figure }}>
                <span className="figure-narrow">{v.adequacy.figure.value}</span>
              </Why>
              . {v.adequacy.text}
            </p>
          ) : (
            <p>There was no judged hold.</p>
          )}
        </section>
        {v.leakRate && (
          <section>
            <h2 className={h}>As measured</h2>
            <p>
              <Why facts={{ title: v.leakRate.name, ...v.leakRate }}>
                <span className="figure-narrow">{v.leakRate.value}</span>
              </Why>
            </p>
          </section>
        )}
      </div>
      <section className="grid gap-6 lg:grid-cols-[190px_1fr]">
        <div className="max-lg:hidden">
          <Wall
            courses={courses}
            props={[]}
            openJoint
            width={180}
            scale={1.8}
            reach={14}
            stamp={{ word: v.label.length > 24 ? 'Tight by rule' : v.label, colour: VERDICT_INK[v.word] }}
          />
        </div>
        <ol className="self-end" reversed>
          {[...courses].reverse().map((c) => {
            const line = v.stages[c.visit! - 1];
            return (
              <li key={c.key} className="border-t border-seam py-1.5">
                <span className="font-semibold">{c.title}</span>: {line?.word}{' '}
                <span className={h}>({courseWords(c)})</span>
                <span className="block text-sm">{line?.text}</span>
              </li>
            );
          })}
        </ol>
      </section>
      {request && (
        <section>
          <h2 className={h}>Trace of the judged hold</h2>
          <FittedTrace request={request} unit={face.unit} title="Judged hold" />
        </section>
      )}
      <div className="overflow-x-auto" role="region" aria-label="Holds" tabIndex={0}>
        <h2 className={h}>Holds</h2>
        <table className="mt-1 w-full min-w-[640px] text-sm">
          <thead>
            <tr className="text-left text-quiet [&>th]:pr-3 [&>th]:font-normal">
              <th>Stage</th>
              <th>Begun</th>
              <th>Start</th>
              <th>End</th>
              <th>Change</th>
              <th>Elapsed</th>
              <th>Result</th>
            </tr>
          </thead>
          <tbody>
            {face.holds.map((x, i) => (
              <tr key={i} className="border-t border-seam [&>td]:py-1.5 [&>td]:pr-3">
                <td>{x.title}</td>
                <td>{x.began}</td>
                <td className="figure-narrow">{x.start}</td>
                <td className="figure-narrow">{x.end}</td>
                <td className="figure-narrow">{x.change}</td>
                <td className="figure-narrow">{x.elapsed}</td>
                <td>{x.word}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className={`mt-2 ${h}`}>{face.clock}</p>
      </div>
      <section className="flex flex-wrap gap-10">
        {signatureLines(face).map((sig, i) => (
          <div key={i}>
            <h2 className={h}>{sig.role}</h2>
            {sig.strokes ? (
              <svg
                viewBox="0 0 300 100"
                width="210"
                height="70"
                role="img"
                aria-label={`signature: ${sig.text}`}
              >
                <path d={sig.strokes} fill="none" stroke="var(--ink)" strokeWidth="2.5" />
              </svg>
            ) : (
              <p className="py-4">{sig.instead}</p>
            )}
            <p className="text-sm">{sig.text}</p>
          </div>
        ))}
        <div className="min-w-0">
          <h2 className={h}>Fingerprint</h2>
          <p className="figure-narrow max-w-[36ch] text-xs break-all">{seal.hash}</p>
        </div>
      </section>
      {face.sections.length > 0 && (
        <div className="grid gap-x-10 gap-y-4 lg:grid-cols-2">
          {face.sections.map((x) => (
            <section key={x.title}>
              <h2 className={h}>{x.title}</h2>
              <ul>
                {x.lines.map((l) => (
                  <li key={l}>{l}</li>
                ))}
              </ul>
            </section>
          ))}
        </div>
      )}
      {log && <Evidence face={face} photos={photos} />}
      <section>
        <h2 className={h}>Put back</h2>
        <ul>
          {face.putBack.map((d) => (
            <li key={d}>{d}</li>
          ))}
          {!face.putBack.length && <li>Nothing was owed.</li>}
        </ul>
      </section>
      <section className="text-sm">
        <h2 className={h}>Cautions given</h2>
        <ul className="list-inside list-disc">
          {face.cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
        <p className="mt-2 text-quiet">{plan.pack.notice}</p>
      </section>
      {log && (
        <div className="overflow-x-auto" role="region" aria-label="Everything that happened" tabIndex={0}>
          <StepTimes state={state} />
          <h2 className="mt-6 text-lg font-semibold">Everything that happened, in order</h2>
          <table className="mt-2 w-full min-w-[700px] text-sm">
            <thead>
              <tr className="text-left text-quiet [&>th]:pr-3 [&>th]:font-normal">
                <th>Device’s clock</th>
                <th>Server’s clock</th>
                <th>Who</th>
                <th>What</th>
              </tr>
            </thead>
            <tbody>
              {storyOf(face, face.body.events).map((e, i) => (
                <tr key={i} className="border-t border-seam align-top [&>td]:py-1 [&>td]:pr-3">
                  <td className="whitespace-nowrap">{e.at}</td>
                  <td className="whitespace-nowrap text-quiet">{e.server}</td>
                  <td>{e.who}</td>
                  <td>
                    {e.what}
                    {e.note && <span className="block text-quiet">{e.note}</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </article>
  );
}

/** Where the time went, step by step: beside the estimates of the plan it shows where a job loses time. */
function StepTimes({ state }: { state: RunState }) {
  const steps = stepTimes(state);
  if (!steps.length) return null;
  return (
    <details>
      <summary className="min-h-10 cursor-pointer text-lg font-semibold">
        Time per step, {Math.round(steps.reduce((s, x) => s + x.minutes, 0))} min
      </summary>
      <table className="mt-2 w-full max-w-2xl">
        <thead>
          <tr className="text-left text-sm text-quiet [&>th]:py-1 [&>th]:pr-3 [&>th]:font-normal">
            <th>Step</th>
            <th className="text-right">Minutes</th>
            <th className="text-right">of it held</th>
            <th className="text-right">Times</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((s) => (
            <tr key={s.stage} className="border-t border-seam [&>td]:pr-3 [&>td]:text-right">
              <th scope="row" className="py-1 text-left font-normal">
                {s.title}
              </th>
              <td className="figure-narrow">{s.minutes.toFixed(1)}</td>
              <td className="figure-narrow">{s.held ? s.held.toFixed(1) : ''}</td>
              <td className="figure-narrow">{s.times}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
