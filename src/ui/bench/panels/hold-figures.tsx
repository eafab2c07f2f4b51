'use client';
import type { Exact } from '@/core/quantity/exact';
import { formatExact, showExact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import type { Plan } from '@/core/plan/plan';
import { clockTime, countdown } from '@/ui/kit/words';
import type { Seen } from './last-seen';

/** The reading and the time left, side by side; on the phone one line of them while something is entered. */
export function HoldFigures({
  plan,
  shown,
  start,
  left,
  over,
  side,
  level,
  read,
}: {
  plan: Plan;
  shown: Seen;
  start: Exact;
  left: number;
  over: boolean;
  /** Something is being entered in the place of the trace. */
  side: boolean;
  level: boolean;
  read: string;
}) {
  const unit = unitLabel(shown.figure.unit);
  return (
    <>
      {side && (
        <p className="figure text-2xl sm:hidden" role="timer" aria-label={`time left ${countdown(left)}`}>
          {countdown(left)}{' '}
          <span className="font-sans text-base text-quiet">
            {over ? 'time is up' : 'left'}, start {showExact(start)}
          </span>
        </p>
      )}
      <div
        className={`grid-cols-1 items-end gap-x-6 sm:grid sm:grid-cols-[1.3fr_1fr] ${side ? 'max-sm:hidden' : 'grid'}`}
      >
        <div>
          <p className="text-sm text-quiet">
            {shown.live
              ? shown.simulated
                ? 'simulated gauge now'
                : 'gauge now'
              : `${level ? `level over the ${plan.procedure.levelOver ?? 'slab'}, read at` : 'last reading,'} ${clockTime(shown.at, plan.made.zone)}`}
          </p>
          <p
            className="figure-narrow leading-none whitespace-nowrap text-[72px] lg:text-[96px]"
            aria-label={`reading ${showExact(shown.figure)}`}
          >
            {formatExact(shown.figure)}
            <span className="ml-2 text-2xl">{unit}</span>
          </p>
        </div>
        <div>
          <p className="text-sm text-quiet">{over ? `time is up: ${read.toLowerCase()}` : 'time left'}</p>
          <p
            className={`figure-narrow leading-none text-[64px] lg:text-[72px] ${over ? 'text-ochre' : ''}`}
            role="timer"
            aria-label={`time left ${countdown(left)}`}
          >
            {countdown(left)}
          </p>
        </div>
      </div>
      <p className="sr-only" aria-live="polite">
        {over ? `The time has run out. ${read}.` : left < 15000 ? 'Fifteen seconds to go.' : ''}
      </p>
    </>
  );
}

/** Seen from across the room when nobody touched the bench for a while. */
export const Across = ({ left, shown, title }: { left: number; shown: Exact; title: string }) => (
  <div
    className="fixed inset-x-0 top-[61px] bottom-0 z-30 grid place-content-center gap-6 bg-ground text-center"
    data-across
  >
    <p className="figure-narrow text-[clamp(110px,34vw,320px)] leading-none">{countdown(left)}</p>
    <p className="figure-narrow text-[clamp(44px,12vw,110px)] leading-none">
      {formatExact(shown)} <span className="text-[0.4em]">{unitLabel(shown.unit)}</span>
    </p>
    <p className="text-quiet">{title}. Touch anywhere to come back.</p>
  </div>
);
