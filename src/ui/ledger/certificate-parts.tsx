import { boundedWords, mustBeSeen } from '@/core/record/face-words';
import { wallCourses } from '@/chart/wall';
import { notCoveredIn } from '@/core/plan/not-covered';
import { type faceOf, inZone } from '@/core/record/face';
import { clockInZone } from '@/core/quantity/in-zone';
import { localDate } from '@/core/quantity/local-date';
import type { Seal } from '@/core/record/seal';
import { gaugesUsed } from '@/core/run/read';
import { signatureLines } from '@/core/record/signatures';
import { courseWords, Wall } from '@/ui/charts/wall';
import { BothUnits } from '@/ui/frame/lens';
import { Why } from '@/ui/kit/why';
import { VERDICT_INK } from '@/ui/kit/words';
import { Fragment } from 'react';

export type Face = ReturnType<typeof faceOf>;
type OfFace = { readonly face: Face };
export const SMALL = 'text-sm text-quiet';
const H = SMALL;

/** @param good whether it was checked now, and is what was sealed */
export function Head({ face, seal, good }: OfFace & { seal: Seal; good: boolean }) {
  const { plan } = face;
  return (
    <header className="grid gap-4 lg:grid-cols-[1fr_auto]">
      <div>
        <p className={H}>{plan.organisation.name}</p>
        <h1 className="text-2xl font-bold">{face.title}</h1>
        <p>{face.statusLine}</p>
      </div>
      <div className="lg:text-right">
        <p className="figure text-2xl">{seal.number}</p>
        <p className={H}>
          sealed {inZone(Date.parse(face.body.sealedAt), plan.made.zone)} by {face.body.sealer.name}
        </p>
        {good && (
          <p className={`max-w-96 ${H} lg:ml-auto`}>
            Checked now: the record matches its fingerprint, its signature and its place in the series.
          </p>
        )}
      </div>
    </header>
  );
}
/** From when to when, the day once where it is one. */
function whenWords({ plan, state }: Face): string {
  const { zone } = plan.made;
  const began = Date.parse(plan.made.at);
  if (!state.ending) return inZone(began, zone);
  const sameDay = localDate(began, zone) === localDate(state.ending.at, zone);
  return `${inZone(began, zone)} to ${(sameDay ? clockInZone : inZone)(state.ending.at, zone)}`;
}
/** What judged, by name and serial; its range and calibration stand with the limits. */
function gaugeWords({ plan, state, gauge }: Face): string {
  const used = plan.gauges.filter((g) => gaugesUsed(state).includes(g.id));
  return (
    used
      .map((g) => `${g.name}${g.simulated ? ' (simulated)' : g.serial ? `, serial ${g.serial}` : ''}`)
      .join('; ') || gauge
  );
}
/** Place, person, time and gauge, each in a line. */
export function WhoWhenGauge({ face }: OfFace) {
  const { plan } = face;
  const tester = signatureLines(face)[0]!;
  const facts = [
    ['Place', `${plan.site.name}: ${plan.system.name}${face.tested ? `, ${face.tested}` : ''}`],
    ['Who', tester.strokes ? tester.text.split(',')[0]! : face.body.sealer.name],
    ['When', whenWords(face)],
    ['Gauge', gaugeWords(face)],
  ] as const;
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2 border-y border-seam py-2">
      <dl className="grid min-w-0 flex-1 basis-80 grid-cols-2 gap-x-8 gap-y-1 lg:grid-cols-[2fr_1fr_2fr_2fr]">
        {facts.map(([name, value]) => (
          <div key={name}>
            <dt className={H}>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <BothUnits className="no-print text-sm" />
    </div>
  );
}
export function MustBeSeen({ face }: OfFace) {
  const open = face.sections.filter(mustBeSeen);
  return open.length ? <Listed sections={open} /> : null;
}
const Listed = ({ sections }: { sections: Face['sections'] }) => (
  <div className="grid gap-x-10 gap-y-4 lg:grid-cols-2">
    {sections.map((x) => (
      <section key={x.title}>
        <h3 className={H}>{x.title}</h3>
        <ul>
          {x.lines.map((l) => (
            <li key={l}>{l}</li>
          ))}
        </ul>
      </section>
    ))}
  </div>
);
/** Site, system, scope: what was tested and what was not. */
export function WhatWasTested({ face }: OfFace) {
  const { plan } = face;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-4 lg:grid-cols-2">
      <section>
        <h3 className={H}>Site and customer</h3>
        <p>
          {plan.site.name}, {plan.site.address}. {plan.site.customer}
        </p>
      </section>
      <section>
        <h3 className={H}>System</h3>
        <p>
          {plan.system.name}: {face.tested}. {boundedWords(plan)}
        </p>
      </section>
      <section>
        <h3 className={H}>Inside the test</h3>
        <p>
          {plan.system.inScope.join('; ')}.
          {plan.system.appliances.length > 0 &&
            ` Appliances that day: ${plan.system.appliances.map((a) => a.name).join(', ')}.`}
        </p>
      </section>
      <section>
        <h3 className={H}>Not covered</h3>
        <p>
          {notCoveredIn(plan).join('; ')}.{face.skipped.map((s) => ` ${s}.`)}
        </p>
      </section>
    </div>
  );
}
/** By what it was judged, and what that could have seen. */
export function Judged({ face }: OfFace) {
  const { plan } = face;
  const v = face.body.verdict;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-4 lg:grid-cols-2">
      <section>
        <h3 className={H}>Gauge that judged</h3>
        <p>
          {face.gauge}. Zero open to air: {face.zeros}.
        </p>
      </section>
      <section>
        <h3 className={H}>Limits</h3>
        <ul>
          {face.limits.map((l, i) => (
            <li key={i}>
              {l.name}:{' '}
              <Why
                guide="limit"
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
        <p className={H}>
          {plan.pack.title}, {plan.pack.school}, {plan.pack.edition}
          {plan.engine && `, judgement ${plan.engine}`}. Check the edition in force where you work.
        </p>
      </section>
      <section>
        <h3 className={H}>What the hold could have seen</h3>
        {v.adequacy ? (
          <p>
            <Why guide="smallest-leak" facts={{ title: v.adequacy.figure.name, ...v.adequacy.figure }}>
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
          <h3 className={H}>As measured</h3>
          <p>
            <Why guide="leak-rate" facts={{ title: v.leakRate.name, ...v.leakRate }}>
              <span className="figure-narrow">{v.leakRate.value}</span>
            </Why>
          </p>
        </section>
      )}
    </div>
  );
}
/** The wall, each course beside its own sentence. */
export function Courses({ face }: OfFace) {
  const { plan, state } = face;
  const v = face.body.verdict;
  const courses = wallCourses(plan, state, state.lastAt).filter((c) => c.visit !== null);
  return (
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
              <span className={H}>({courseWords(c)})</span>
              <span className="block text-sm">{line?.text}</span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
export function HoldsTable({ face }: OfFace) {
  return (
    <div className="overflow-x-auto" role="region" aria-label="Holds" tabIndex={0}>
      <h3 className={H}>Holds</h3>
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
            <Fragment key={i}>
              <tr className="border-t border-seam [&>td]:pt-1.5 [&>td]:pr-3">
                <td>{x.title}</td>
                <td>{x.began}</td>
                <td className="figure-narrow whitespace-nowrap">{x.start}</td>
                <td className="figure-narrow whitespace-nowrap">{x.end}</td>
                <td className="figure-narrow whitespace-nowrap">{x.change}</td>
                <td className="figure-narrow whitespace-nowrap">{x.elapsed}</td>
                <td>{x.word}</td>
              </tr>
              <tr>
                <td colSpan={7} className="pb-1.5 text-quiet">
                  {x.times}
                </td>
              </tr>
            </Fragment>
          ))}
        </tbody>
      </table>
      <p className={`mt-2 ${H}`}>{face.clock}</p>
    </div>
  );
}
export function Signatures({ face, seal }: OfFace & { seal: Seal }) {
  return (
    <section className="flex flex-wrap gap-10">
      {signatureLines(face).map((sig, i) => (
        <div key={i}>
          <h3 className={H}>{sig.role}</h3>
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
        <h3 className={H}>Fingerprint</h3>
        <p className="figure-narrow max-w-[36ch] text-xs break-all">{seal.hash}</p>
      </div>
    </section>
  );
}
/** What else was noted; what must be seen stands before it. */
export function Sections({ face }: OfFace) {
  return <Listed sections={face.sections.filter((x) => !mustBeSeen(x))} />;
}
export function PutBack({ face }: OfFace) {
  const { plan } = face;
  return (
    <>
      <section>
        <h3 className={H}>Put back</h3>
        <ul>
          {face.putBack.map((d) => (
            <li key={d}>{d}</li>
          ))}
          {!face.putBack.length && <li>Nothing was owed.</li>}
        </ul>
      </section>
      <section className="text-sm">
        <h3 className={H}>Cautions given</h3>
        <ul className="list-inside list-disc">
          {face.cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
        <p className="mt-2 text-quiet">{plan.pack.notice}</p>
      </section>
    </>
  );
}
