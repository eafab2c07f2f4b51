'use client';
import { tradeOf } from '@/core/trades';
import Link from 'next/link';
import { lazy, Suspense, useState } from 'react';
import { impossibleTimes } from '@/core/record/office-clock';
import { recordStatus } from '@/core/record/status';
import { DANGER_WORDS } from '@/core/run/closing';
import { faultsFound } from '@/core/run/inventory';
import {
  clearsJointsAfter,
  debtBefore,
  debtWords,
  inDebtOrder,
  openJoints,
  unsafeOpen,
} from '@/core/run/read';
import { papersMissing, withPapers } from '@/core/run/papers';
import { verdictOf } from '@/core/verdict/verdict';
import { showFigure } from '@/core/quantity/figure';
import type { BenchEngine, BenchView } from '@/device/bench';
import { serverNow } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { unsent, openStore } from '@/device/store';
import { Button, HoldButton } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { dueDate, VERDICT_COLOUR } from '@/ui/kit/words';
import { Results } from '@/ui/kit/part-results';
import { Why } from '@/ui/kit/why';
import { may, type Identity } from '@/wire/role';
import { Find } from './find';
import { PapersPart } from './papers';
import { Signing, Witness } from './signing';
import { StopReason } from './stop';
import type { PanelProps } from './shared';

const JointList = lazy(() => import('./joint-list').then((m) => ({ default: m.JointList })));
const PhotoEntry = lazy(() => import('./photo-entry').then((m) => ({ default: m.PhotoEntry })));
type Props = { view: BenchView; engine: BenchEngine; who: Identity; act: PanelProps['act'] };
const field = 'mt-1 w-full max-w-xl min-h-14 border border-edge bg-panel px-3 text-lg';

/** After the test: verdict with its reason, put-back list, signatures, seal. */
export function Closing(props: Props) {
  const { view, act } = props;
  const { plan, state } = view;
  if (state.ending?.by === 'stop' && !state.ending.reason)
    return (
      <StopReason
        act={act}
        emergency={plan.system.emergencyContact}
        caution={plan.procedure.cautions.smell ?? ''}
      />
    );
  return (
    <div className="grid content-start gap-6">
      <VerdictText {...props} />
      <Found {...props} />
      {unsafeOpen(plan, state) && <Unsafe {...props} />}
      {clearsJointsAfter(state) && openJoints(state).length > 0 && (
        <section aria-labelledby="joints-open" className="border-l-4 border-ochre pl-3">
          <h2 id="joints-open" className="text-lg font-semibold">
            Joints not cleared yet
          </h2>
          <p>Disturbed today. Leak fluid on each, under pressure, before anybody signs.</p>
          <Suspense fallback={null}>
            <JointList view={view} act={act} />
          </Suspense>
        </section>
      )}
      {(state.phase === 'put-back' || state.phase === 'signing') && <Find {...props} />}
      {(state.phase === 'put-back' || state.phase === 'signing') && <Pictures {...props} />}
      {state.phase === 'put-back' && <PutBack {...props} />}
      {(state.phase === 'put-back' || state.phase === 'signing') && !state.signatures.length && (
        <PapersPart {...props} />
      )}
      {state.phase === 'signing' && !unsafeOpen(plan, state) && <Signing {...props} />}
      {state.phase === 'signed' && <Sealing {...props} />}
    </div>
  );
}

/** The label that hangs, the place as it is left: photos belong to the end of a test too. */
function Pictures({ view, engine, act }: Props) {
  const [open, setOpen] = useState(false);
  const visit = view.state.visits[view.state.visits.length - 1];
  if (!visit) return null;
  return open ? (
    <section aria-label="Photo" className="border border-seam p-4">
      <Suspense>
        <PhotoEntry view={view} engine={engine} act={act} visit={visit} onDone={() => setOpen(false)} />
      </Suspense>
    </section>
  ) : (
    <div>
      <Button className="min-h-14" onClick={() => setOpen(true)}>
        Take a photo
      </Button>
    </div>
  );
}

