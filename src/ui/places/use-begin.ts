'use client';
import type { BesideOffer } from '@/core/plan/beside-offer';
import { deviceZone, now } from '@/device/clock';
import { beginRun } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import type { StartRun } from '@/wire/requests';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';

interface Wanted {
  /** What it is, for the list of what waits. */
  readonly title: string;
  readonly own: {
    readonly pack: string;
    readonly procedure: string;
    readonly case: string;
    readonly choices: Readonly<Record<string, string>>;
  };
  /** The test that runs at the same time on another system. */
  readonly pair: { readonly offer: BesideOffer; readonly case: string } | null;
  readonly practice: boolean;
  readonly attendance: Attendance;
  readonly fault: string;
  readonly retestOf: string | null;
}

type Attendance = Pick<StartRun, 'permit' | 'doneBy' | 'present' | 'section' | 'gauge'>;
/** Begins a run, or two side by side, and goes to the bench. */
export function useBegin(system: string) {
  const [trouble, setTrouble] = useState('');
  /** The office refused it: a fact of the place is what is missing. */
  const [refused, setRefused] = useState(false);
  const [busy, setBusy] = useState(false);
  // asked again after a lost answer, the same runs are meant
  const [ids] = useState(() => [uuid7(now()), uuid7(now() + 1)] as const);
  const begin = async ({ title, own, pair, practice, attendance, fault, retestOf }: Wanted) => {
    setBusy(true);
    setTrouble('');
    const [first, second] = ids;
    const shared = {
      practice,
      ...attendance,
      ...(practice ? { fault } : {}),
      ...(pair
        ? {
            beside: {
              id: pair.offer.id,
              runs: [
                { run: first, procedure: pair.offer.own },
                { run: second, procedure: pair.offer.other.procedure },
              ],
            },
          }
        : {}),
      zone: deviceZone(),
    };
    try {
      await beginRun(
        { id: first, system, ...own, ...shared, ...(!practice && retestOf ? { retestOf } : {}) },
        title,
      );
      if (pair)
        await beginRun(
          {
            id: second,
            system: pair.offer.other.system.id,
            pack: pair.offer.pack,
            procedure: pair.offer.other.procedure,
            case: pair.case,
            choices: {},
            ...shared,
          },
          pair.offer.other.system.name,
        );
      location.assign(`/bench/${pair && !pair.offer.ownFirst ? second : first}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setRefused((error as OfficeError).status === 422);
      setBusy(false);
    }
  };
  return { begin, trouble, setTrouble, busy, cure: refused && trouble ? `/places/${system}/edit` : null };
}
