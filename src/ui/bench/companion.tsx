'use client';
import { useEffect, useState } from 'react';
import type { Coupling } from '@/core/pack/schema';
import { currentVisit, holdEnds, runningHold } from '@/core/run/read';
import { showExact } from '@/core/quantity/exact';
import { BenchEngine, type BenchView } from '@/device/bench';
import { countdown } from '@/ui/kit/words';
import type { Identity } from '@/wire/role';

/** The run that goes side by side with this one, as this device and the office know it. */
export function useCompanion(view: BenchView, who: Identity): BenchView | null {
  const other = view.plan.beside?.runs.find((r) => r.run !== view.plan.run)?.run;
  const [seen, setSeen] = useState<BenchView | null>(null);
  useEffect(() => {
    if (!other) return;
    let engine: BenchEngine | null = null;
    let stop: (() => void) | null = null;
    let gone = false;
    const open = () =>
      BenchEngine.open(other, who).then(
        (e) => {
          if (gone) return e.close();
          engine = e;
          setSeen(e.snapshot());
          stop = e.subscribe(() => setSeen(e.snapshot()));
        },
        () => undefined, // not begun yet, or no signal: tried again
      );
    void open();
    const again = setInterval(() => {
      if (!engine) void open();
    }, 5000);
    return () => {
      gone = true;
      clearInterval(again);
      stop?.();
      engine?.close();
    };
  }, [other, who]);
  return seen;
}

/** The other run beside this one: its stage, its clock, its newest figure, and what this one waits for. */
export function Companion({
  view,
  other,
  at,
  waits,
}: {
  view: BenchView;
  other: BenchView | null;
  at: number;
  waits: readonly Coupling[];
}) {
  const beside = view.plan.beside;
  const run = beside?.runs.find((r) => r.run !== view.plan.run);
  useEffect(() => {
    if (!run) return;
    const onKey = (e: KeyboardEvent) => {
      if (e.key.toLowerCase() !== 'b' || e.ctrlKey || e.metaKey || e.altKey) return;
      if ((e.target as HTMLElement).closest('input, textarea, select')) return;
      location.assign(`/bench/${run.run}`);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [run]);
  if (!beside || !run) return null;
  const visit = other && currentVisit(other.state);
  const hold = other && runningHold(other.state);
  const left = hold ? holdEnds(hold) - at : null;
  const newest = hold
    ? [hold.start.figure, ...(visit?.readings ?? []).filter((r) => !r.late).map((r) => r.figure)].pop()
    : null;
  const where = other
    ? (visit?.title ??
      { running: '', 'put-back': 'Put back', signing: 'Signatures', signed: 'Seal' }[other.state.phase])
    : 'not seen from here';
  return (
    <aside aria-label={`Beside: ${run.title}`} className="border-b border-seam bg-block" data-companion>
      <a
        href={`/bench/${run.run}`}
        className="grid min-h-12 grid-cols-[1fr_auto] items-center gap-3 px-4 hover:text-lake"
      >
        <span className="min-w-0">
          <span className="block text-sm">
            Beside, {run.title.toLowerCase()}
            <span className="max-lg:hidden"> (B goes there)</span>
          </span>
          <span className="block truncate font-semibold">
            {where}
            {newest && <span className="figure-narrow font-normal"> {showExact(newest)}</span>}
          </span>
        </span>
        {left !== null && (
          <span
            role="timer"
            aria-label={`${run.title}: ${left > 0 ? `${countdown(left)} left` : 'time is up'}`}
            className={`figure text-3xl ${left > 0 ? '' : 'font-bold text-ochre'}`}
          >
            {left > 0 ? countdown(left) : 'read it'}
          </span>
        )}
      </a>
      {waits.map((w) => (
        <p key={w.past} role="alert" className="border-l-4 border-ochre bg-panel px-4 py-2 font-semibold">
          Wait: {w.text}
        </p>
      ))}
    </aside>
  );
}
