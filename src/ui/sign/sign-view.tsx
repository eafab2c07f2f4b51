'use client';
import { useState } from 'react';
import type { VerdictWord } from '@/core/verdict/words';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { SignatureField } from '@/ui/kit/signature-pad';
import { WitnessFields } from '@/ui/kit/witness-fields';
import { VERDICT_COLOUR } from '@/ui/kit/words';

const field = 'mt-1 w-full min-h-14 border border-edge bg-panel px-3 text-lg';
interface Props {
  readonly token: string;
  readonly role: 'customer' | 'witness';
  readonly name: string;
  readonly firm: string;
  readonly practice: boolean;
  readonly place: string;
  readonly procedure: string;
  readonly word: VerdictWord | null;
  readonly label: string;
  readonly plain: string;
  readonly notCovered: readonly string[];
}

/** What came of the test in plain words, then the signature or why there is none. */
export function SignView(props: Props) {
  const { role } = props;
  const [name, setName] = useState(props.name);
  const [as, setAs] = useState('');
  const [saw, setSaw] = useState<'whole' | 'end'>('end');
  const [strokes, setStrokes] = useState('');
  const [refuses, setRefuses] = useState(false);
  const [refused, setRefused] = useState('');
  const [trouble, setTrouble] = useState('');
  const [done, setDone] = useState(false);
  const send = async () => {
    setTrouble('');
    try {
      await office(`/api/sign/${props.token}`, {
        body: {
          name: name.trim(),
          ...(refuses ? { refused: refused.trim() } : { strokes }),
          ...(role === 'witness' ? { as: as.trim(), saw } : {}),
        },
      });
      setDone(true);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  if (done)
    return (
      <section role="status">
        <h1 className="text-2xl font-bold">Thank you</h1>
        <p className="mt-2 text-lg">
          {refuses ? 'Your reason is written down with the test.' : 'Your signature is with the test.'}{' '}
          {props.firm} sees it now. You can close this page.
        </p>
      </section>
    );
  return (
    <article className="grid gap-4">
      <header>
        <p className="text-sm text-quiet">{props.firm}</p>
        <h1 className="text-xl font-bold">{props.place}</h1>
        <p>{props.procedure}</p>
        {props.practice && <p className="font-semibold text-heather">Practice on a simulated installation</p>}
      </header>
      <section>
        <h2
          className={`inline-block border-2 border-current px-3 py-1 text-2xl font-bold ${props.word ? VERDICT_COLOUR[props.word] : ''}`}
        >
          {props.label}
        </h2>
        <p className="mt-2 text-lg">
          {/* the sentence ends with what is not covered; it stands by itself below */}
          {props.plain.replace(` Not covered: ${props.notCovered.join(', ')}.`, '')}
        </p>
        <p className="mt-2">
          <strong>Not covered:</strong> {props.notCovered.join('; ')}.
        </p>
      </section>
      <section aria-labelledby="sign" className="grid gap-3 border-t-2 border-ink pt-3">
        <h2 id="sign" className="text-xl font-semibold">
          {role === 'customer' ? 'You sign as the customer' : 'You sign as a witness'}
        </h2>
        <p>
          {role === 'customer'
            ? 'Your signature says that you were told this. It does not say that you agree with it.'
            : 'Your signature says what you saw, and nothing else.'}
        </p>
        <label>
          Your name
          <input className={field} value={name} onChange={(e) => setName(e.target.value)} maxLength={120} />
        </label>
        {role === 'witness' && (
          <WitnessFields
            office="In what office you are here"
            question="What you saw"
            as={as}
            onAs={setAs}
            saw={saw}
            onSaw={setSaw}
          />
        )}
        {refuses ? (
          <label>
            Why you do not sign
            <input
              className={field}
              value={refused}
              onChange={(e) => setRefused(e.target.value)}
              maxLength={500}
            />
          </label>
        ) : (
          <SignatureField label="Sign with a finger" onChange={setStrokes} />
        )}
        <label className="flex min-h-12 items-center gap-3">
          <input
            type="checkbox"
            className="size-6"
            checked={refuses}
            onChange={(e) => setRefuses(e.target.checked)}
          />
          I do not sign
        </label>
        <p role="alert" className="min-h-6 text-rust">
          {trouble}
        </p>
        <Button
          tone="act"
          className="min-h-16 w-full text-lg"
          disabled={
            !name.trim() || (refuses ? !refused.trim() : !strokes) || (role === 'witness' && !as.trim())
          }
          onClick={() => void send()}
        >
          {refuses ? 'Send the reason' : 'Sign'}
        </Button>
      </section>
    </article>
  );
}
