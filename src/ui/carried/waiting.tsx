'use client';
import { sendAgain, takeOff } from '@/device/errands';
import { sendAll, waitingWords } from '@/device/send-all';
import { type Errand, openStore } from '@/device/store';
import { Button } from '@/ui/kit/button';
import type { Identity } from '@/wire/role';
import { useEffect, useState } from 'react';
import { useWaits } from './use-carrying';

const EVERY_MS = 20_000;

/** What was done here without a signal and waits for the office; it is sent by itself, what the office refused is said. */
export function Waiting({
  who,
  onSent,
}: {
  who: Identity;
  /** The office has more than it had when the page was made. */
  onSent?: () => void;
}) {
  const waits = useWaits(who);
  // what goes at once is not shown coming and going
  const [tried, setTried] = useState(false);
  useEffect(() => {
    const send = () =>
      void sendAll(who)
        .catch(() => false) // no store here: nothing waits in it
        .then((sent) => {
          setTried(true);
          if (sent) onSent?.();
        });
    send();
    const timer = setInterval(send, EVERY_MS);
    addEventListener('online', send);
    return () => {
      clearInterval(timer);
      removeEventListener('online', send);
    };
  }, [who, onSent]);
  const refused = waits.errands.filter((e) => e.refused);
  const rest = waitingWords(waits);
  if (!tried || (!rest.length && !refused.length)) return null;
  return (
    <section
      className="no-print mb-4 border border-ochre bg-panel p-3"
      aria-labelledby="waiting"
      data-waiting={rest.length}
      data-refused={refused.length}
    >
      <h2 id="waiting" className="font-semibold">
        {refused.length ? 'The office would not have it' : 'Kept here, not yet with the office'}
      </h2>
      <ul>
        {refused.map((e) => (
          <Refused key={e.seq} errand={e} who={who} />
        ))}
      </ul>
      {rest.length > 0 && (
        <>
          <ul className="text-sm">
            {rest.map((words, i) => (
              <li key={`${i} ${words}`}>{words}</li>
            ))}
          </ul>
          <p className="text-sm text-quiet">
            Sent by itself when there is a signal
            {refused.length > 0 && '; what needs what was refused waits for it'}.
          </p>
        </>
      )}
    </section>
  );
}
function Refused({ errand, who }: { errand: Errand; who: Identity }) {
  const [sure, setSure] = useState(false);
  const [busy, setBusy] = useState(false);
  const work = async (what: (store: Awaited<ReturnType<typeof openStore>>) => Promise<void>) => {
    setBusy(true);
    await openStore(who)
      .then(what)
      .catch(() => undefined);
    setBusy(false);
  };
  return (
    <li className="mt-2 border-t border-seam pt-2">
      <p>
        <span className="font-semibold">{errand.title}</span>: {errand.refused}
      </p>
      <div className="mt-2 flex flex-wrap gap-3">
        <Button disabled={busy} onClick={() => void work((s) => sendAgain(s, errand.seq))}>
          Send it again
        </Button>
        {sure ? (
          <Button tone="danger" disabled={busy} onClick={() => void work((s) => takeOff(s, errand.seq))}>
            Take it off for good
          </Button>
        ) : (
          <Button disabled={busy} onClick={() => setSure(true)}>
            Take it off
          </Button>
        )}
      </div>
      {sure && (
        <p className="mt-1 text-sm">
          {errand.run
            ? 'The office will then never have this test. Its entries stay on this device.'
            : 'What was typed is then gone from this device.'}
        </p>
      )}
    </li>
  );
}
