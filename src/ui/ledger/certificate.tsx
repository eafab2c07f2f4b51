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
import { SectionFigure } from '@/ui/network/section-figure';
import {
  Courses,
  Head,
  HoldsTable,
  Judged,
  MustBeSeen,
  PutBack,
  Sections,
  Signatures,
  SMALL,
  WhatWasTested,
  WhoWhenGauge,
} from './certificate-parts';
import { Evidence } from './evidence';
import { Fold } from './fold';
import { Story } from './story';

/**
 * A sealed record, from its sealed text alone: the result, by whom, when and by what gauge, on one drawing and one trace; the rest folded
 * in the order in which people ask. `log` adds everything that happened.
 */
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
      className="grid grid-cols-[minmax(0,1fr)] gap-4"
    >
      <Head face={face} seal={seal} good={check.good} />
      {!check.good && (
        <p className="border-l-4 border-rust pl-3 font-semibold text-rust" role="alert">
          Do not rely on this record. {check.faults.join(' ')}
        </p>
      )}
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
      <section className="flex flex-wrap items-start gap-x-5 gap-y-1">
        <h2
          className={`inline-block border-2 border-current px-4 py-1 text-3xl font-bold ${VERDICT_COLOUR[v.word]}`}
        >
          {v.label}
        </h2>
        <div className="min-w-0 flex-1 basis-96">
          <Results verdict={v} className="" />
          <p className="text-sm">{v.plain}</p>
        </div>
      </section>
      <WhoWhenGauge face={face} />
      <div
        className={`grid grid-cols-[minmax(0,1fr)] gap-4 ${request ? 'lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]' : ''}`}
      >
        <section>
          <h2 className={SMALL}>Section as it stood in the test</h2>
          <SectionFigure section={plan.system} className="mt-1" least={0.55} />
        </section>
        {request && (
          <section>
            <h2 className={SMALL}>Trace of the judged hold</h2>
            <FittedTrace request={request} unit={face.unit} title="Judged hold" />
          </section>
        )}
      </div>
      <MustBeSeen face={face} />
      {children}
      <div>
        <Fold title="What was tested, and what was not">
          <WhatWasTested face={face} />
          <SectionFigure section={plan.system} />
        </Fold>
        <Fold title="By which limits, and what the hold could have seen">
          <Judged face={face} />
          {(meaning?.enough || masked) && (
            <div className="mt-4 grid max-w-4xl gap-3">
              {meaning?.enough && <MeaningCard meaning={meaning} />}
              {masked && <ValveAndLeak masked={masked} />}
            </div>
          )}
        </Fold>
        <Fold title="Stage by stage">
          <Courses face={face} />
          {face.holds.length > 0 && <HoldsTable face={face} />}
        </Fold>
        {log && (
          <Fold title="Readings and photos, and how each came">
            <Evidence face={face} photos={photos} />
          </Fold>
        )}
        <Fold title="What follows, and everything else that was noted">
          <Sections face={face} />
          <PutBack face={face} />
        </Fold>
        <Fold title="Signatures and fingerprint">
          <Signatures face={face} seal={seal} />
        </Fold>
        {log && (
          <Fold title="Everything that happened, in order">
            <Story face={face} />
          </Fold>
        )}
      </div>
    </article>
  );
}