export function VerdictText({ view }: Pick<Props, 'view'>) {
  const verdict = verdictOf(view.plan, view.state)!;
  return (
    <section aria-labelledby="verdict" aria-live="polite">
      <h2
        id="verdict"
        className={`inline-block border-2 border-current px-4 py-2 text-3xl font-bold ${VERDICT_COLOUR[verdict.word]}`}
      >
        {verdict.label}
      </h2>
      <Results verdict={verdict} className="max-w-3xl" />
      <p className="mt-2 max-w-3xl">{verdict.plain}</p>
      <dl className="mt-3 grid gap-x-8 gap-y-1 sm:grid-cols-2">
        {verdict.adequacy && (
          <div>
            <dt className="text-sm text-quiet">{verdict.adequacy.figure.name}</dt>
            <dd>
              <Why
                guide="smallest-leak"
                facts={{ title: verdict.adequacy.figure.name, ...verdict.adequacy.figure }}
              >
                <span className="figure">{showFigure(verdict.adequacy.figure)}</span>
              </Why>
              ; matters here: <span className="figure">{verdict.adequacy.matters}</span>
            </dd>
          </div>
        )}
        {verdict.leakRate && (
          <div>
            <dt className="text-sm text-quiet">as measured</dt>
            <dd>
              <Why guide="leak-rate" facts={{ title: verdict.leakRate.name, ...verdict.leakRate }}>
                <span className="figure">{showFigure(verdict.leakRate)}</span>
              </Why>
            </dd>
          </div>
        )}
      </dl>
      <p className="mt-2 text-sm text-quiet">
        {verdict.reasons.map((r) => `Source: ${r.source}. `)}Check the edition in force where you work.
      </p>
    </section>
  );
}

/** What else came out of the run: reports to others, what is due later, joints, what was found at fault. */
function Found({ view }: Props) {
  const { plan, state } = view;
  const faults = faultsFound(plan, state);
  if (!state.reports.length && !state.followUps.length && !faults.length && !state.unsafe) return null;
  return (
    <section className="grid max-w-3xl gap-2" aria-label="What follows">
      {state.reports.map((r) => (
        <p key={r.text} className="border-l-4 border-heather pl-3">
          <strong>Report to the {r.to}:</strong> {r.text}
        </p>
      ))}
      {state.followUps.map((f) => (
        <p key={f.text} className="border-l-4 border-ochre pl-3">
          <strong>Due by {dueDate(state.ending!.at, f.days, plan.made.zone)}:</strong> {f.text}
        </p>
      ))}
      {faults.map((f) => (
        <p key={f} className="border-l-4 border-rust pl-3">
          <strong>Found at fault:</strong> {f}
        </p>
      ))}
      {state.unsafe && (
        <p className="border-l-4 border-rust pl-3">
          <strong>{DANGER_WORDS[state.unsafe.danger]}</strong>, {state.unsafe.action}: {state.unsafe.text}{' '}
          Told: {state.unsafe.told}.
        </p>
      )}
    </section>
  );
}

