'use client';
import { warmAt, warmMinutes } from '@/core/kinds/smoke/fold';
import { Button } from '@/ui/kit/button';
import { countdown } from '@/ui/kit/words';
import type { PanelProps } from '../shared';

/** The smoke machine warms up by itself, whatever else is done: switched on early it is ready when it is needed. */
export function SmokeWarm({ view, at, act }: Pick<PanelProps, 'view' | 'at' | 'act'>) {
  const minutes = warmMinutes(view.plan);
  if (minutes === null) return null;
  const ready = warmAt(view.state, minutes);
  if (ready === null)
    return (
      <Button className="min-h-14 w-full" onClick={() => void act({ kind: 'smoke-on' })}>
        <span>
          Smoke machine switched on
          <span className="block text-sm font-normal">it warms up {minutes} min</span>
        </span>
      </Button>
    );
  return (
    <p role="timer" className="py-2">
      Smoke machine:{' '}
      {at < ready ? (
        <>
          warm in <span className="figure text-xl">{countdown(ready - at)}</span>
        </>
      ) : (
        'warm, ready'
      )}
    </p>
  );
}
