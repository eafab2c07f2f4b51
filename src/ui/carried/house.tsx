'use client';
import { freshen, mustCarry } from '@/device/carried';
import { deviceZone } from '@/device/clock';
import { readIdentity } from '@/device/identity';
import { openRuns, openStore, type StoredRun } from '@/device/store';
import { Bench } from '@/ui/bench/bench';
import { RoleProvider } from '@/ui/frame/may';
import { Rail } from '@/ui/frame/rail';
import { Moment, ZoneProvider } from '@/ui/frame/zone';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import type { Identity } from '@/wire/role';
import { Suspense, useEffect, useState } from 'react';
import { useCarrying } from './use-carrying';
import { Waiting } from './waiting';

const Rooms = byNeed(() => import('./rooms').then((m) => m.Rooms));
const BENCH = /^\/bench\/([0-9a-f-]{36})$/;

/**
 * Every page without a signal: what this device took along stands under the address that was asked for, and what was not
 * taken along says so.
 */
export function CarriedHouse() {
  const [here, setHere] = useState<{ who: Identity | null; path: string } | null>(null);
  useEffect(() => setHere({ who: readIdentity(), path: location.pathname }), []);
  if (!here) return <p className="p-8">Opening …</p>;
  const run = BENCH.exec(here.path)?.[1];
  if (run) return <Bench run={run} />;
  return here.who ? <House who={here.who} path={here.path} /> : <SignedOut />;
}
const SignedOut = () => (
  <main id="main" className="mx-auto max-w-xl px-4 py-12">
    <h1 className="text-2xl font-bold">No signal</h1>
    <p className="mt-2">
      This page needs the office, and nobody is signed in on this device. Sign in where there is a signal;
      after that it works without.
    </p>
    <a className={buttonClass('act', 'mt-6')} href="/today">
      Try the office again
    </a>
  </main>
);

function House({ who, path }: { who: Identity; path: string }) {
  const carrying = useCarrying(who);
  const runs = useRuns(who);
  const back = useSignal(who);
  return (
    <RoleProvider role={who.role}>
      <ZoneProvider zone={deviceZone()}>
        <Rail who={who} />
        <main
          id="main"
          className="mx-auto max-w-[1200px] px-4 pt-4 pb-28 lg:pr-8 lg:pb-8 lg:pl-[104px]"
          data-carried={carrying ? 'house' : carrying === null ? 'nothing' : 'opening'}
        >
          <div className="no-print mb-4 flex flex-wrap items-center gap-x-4 border-b border-ochre pb-2 text-sm">
            <p className="min-w-0 flex-1" role="status">
              <strong>{back ? 'There is a signal again.' : 'No signal.'}</strong>{' '}
              {carrying ? (
                <>
                  As the office gave it, <Moment at={carrying.house.at} />, with what was done here since.
                </>
              ) : (
                carrying === null &&
                'This device has taken nothing along yet: open Today once where there is a signal.'
              )}
            </p>
            <Button className="min-h-12" onClick={() => location.reload()}>
              {back ? 'Open the page' : 'Try again'}
            </Button>
          </div>
          <Waiting who={who} />
          {carrying !== undefined && runs && (
            <Suspense fallback={<p aria-live="polite">Opening …</p>}>
              <Rooms who={who} path={path} carrying={carrying} runs={runs} />
            </Suspense>
          )}
        </main>
      </ZoneProvider>
    </RoleProvider>
  );
}
/** Runs of this device that are not sealed, the newest first; undefined until they are read. */
function useRuns(who: Identity): readonly StoredRun[] | undefined {
  const [runs, setRuns] = useState<readonly StoredRun[] | undefined>(undefined);
  useEffect(() => {
    void openStore(who)
      .then(openRuns)
      .catch(() => []) // a store that cannot be opened: the page still says what there is to do
      .then(setRuns);
  }, [who]);
  return runs;
}
const LOOK_MS = 15_000;
/** Whether the office answers again: it is looked for while the page stands. */
function useSignal(who: Identity): boolean {
  const [back, setBack] = useState(false);
  useEffect(() => {
    const look = () =>
      void mustCarry(who)
        .then(() => freshen(who, null, true))
        .then(
          () => setBack(true),
          () => undefined,
        );
    const timer = setInterval(look, LOOK_MS);
    addEventListener('online', look);
    return () => {
      clearInterval(timer);
      removeEventListener('online', look);
    };
  }, [who]);
  return back;
}
