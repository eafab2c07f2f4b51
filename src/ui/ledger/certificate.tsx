import { holdTrace } from '@/chart/run-trace';
import { meaningOfHold } from '@/core/analysis/of-hold';
import { faceOf } from '@/core/record/face';
import { unitsJudgedIn } from '@/core/run/read';
import type { Seal } from '@/core/record/seal';
import { maskedIn } from '@/core/verdict/masked';
import { MeaningCard } from '@/ui/analysis/meaning-card';
import { ValveAndLeak } from '@/ui/analysis/valve-and-leak';
import { FittedTrace } from '@/ui/charts/fitted-trace';
import { Results } from '@/ui/kit/part-results';
import { VERDICT_COLOUR } from '@/ui/kit/words';
import type { ReactNode } from 'react';
import { Courses, Head, HoldsTable, PutBack, Sections, Signatures, WhatWasTested } from './certificate-parts';
import { Evidence } from './evidence';
import { Story } from './story';

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
  const judged = face.deciding
    ? { visit: state.visits[face.deciding.visit - 1]!, hold: face.deciding.hold }
    : null;
  const meaning = judged && log ? meaningOfHold(plan, state, judged.visit, judged.hold) : null;
  const masked = log ? maskedIn(plan, state, null) : null;
  const request = judged ? holdTrace(plan, state, judged.visit, judged.hold, 0, meaning) : null;
  return (
    <article
      data-judged-in={unitsJudgedIn(plan, state).join(' ')}
      className="grid grid-cols-[minmax(0,1fr)] gap-6"
    >
      <Head face={face} seal={seal} />
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
      <WhatWasTested face={face} />
      <Courses face={face} />
      {request && (
        <section>
          <h2 className="text-sm text-quiet">Trace of the judged hold</h2>
          <FittedTrace request={request} unit={face.unit} title="Judged hold" />
          <div className="mt-3 grid max-w-4xl gap-3">
            {meaning?.enough && <MeaningCard meaning={meaning} />}
            {masked && <ValveAndLeak masked={masked} />}
          </div>
        </section>
      )}
      <HoldsTable face={face} />
      <Signatures face={face} seal={seal} />
      <Sections face={face} />
      {log && <Evidence face={face} photos={photos} />}
      <PutBack face={face} />
      {log && <Story face={face} />}
    </article>
  );
}
