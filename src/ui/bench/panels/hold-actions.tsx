'use client';
import { type Exact, showExact } from '@/core/quantity/exact';
import { makeUpDecided } from '@/core/roles/make-up/judge';
import { roleOf } from '@/core/roles';
import type { RoleRule } from '@/core/roles/role';
import type { Hold } from '@/core/run/state';
import { Button } from '@/ui/kit/button';
import { countdown } from '@/ui/kit/words';
import type { PanelProps } from '../shared';
import type { Side } from '../side-entry';
import { Keys } from './keys';

/** What re-adjusting is called in a hold. */
function adjusting({ measures, adjusts }: RoleRule): string {
  if (measures === 'added') return 'Water added';
  return adjusts ? 'Re-adjusted' : 'Top-up';
}

/** What can be done while a hold runs: entries, ways to end it early, and the end reading. */
export function HoldActions({
  view,
  stage,
  at,
  hold,
  shown,
  over,
  left,
  falls,
  read,
  onSide,
  onEnd,
  onTake,
  onUnheld,
}: Pick<PanelProps, 'view' | 'stage' | 'at'> & {
  hold: Hold;
  shown: Exact;
  over: boolean;
  left: number;
  /** It falls so that it may be said now. */
  falls: boolean;
  read: string;
  onSide: (side: Side) => void;
  onEnd: () => void;
  /** The gauge sends: its display ends the hold with one press. */
  onTake: (() => void) | null;
  onUnheld: () => void;
}) {
  const { plan, state } = view;
  return (
    <div className="sticky -bottom-3 z-10 -mx-1 -mb-3 grid shrink-0 gap-3 bg-ground px-1 pt-1 pb-3">
      <div className="grid grid-cols-3 gap-3 sm:grid-cols-5">
        <Button className="min-h-16" onClick={() => onSide('reading')} aria-keyshortcuts="r">
          Reading
        </Button>
        <Button className="min-h-16" onClick={() => onSide('top-up')} aria-keyshortcuts="t">
          {adjusting(roleOf(hold.role))}
        </Button>
        <Button
          className="min-h-16 max-sm:hidden"
          onClick={() => onSide('disturbance')}
          aria-keyshortcuts="d"
        >
          Disturbance
        </Button>
        <Button className="min-h-16 max-sm:hidden" onClick={() => onSide('note')} aria-keyshortcuts="n">
          Note
        </Button>
        <Button className="min-h-16" onClick={() => onSide('more')}>
          More
        </Button>
      </div>
      <Keys onSide={onSide} />
      {falls && (
        <Button className="min-h-14" onClick={() => onUnheld()}>
          {hold.role === 'settle'
            ? 'It will not stand'
            : roleOf(hold.role).comesBack
              ? 'It came up above the bound: say so now'
              : 'It falls beyond the limit: say so now'}
        </Button>
      )}
      {!over && makeUpDecided(plan, state, stage, hold, shown) && (
        <Button className="min-h-14" onClick={onEnd}>
          More is added than the whole hold permits: read now
        </Button>
      )}
      {!over && hold.role === 'leak-rate' && (
        <Button className="min-h-14" onClick={onEnd}>
          It falls fast: read now
        </Button>
      )}
      {!over && hold.role !== 'leak-rate' && at >= hold.startedAt + hold.rule * 60000 && (
        <Button className="min-h-14" onClick={onEnd}>
          The rule’s own {hold.rule} min have passed: end now
        </Button>
      )}
      <Button
        tone="act"
        data-primary
        className="min-h-20 w-full shrink-0 text-xl"
        disabled={!over}
        onClick={onTake ?? onEnd}
      >
        {!over ? (
          `End reading in ${countdown(left)}`
        ) : onTake ? (
          <span>
            End with the display{' '}
            <span className="figure block text-base font-normal">{showExact(shown)}</span>
          </span>
        ) : (
          `${read} now`
        )}
      </Button>
      {over && onTake && (
        <Button className="min-h-14" onClick={onEnd}>
          {read} and type it
        </Button>
      )}
    </div>
  );
}
