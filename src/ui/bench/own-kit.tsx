'use client';
import { useState } from 'react';
import { BLANK_LASTS } from '@/core/instrument/kit';
import { showExact } from '@/core/quantity/exact';
import { Button } from '@/ui/kit/button';
import type { PanelProps } from './shared';

/** Which hose, plug or pump of the cabinet is on the section: what it loses by itself stands beside the test. */
export function OwnKitChoice({ view, act }: Pick<PanelProps, 'view' | 'act'>) {
  const { plan, state } = view;
  const [trouble, setTrouble] = useState('');
  const offered = plan.ownKit ?? [];
  if (!offered.length) return null;
  const on = state.ownKit?.kit ?? [];
  const say = async (kit: readonly string[]) => {
    const answer = await act({ kind: 'own-kit', kit });
    setTrouble(answer.accepted ? '' : answer.text);
  };
  return (
    <fieldset className="mb-4">
      <legend className="font-semibold">What of your own hangs on the section?</legend>
      <div className="mt-2 grid gap-2 sm:grid-cols-2">
        {offered.map((k) => {
          const { blank } = k;
          const chosen = on.includes(k.id);
          const old = blank && blank.days > BLANK_LASTS;
          return (
            <Button
              key={k.id}
              aria-pressed={chosen}
              tone={chosen ? 'act' : 'plain'}
              className="min-h-14 flex-col !items-start text-left"
              onClick={() => void say(chosen ? on.filter((id) => id !== k.id) : [...on, k.id])}
            >
              <span>
                {chosen ? '✓ ' : ''}
                {k.name}
                {k.serial && `, ${k.serial}`}
              </span>
              <span className="text-sm font-normal">
                {blank
                  ? `lost ${showExact(blank.loss)} in ${blank.minutes} min at ${showExact(blank.pressure)}, ${blank.on}${old ? ': older than ${BLANK_LASTS} days' : ''}`
                  : 'never tested by itself'}
              </span>
            </Button>
          );
        })}
        <Button
          aria-pressed={!!state.ownKit && !on.length}
          tone={state.ownKit && !on.length ? 'act' : 'plain'}
          className="min-h-14"
          onClick={() => void say([])}
        >
          {state.ownKit && !on.length ? '✓ ' : ''}None of these
        </Button>
      </div>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </fieldset>
  );
}
