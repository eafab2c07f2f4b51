'use client';
import { deviceZone, now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { useMay } from '@/ui/frame/may';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import type { TestNow as TestNowFacts } from '@/wire/test-now';
import { dayWords } from '@/ui/visit/times';
import { uuid7 } from '@/wire/uuid7';
import Link from 'next/link';
import { Suspense, useState } from 'react';

// a house that tests has no use for it on its first screen
const TestNow = byNeed(() => import('@/ui/places/test-now').then((m) => m.TestNow));

/** An installation that was tested before. */
export interface Tested {
  readonly system: string;
  readonly name: string;
  readonly site: string;
  readonly procedure: string;
  readonly on: string;
}

/** A practice run at once: nothing is set up, nothing is asked. */
export function PractiseNow() {
  const [run] = useState(() => uuid7(now()));
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const go = async () => {
    setBusy(true);
    try {
      const zone = deviceZone();
      await office('/api/practice', { body: { run, zone } });
      location.assign(`/bench/${run}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
    }
  };
  return (
    <span>
      <Button className="min-h-14 w-full" disabled={busy} onClick={() => void go()}>
        Practise now
      </Button>
      {trouble && (
        <span role="alert" className="block text-rust">
          {trouble}
        </span>
      )}
    </span>
  );
}

/** An empty house: three ways on, the first of them already open. */
export function FirstWays(props: TestNowFacts) {
  const [run, plan] = [useMay('run'), useMay('plan')];
  return (
    <section aria-labelledby="first" className="mt-3">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 id="first" className="text-lg font-semibold">
          {run && plan ? 'Test now: what stands before you?' : 'Nothing is entered here yet'}
        </h2>
        <div className="grid grid-cols-2 gap-3 max-sm:w-full">
          {run && <PractiseNow />}
          {plan && (
            <Link prefetch={false} href="/bring-in" className={buttonClass('plain', 'min-h-14')}>
              Bring in what you have
            </Link>
          )}
        </div>
      </div>
      {run && plan ? (
        <Suspense fallback={<p aria-live="polite">Opening …</p>}>
          <TestNow {...props} />
        </Suspense>
      ) : (
        <p className="mt-2">
          {run
            ? 'A tester or the office enters places; until then you can practise: nothing has to be set up for it.'
            : 'Places, systems and gauges can be brought in from a table, or are entered as they are tested.'}
        </p>
      )}
    </section>
  );
}

/** The ways on that always stand: something new, practice, and what was tested last. */
export function Ways({ tested }: { tested: readonly Tested[] }) {
  const [run, plan] = [useMay('run'), useMay('plan')];
  if (!run) return null;
  return (
    <section aria-labelledby="ways" className="mt-4">
      <h2 id="ways" className="text-lg font-semibold">
        Test
      </h2>
      <div className="mt-2 grid gap-2 sm:grid-cols-2">
        {tested.map((t) => (
          <Link
            key={t.system}
            prefetch={false}
            href={`/places/${t.system}`}
            className="min-h-14 border border-edge bg-panel px-3 py-2 hover:border-ink"
          >
            <span className="block font-semibold">
              {t.name}
              <span className="font-normal text-quiet">, {t.site}</span>
            </span>
            <span className="block text-sm text-quiet">
              again: {t.procedure}, {dayWords(t.on, true)}
            </span>
          </Link>
        ))}
      </div>
      <div className="mt-2 grid gap-2 sm:grid-cols-2">
        {plan && (
          <Link prefetch={false} href="/test" className={buttonClass('plain', 'min-h-14')}>
            Something new
          </Link>
        )}
        <PractiseNow />
        <Link prefetch={false} href="/scan" className={buttonClass('plain', 'min-h-14')}>
          Scan a code
        </Link>
      </div>
    </section>
  );
}
