'use client';
import Link from 'next/link';
import { useState } from 'react';
import { recordStatus } from '@/core/record/status';
import { verdictOf } from '@/core/verdict/verdict';
import { showFigure } from '@/core/quantity/figure';
import type { BenchEngine, BenchView } from '@/device/bench';
import { office, type OfficeError } from '@/device/office';
import { unsent, openStore } from '@/device/store';
import { Button, HoldButton } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { VERDICT_COLOUR } from '@/ui/kit/words';
import { Why } from '@/ui/kit/why';
import { maySeal, type Identity } from '@/wire/role';
import { SignatureField } from './signature-pad';
import { StopReason } from './stop';
import type { PanelProps } from './shared';

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
      {state.phase === 'put-back' && <PutBack {...props} />}
      {state.phase === 'signing' && <Signing {...props} />}
      {state.phase === 'signed' && <Sealing {...props} />}
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
      <p className="mt-3 max-w-3xl text-lg">{verdict.sentence}</p>
      <p className="mt-2 max-w-3xl">{verdict.plain}</p>
      <dl className="mt-3 grid gap-x-8 gap-y-1 sm:grid-cols-2">
        {verdict.adequacy && (
          <div>
            <dt className="text-sm text-quiet">{verdict.adequacy.figure.name}</dt>
            <dd>
              <Why facts={{ title: verdict.adequacy.figure.name, ...verdict.adequacy.figure }}>
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
              <Why facts={{ title: verdict.leakRate.name, ...verdict.leakRate }}>
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

function PutBack({ view, act }: Props) {
  const { plan, state } = view;
  const good = ['tight', 'within-allowance'].includes(verdictOf(plan, state)!.word);
  return (
    <section aria-labelledby="putback">
      <h2 id="putback" className="text-xl font-semibold">
        Put back
      </h2>
      {!good && (
        <p className="mt-1 max-w-3xl border-l-4 border-rust pl-3">
          Not shown tight: the gas stays off. An unsafe installation is disconnected or labelled, and its user
          told in writing. Emergency line: <span className="figure">{plan.system.emergencyContact}</span> (
          {plan.system.supplyValveOwner}).
        </p>
      )}
      <ul className="mt-3 grid gap-3">
        {state.debts.map((d) => {
          const debt = plan.procedure.debts[d.key]!;
          const words = !good && debt.unsafe ? debt.unsafe : debt.text;
          return (
            <li
              key={`${d.key}${d.openedAt}`}
              className="grid items-center gap-3 border-t border-seam pt-3 sm:grid-cols-[1fr_18rem]"
            >
              <span className="text-lg">{d.cleared ? d.cleared.text || words : words}</span>
              {d.cleared ? (
                <span className="text-moss">Done by {d.cleared.byName}</span>
              ) : (
                <span className="grid gap-3">
                  {(good && debt.proof ? debt.proof : ['']).map((proof) => (
                    <HoldButton
                      key={proof}
                      className="min-h-16"
                      onHeld={() =>
                        void act({
                          kind: 'debt',
                          debt: d.key,
                          text: proof ? `${words} (proof: ${proof})` : words,
                        })
                      }
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

function Signing({ view, act, who }: Props) {
  const { plan, state } = view;
  const tester = state.signatures.find((s) => s.role === 'tester');
  const [strokes, setStrokes] = useState('');
  const [name, setName] = useState('');
  const [refused, setRefused] = useState('');
  const [refuses, setRefuses] = useState(false);
  const [trouble, setTrouble] = useState('');
  const send = async (payload: Parameters<typeof act>[0]) => {
    const answer = await act(payload);
    if (!answer.accepted) setTrouble(answer.text);
    else {
      setStrokes('');
      setTrouble('');
    }
  };
  if (!tester)
    return (
      <section aria-labelledby="sign">
        <h2 id="sign" className="text-xl font-semibold">
          Tester’s signature
        </h2>
        {maySeal(who.role) ? (
          <div className="mt-2 grid gap-3">
            <SignatureField key="tester" label={`${who.name} signs`} onChange={setStrokes} />
            <p role="alert" className="min-h-6 text-rust">
              {trouble}
            </p>
            <Button
              tone="act"
              data-primary
              className="min-h-20 w-full text-xl"
              disabled={!strokes}
              onClick={() => void send({ kind: 'signature', role: 'tester', name: who.name, strokes })}
            >
              Sign as tester
            </Button>
          </div>
        ) : (
          <p className="mt-2 border-l-4 border-ochre pl-3">
            An apprentice runs the test; a tester or the owner signs and seals it. Let them sign in and open
            this run from Today: everything is there.
          </p>
        )}
      </section>
    );
  return (
    <section aria-labelledby="sign">
      <h2 id="sign" className="text-xl font-semibold">
        Customer’s signature
      </h2>
      <div className="mt-2 grid gap-3">
        <label>
          Name of the customer or witness
          <input
            className={field}
            value={name}
            onChange={(e) => setName(e.target.value)}
            placeholder={plan.site.customer}
            maxLength={120}
          />
        </label>
        {refuses ? (
          <label>
            Why the signature is refused
            <input
              className={field}
              value={refused}
              onChange={(e) => setRefused(e.target.value)}
              maxLength={500}
            />
          </label>
        ) : (
          <SignatureField key="customer" label="Customer or witness signs" onChange={setStrokes} />
        )}
        <label className="flex min-h-12 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 accent-lake"
            checked={refuses}
            onChange={(e) => setRefuses(e.target.checked)}
          />
          Refused to sign, or nobody there
        </label>
        <p role="alert" className="min-h-6 text-rust">
          {trouble}
        </p>
        <Button
          tone="act"
          data-primary
          className="min-h-20 w-full text-xl"
          disabled={refuses ? !refused.trim() : !strokes}
          onClick={() =>
            void send({
              kind: 'signature',
              role: 'customer',
              name: name.trim() || plan.site.customer,
              ...(refuses ? { refused: refused.trim() } : { strokes }),
            })
          }
        >
          {refuses ? 'Record the refusal' : 'Sign as customer'}
        </Button>
      </div>
    </section>
  );
}

function Sealing({ view, engine, who }: Props) {
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
  const licence = plan.practice
    ? recordStatus(plan, { id: '', name: '', role: who.role, licence: null }, '').reason
    : 'Whether it is a certificate depends on the sealer’s licence being in date; otherwise it seals as a record marked “not a certificate”.';
  return (
    <section>
      <h2 className="text-xl font-semibold">Signed, waiting for its number</h2>
      <p className="mt-1 max-w-3xl">
        Sealing gives the record its number and fingerprint. After that nothing can be changed; a later record
        can supersede it. {licence}
      </p>
      <p role="alert" className="mt-2 min-h-6 text-rust">
        {trouble}
      </p>
      {maySeal(who.role) ? (
        <HoldButton className="min-h-20 w-full text-xl" disabled={busy} onHeld={() => void seal()}>
          {busy ? 'Sealing …' : 'Seal the record'}
        </HoldButton>
      ) : (
        <p className="border-l-4 border-ochre pl-3">A tester or the owner seals this run.</p>
      )}
    </section>
  );
}
