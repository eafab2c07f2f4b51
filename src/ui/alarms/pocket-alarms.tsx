'use client';
import { BEFORE_MINUTES } from '@/core/run/alarm-minutes';
import { hushHere, pocket, type Pocket, ringHere, tryHere } from '@/device/push';
import { canSpeak, setSpoken, spoken } from '@/device/speech';
import { Button } from '@/ui/kit/button';
import { useEffect, useState, useSyncExternalStore } from 'react';

const WORDS: Readonly<Record<number, string>> = {
  5: '5 minutes before',
  1: 'a minute before',
  0: 'when the time is up',
};
const never = () => () => undefined;

/** What this device is, and the ways to change it; what goes wrong is said. */
export function usePocket() {
  const [here, setHere] = useState<Pocket | null>(null);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const take = (work: Promise<Pocket>) => {
    setBusy(true);
    setTrouble('');
    void work.then(setHere, (error: Error) => setTrouble(error.message)).finally(() => setBusy(false));
  };
  useEffect(() => {
    void pocket().then(setHere, () => setHere({ state: 'off' }));
  }, []);
  return { here, trouble, setTrouble, busy, take };
}

/** Alarms on this device, also with its page shut: on or off, when, and whether the countdown is spoken. */
export function PocketAlarms() {
  const { here, trouble, setTrouble, busy, take } = usePocket();
  const [said, setSaid] = useState('');
  const speaks = useSyncExternalStore(never, canSpeak, () => false);
  const wished = useSyncExternalStore(never, spoken, () => false);
  const [aloud, setAloud] = useState<boolean | null>(null);
  return (
    <section aria-labelledby="alarms" className="mt-4 max-w-2xl">
      <h2 id="alarms" className="text-lg font-semibold">
        Alarms on this device
      </h2>
      <p className="text-sm text-quiet">
        Rung by the office’s own clock, also with the page shut and the screen dark: holds on runs you have
        worked on, curing and warming up, and what is still owed there. A wait of an hour and more says so 15
        minutes before, too.
      </p>
      {here?.state === 'none' && <p className="mt-2 border-l-4 border-ochre pl-3">{here.why}</p>}
      {here?.state === 'off' && (
        <Button
          tone="act"
          className="mt-2 min-h-14"
          disabled={busy}
          onClick={() => take(ringHere([...BEFORE_MINUTES].filter((m) => m < 5)))}
        >
          Ring this device
        </Button>
      )}
      {here?.state === 'on' && (
        <>
          <fieldset className="mt-2">
            <legend className="text-sm text-quiet">It rings</legend>
            {BEFORE_MINUTES.map((m) => (
              <label key={m} className="flex min-h-11 cursor-pointer items-center gap-3">
                <input
                  type="checkbox"
                  className="size-5 accent-lake"
                  checked={here.minutes.includes(m)}
                  disabled={busy}
                  onChange={(e) =>
                    take(
                      ringHere(e.target.checked ? [...here.minutes, m] : here.minutes.filter((x) => x !== m)),
                    )
                  }
                />
                {WORDS[m]}
              </label>
            ))}
          </fieldset>
          <p className="text-sm text-quiet">
            And half an hour before a visit that you planned or are named in, and when it begins.
          </p>
          <div className="mt-2 flex flex-wrap gap-3">
            <Button
              onClick={() =>
                void tryHere(here.endpoint).then(
                  () =>
                    setSaid('It was rung. Nothing heard? Look at the volume, and at what may disturb you.'),
                  (error: Error) => setTrouble(error.message),
                )
              }
            >
              Ring it now
            </Button>
            <Button disabled={busy} onClick={() => take(hushHere())}>
              No alarms here
            </Button>
          </div>
          <p role="status" className="text-sm text-quiet">
            {said}
          </p>
        </>
      )}
      {speaks && (
        <label className="mt-2 flex min-h-11 cursor-pointer items-center gap-3">
          <input
            type="checkbox"
            className="size-5 accent-lake"
            checked={aloud ?? wished}
            onChange={(e) => {
              setSpoken(e.target.checked);
              setAloud(e.target.checked);
            }}
          />
          Say the countdown aloud on the bench: 5 min, 1 min, 30 s, 10 s, time is up
        </label>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