/** An unsafe situation is classed in words, disconnected or labelled, and its user told, before anyone signs. */
function Unsafe({ view, act }: Props) {
  const [danger, setDanger] = useState<'immediate-danger' | 'at-risk' | ''>('');
  const [action, setAction] = useState<'disconnected' | 'labelled' | 'refused' | ''>('');
  const [text, setText] = useState('');
  const [told, setTold] = useState('');
  const [trouble, setTrouble] = useState('');
  return (
    <section aria-labelledby="unsafe" className="grid max-w-3xl gap-3 border-l-4 border-rust pl-3">
      <h2 id="unsafe" className="text-xl font-semibold">
        How dangerous is it?
      </h2>
      <div className="grid gap-3 sm:grid-cols-2" role="group" aria-label="Class of danger">
        <Button
          className="min-h-20"
          tone={danger === 'immediate-danger' ? 'act' : 'plain'}
          aria-pressed={danger === 'immediate-danger'}
          onClick={() => setDanger('immediate-danger')}
        >
          Immediate danger: a danger to life or property if it is used or left connected
        </Button>
        <Button
          className="min-h-20"
          tone={danger === 'at-risk' ? 'act' : 'plain'}
          aria-pressed={danger === 'at-risk'}
          onClick={() => setDanger('at-risk')}
        >
          At risk: one or more faults could become a danger
        </Button>
      </div>
      <div className="grid gap-3 sm:grid-cols-3" role="group" aria-label="What was done">
        {(
          [
            ['disconnected', 'Disconnected and capped'],
            ['labelled', 'Shut and labelled do not use'],
            ['refused', 'User refused; told in writing, emergency line called'],
          ] as const
        ).map(([key, words]) => (
          <Button
            key={key}
            className="min-h-16"
            tone={action === key ? 'act' : 'plain'}
            aria-pressed={action === key}
            onClick={() => setAction(key)}
          >
            {words}
          </Button>
        ))}
      </div>
      <label>
        What is unsafe, in a few words; printed on notice and label
        <input className={field} value={text} onChange={(e) => setText(e.target.value)} maxLength={1000} />
      </label>
      <label>
        Who was told
        <input
          className={field}
          value={told}
          onChange={(e) => setTold(e.target.value)}
          placeholder={withPapers(view.plan, view.state).site.customer}
          maxLength={200}
        />
      </label>
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <Button
        tone="act"
        data-primary
        className="min-h-16"
        disabled={!danger || !action || !text.trim() || !told.trim()}
        onClick={() =>
          void act({
            kind: 'unsafe',
            danger: danger as 'at-risk',
            action: action as 'labelled',
            text: text.trim(),
            told: told.trim(),
          }).then((a) => setTrouble(a.accepted ? '' : a.text))
        }
      >
        Put it on record
      </Button>
    </section>
  );
}

