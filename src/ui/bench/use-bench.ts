'use client';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { BenchEngine, type BenchView } from '@/device/bench';
import { serverNow } from '@/device/clock';
import { onIdentityChange, readIdentity } from '@/device/identity';
import type { OfficeError } from '@/device/office';
import type { Identity } from '@/wire/role';

export type Opening =
  | { readonly kind: 'opening' }
  | { readonly kind: 'signed-out' }
  | { readonly kind: 'trouble'; readonly text: string }
  | { readonly kind: 'open'; readonly engine: BenchEngine; readonly who: Identity };

/** Opens the engine of a run for the person signed in on this device. */
export function useOpening(run: string): Opening {
  const [opening, setOpening] = useState<Opening>({ kind: 'opening' });
  useEffect(() => {
    const who = readIdentity();
    let engine: BenchEngine | null = null;
    let gone = false;
    (who ? BenchEngine.open(run, who) : Promise.reject(Object.assign(new Error(), { status: 401 }))).then(
      (e) => {
        if (gone) return e.close();
        engine = e;
        setOpening({ kind: 'open', engine: e, who: who! });
      },
      (error: OfficeError) => {
        if (!gone)
          setOpening(
            error.status === 401
              ? { kind: 'signed-out' }
              : {
                  kind: 'trouble',
                  text:
                    error.status === 0
                      ? 'There is no signal, and this run was not opened on this device before. Open it once where there is a signal; after that it works without.'
                      : error.message,
                },
          );
      },
    );
    // what one person enters is never sent in the name of who signs in beside: the bench opens anew for them
    const stop = onIdentityChange(() => {
      if (readIdentity()?.person !== who?.person) location.reload();
    });
    return () => {
      stop();
      gone = true;
      engine?.close();
    };
  }, [run]);
  return opening;
}
export const useView = (engine: BenchEngine): BenchView =>
  useSyncExternalStore(
    engine.subscribe,
    () => engine.snapshot()!,
    () => engine.snapshot()!,
  );

/** The present moment on the server's line, four times a second while something is timed. */
export function useNow(timed: boolean): number {
  const [at, setAt] = useState(serverNow);
  useEffect(() => {
    const tick = () => setAt(serverNow());
    tick();
    const timer = setInterval(tick, timed ? 250 : 1000);
    document.addEventListener('visibilitychange', tick);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', tick);
    };
  }, [timed]);
  return at;
}
