'use client';
import { useMay } from '@/ui/frame/may';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Field, FIELD } from '@/ui/kit/field';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';

/** Prints the brief and nothing else of the page. */
function printBrief(): void {
  const { dataset } = document.documentElement;
  dataset.print = 'brief';
  addEventListener('afterprint', () => delete dataset.print, { once: true });
  print();
}

/** The brief for the people in the building: changed by hand, printed, or sent to the simulated outbox. */
export function Brief({ proposed, subject }: { proposed: string; subject: string }) {
  const sends = useMay('share');
  const [text, setText] = useState(proposed);
  const [to, setTo] = useState('');
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const send = async () => {
    setSaid('');
    setTrouble('');
    try {
      await office('/api/outbox', {
        body: {
          id: uuid7(now()),
          to: to.trim(),
          subject,
          body: text,
        },
      });
      setSaid('It is in the simulated outbox; nothing left this machine.');
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <section>
      <div data-print-part="brief" aria-hidden className="hidden text-lg leading-relaxed whitespace-pre-line">
        {text}
      </div>
      <h2 className="text-lg font-semibold">For the people in the building</h2>
      <Field label="Brief" hint="change what does not fit">
        {(ids) => (
          <textarea
            {...ids}
            className={`${FIELD} min-h-64 p-3 leading-relaxed`}
            value={text}
            maxLength={8000}
            onChange={(e) => setText(e.target.value)}
          />
        )}
      </Field>
      <div className="no-print mt-2 flex flex-wrap items-end gap-3">
        {sends && (
          <Field label="Send to" className="min-w-64 flex-1">
            {(ids) => (
              <input
                {...ids}
                type="email"
                className={FIELD}
                value={to}
                onChange={(e) => setTo(e.target.value)}
                placeholder="anneli@quay-street.example"
              />
            )}
          </Field>
        )}
        <Button onClick={printBrief}>Print the brief alone</Button>
        {sends && (
          <Button onClick={() => void send()} disabled={!to.trim()}>
            Send to the simulated outbox
          </Button>
        )}
      </div>
      <p role="status">
        {said && (
          <>
            {said}{' '}
            <a className="text-lake underline" href="/outbox">
              Look into it
            </a>
          </>
        )}
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