function PutBack({ view, act }: Props) {
  const { plan, state } = view;
  const { use } = verdictOf(plan, state)!;
  const good = use !== 'shut-off';
  return (
    <section aria-labelledby="putback">
      <h2 id="putback" className="text-xl font-semibold">
        Put back
      </h2>
      {!good && (
        <p className="mt-1 max-w-3xl border-l-4 border-rust pl-3">
          {tradeOf(plan.system).fuel ? (
            <>
              Not shown tight: the gas stays off. An unsafe installation is disconnected or labelled, and its
              user told in writing. Emergency line:{' '}
              <span className="figure">{plan.system.emergencyContact}</span> ({plan.system.supplyValveOwner}).
            </>
          ) : (
            'Not shown tight: it stays out of use until it is mended and tested again. Tell whoever owns it, in writing.'
          )}
        </p>
      )}
      <ul className="mt-3 grid gap-3">
        {[...state.debts.filter((d) => d.cleared), ...inDebtOrder(plan, state)].map((d) => {
          const first = d.cleared ? null : debtBefore(plan, state, d.key);
          const debt = plan.procedure.debts[d.key]!;
          const words = debtWords(plan, d, !good && debt.unsafe ? debt.unsafe : debt.text);
          const clear = (text: string, answer?: string) =>
            void act({
              kind: 'debt',
              debt: d.key,
              text,
              ...(d.subject ? { subject: d.subject } : {}),
              ...(answer ? { answer } : {}),
            });
          return (
            <li
              key={`${d.key}${d.subject ?? ''}${d.openedAt}`}
              data-debt={d.cleared ? 'cleared' : 'open'}
              className="grid items-center gap-3 border-t border-seam pt-3 sm:grid-cols-[1fr_18rem]"
            >
              <span className="text-lg">{d.cleared ? d.cleared.text || words : words}</span>
              {d.cleared ? (
                <span className={d.cleared.poor ? 'text-rust' : 'text-moss'}>
                  {d.cleared.poor ? 'Fault, ' : ''}done by {d.cleared.byName}
                </span>
              ) : first ? (
                <span className="text-quiet">After the lines above.</span>
              ) : (
                <span className="grid gap-3">
                  {good && debt.answers
                    ? debt.answers.map((a) => (
                        <HoldButton
                          key={a.key}
                          tone={a.poor ? 'plain' : 'act'}
                          className="min-h-16"
                          onHeld={() => clear(debtWords(plan, d, a.text), a.key)}
                        >
                          {a.text}
                        </HoldButton>
                      ))
                    : (good && debt.proof ? debt.proof : ['']).map((proof) => (
                        <HoldButton
                          key={proof}
                          className="min-h-16"
                          onHeld={() => clear(proof ? `${words} (proof: ${proof})` : words)}
                        >
                          {proof ? `Done: ${proof}` : 'Done'}
                        </HoldButton>
                      ))}
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Sealing({ view, engine, who, act }: Props) {
  const { plan } = view;
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const [number, setNumber] = useState<string | null>(null);
  const sealed = view.sealed?.number ?? number;
  if (sealed)
    return (
      <section>
        <h2 className="text-xl font-semibold">
          Sealed as <span className="figure">{sealed}</span>
        </h2>
        <div className="mt-3 flex flex-wrap gap-3">
          <Link
            prefetch={false}
            className={buttonClass('act', 'min-h-16 text-lg')}
            href={`/ledger/${plan.run}`}
          >
            Open the {plan.practice ? 'practice record' : 'certificate'}
          </Link>
          <Link prefetch={false} className={buttonClass('plain', 'min-h-16')} href="/today">
            Back to Today
          </Link>
        </div>
      </section>
    );
  const seal = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await engine.sync();
      const left = await unsent(await openStore(who), plan.run);
      if (left.length)
        setTrouble(
          `${left.length} entries are not with the office yet. Signed, waiting for its number: sealing needs the office.`,
        );
      else
        setNumber(
          (await office<{ number: string }>(`/api/runs/${plan.run}/seal`, { method: 'POST' })).number,
        );
      void engine.sync();
    } catch (error) {
      const e = error as OfficeError;
      setTrouble(
        e.status === 0
          ? 'Signed, waiting for its number: sealing needs the office, and it cannot be reached. Try again where there is a signal.'
          : e.message,
      );
    }
    setBusy(false);
  };
  const doubts = plan.practice ? [] : impossibleTimes(plan, view.state, view.events, serverNow());
  const missing = plan.practice ? [] : papersMissing(plan, view.state);
  const nobody = { id: '', name: '', role: who.role, licence: null };
  const licence = plan.practice
    ? recordStatus(plan, { signer: nobody, sealer: nobody, day: '', impossible: [] }).reason
    : 'Whether it is a certificate depends on the licence of who signed as tester being in date; otherwise it seals as a record marked “not a certificate”.';
  return (
    <section>
      <h2 className="text-xl font-semibold">Signed, waiting for its number</h2>
      <p className="mt-1 max-w-3xl">
        Sealing gives the record its number and fingerprint. After that nothing can be changed; a later record
        can supersede it. {doubts.length === 0 && missing.length === 0 && licence}
      </p>
      {missing.length > 0 && (
        <p className="mt-2 max-w-3xl border-l-4 border-ochre pl-3">
          It will not be a certificate: {missing.join(' ')}
        </p>
      )}
      {doubts.length > 0 && (
        <div className="mt-2 max-w-3xl border-l-4 border-ochre pl-3">
          <p className="font-semibold">It will not be a certificate: its times cannot all be true.</p>
          {doubts.map((d) => (
            <p key={d}>{d}</p>
          ))}
          <p>
            Set the clock of this device, and hold the test again where a certificate is needed; what was read
            here is kept as a record.
          </p>
        </div>
      )}
      <Witness view={view} engine={engine} act={act} />
      <p role="alert" className="mt-2 min-h-6 text-rust">
        {trouble}
      </p>
      {may(who.role, 'seal') ? (
        <HoldButton className="min-h-20 w-full text-xl" disabled={busy} onHeld={() => void seal()}>
          {busy ? 'Sealing …' : 'Seal the record'}
        </HoldButton>
      ) : (
        <p className="border-l-4 border-ochre pl-3">A tester or the owner seals this run.</p>
      )}
    </section>
  );
}
