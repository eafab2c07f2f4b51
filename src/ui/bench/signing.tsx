'use client';
import { withPapers } from '@/core/run/papers';
import { useState } from 'react';
import { signatureLines } from '@/core/record/signatures';
import { Button } from '@/ui/kit/button';
import { SignatureField } from '@/ui/kit/signature-pad';
import { WitnessFields } from '@/ui/kit/witness-fields';
import { may, type Identity } from '@/wire/role';
import { OwnDevice } from './own-device';
import type { PanelProps } from './shared';

type Props = Pick<PanelProps, 'view' | 'act' | 'engine'> & { who: Identity };
const field = 'mt-1 w-full max-w-xl min-h-14 border border-edge bg-panel px-3 text-lg';

/** Tester first, then the customer or their refusal; whoever else saw the test signs for what they saw. */
export function Signing({ view, engine, act, who }: Props) {
  const tester = view.state.signatures.find((s) => s.role === 'tester');
  return tester ? (
    <>
      <Customer view={view} engine={engine} act={act} />
      <Witness view={view} engine={engine} act={act} />
    </>
  ) : (
    <Tester act={act} who={who} />
  );
}
/** Sends a signature; what was refused is said. */
function useSend(act: PanelProps['act']) {
  const [trouble, setTrouble] = useState('');
  const send = async (payload: Parameters<typeof act>[0]) => {
    const answer = await act(payload);
    setTrouble(answer.accepted ? '' : answer.text);
    return answer.accepted;
  };
  const alert = (
    <p role="alert" className="min-h-6 text-rust">
      {trouble}
    </p>
  );
  return { send, alert };
}

function Tester({ act, who }: Pick<Props, 'act' | 'who'>) {
  const [strokes, setStrokes] = useState('');
  const { send, alert } = useSend(act);
  return (
    <section aria-labelledby="sign">
      <h2 id="sign" className="text-xl font-semibold">
        Tester’s signature
      </h2>
      {may(who.role, 'seal') ? (
        <div className="mt-2 grid gap-3">
          <SignatureField key="tester" label={`${who.name} signs`} onChange={setStrokes} />
          {alert}
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
}

function Customer({ view, engine, act }: Omit<Props, 'who'>) {
  const { plan } = view;
  const { customer } = withPapers(plan, view.state).site;
  const [strokes, setStrokes] = useState('');
  const [name, setName] = useState('');
  const [refused, setRefused] = useState('');
  const [refuses, setRefuses] = useState(false);
  const { send, alert } = useSend(act);
  return (
    <section aria-labelledby="sign">
      <h2 id="sign" className="text-xl font-semibold">
        Customer’s signature
      </h2>
      <div className="mt-2 grid gap-3">
        <label>
          Name of the customer
          <input
            className={field}
            value={name}
            onChange={(e) => setName(e.target.value)}
            placeholder={customer}
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
          <SignatureField key="customer" label="Customer signs" onChange={setStrokes} />
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
        {alert}
        <Button
          tone="act"
          data-primary
          className="min-h-20 w-full text-xl"
          disabled={refuses ? !refused.trim() : !strokes}
          onClick={() =>
            void send({
              kind: 'signature',
              role: 'customer',
              name: name.trim() || customer,
              ...(refuses ? { refused: refused.trim() } : { strokes }),
            })
          }
        >
          {refuses ? 'Record the refusal' : 'Sign as customer'}
        </Button>
        <OwnDevice run={plan.run} engine={engine} signs="customer" name={name.trim() || customer} />
      </div>
    </section>
  );
}

/** A test that somebody from outside saw is another than one's own: who saw how much stands in the record. */
export function Witness({ view, engine, act }: Omit<Props, 'who'>) {
  const { plan, state } = view;
  const [name, setName] = useState('');
  const [as, setAs] = useState('');
  const [saw, setSaw] = useState<'whole' | 'end'>('end');
  const [strokes, setStrokes] = useState('');
  const [round, setRound] = useState(0);
  const [open, setOpen] = useState(false);
  const { send, alert } = useSend(act);
  const there = signatureLines({ plan, state }).filter((l) => l.role.startsWith('Witness'));
  return (
    <details className="border-t border-seam pt-2" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-14 cursor-pointer py-3 text-lg">
        {there.length ? `Witnesses: ${there.length}` : 'Somebody from outside saw the test'}
      </summary>
      <ul>
        {there.map((l, i) => (
          <li key={i} className="py-1">
            {l.role}: {l.text}
          </li>
        ))}
      </ul>
      {open && (
        <div className="grid gap-3">
          <label>
            Name of the witness
            <input className={field} value={name} onChange={(e) => setName(e.target.value)} maxLength={120} />
          </label>
          <WitnessFields
            office="In what office"
            question="What the witness saw"
            as={as}
            onAs={setAs}
            saw={saw}
            onSaw={setSaw}
          />
          <SignatureField key={round} label="Witness signs" onChange={setStrokes} />
          {alert}
          <Button
            className="min-h-16 w-full text-lg"
            disabled={!strokes || !name.trim() || !as.trim()}
            onClick={() =>
              void send({
                kind: 'signature',
                role: 'witness',
                name: name.trim(),
                as: as.trim(),
                saw,
                strokes,
              }).then((kept) => {
                if (!kept) return;
                setName('');
                setStrokes('');
                setRound(round + 1);
              })
            }
          >
            Sign as witness
          </Button>
          <OwnDevice run={plan.run} engine={engine} signs="witness" name={name.trim()} />
        </div>
      )}
    </details>
  );
}
