'use client';
import { useState } from 'react';
import { BLANK_LASTS, type OwnKit } from '@/core/instrument/kit';
import { tradeOf } from '@/core/trades';
import { showExact } from '@/core/quantity/exact';
import { Button } from '@/ui/kit/button';
import type { PanelProps } from './shared';

function testWords({ blank }: OwnKit): string {
  if (!blank) return 'never tested by itself';
  const test = `lost ${showExact(blank.loss)} in ${blank.minutes} min at ${showExact(blank.pressure)}`;
  return blank.days > BLANK_LASTS
    ? `${test}, but ${blank.days} days ago: test it again`
    : `${test}, ${blank.days} ${blank.days === 1 ? 'day' : 'days'} ago`;
}

/**
 * Which hose, plug or pump of the cabinet is on the section: what it loses by itself stands beside the test. One line until
 * it is opened, so that the gauges stay in sight.
 */
export function OwnKitChoice({
  view,
  act,
  opened = false,
}: Pick<PanelProps, 'view' | 'act'> & { readonly opened?: boolean }) {
  const { plan, state } = view;
  const [open, setOpen] = useState(opened);
  const [trouble, setTrouble] = useState('');
  // what was tested by itself first: it is what is taken along
  // a fan has a stage of its own for what its hose passes
  const offered = (plan.ownKit ?? [])
    .filter((k) => k.kind !== 'fan')
    .sort((a, b) => Number(!!b.blank) - Number(!!a.blank));
  if (!offered.length || tradeOf(plan.system).unpiped) return null;
  const on = state.ownKit?.kit ?? [];
  const names = offered.filter((k) => on.includes(k.id)).map((k) => k.name);
  const say = async (kit: readonly string[]) => {
    const answer = await act({ kind: 'kit', kit });
    setTrouble(answer.accepted ? '' : answer.text);
  };
  return (
    <fieldset className="mb-3 border border-seam bg-panel px-3 py-2">
      <legend className="sr-only">Your own hose, plug or pump on the section</legend>
      <div className="flex flex-wrap items-center justify-between gap-x-3">
        <span>
          Your own hose, plug or pump on it:{' '}
          <span className="font-semibold">
            {names.length ? names.join(', ') : state.ownKit ? 'none of the cabinet' : 'not said'}
          </span>
        </span>
        <Button className="min-h-12" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Done' : state.ownKit ? 'Change' : 'Say which'}
        </Button>
      </div>
      {open && (
        <ul className="mt-2">
          {offered.map((k) => (
            <li key={k.id} className="border-t border-seam">
              <label className="flex min-h-14 items-center gap-3 py-1">
                <input
                  type="checkbox"
                  className="size-6 shrink-0 accent-lake"
                  checked={on.includes(k.id)}
                  onChange={(e) =>
                    void say(e.target.checked ? [...on, k.id] : on.filter((id) => id !== k.id))
                  }
                />
                <span>
                  {k.name}
                  {k.serial && `, ${k.serial}`}
                  <span
                    className={`block text-sm ${k.blank && k.blank.days <= BLANK_LASTS ? 'text-quiet' : 'text-ochre'}`}
                  >
                    {testWords(k)}
                  </span>
                </span>
              </label>
            </li>
          ))}
          <li className="border-t border-seam">
            <label className="flex min-h-14 items-center gap-3 py-1">
              <input
                type="checkbox"
                className="size-6 shrink-0 accent-lake"
                checked={!!state.ownKit && !on.length}
                onChange={() => void say([])}
              />
              None of these
            </label>
          </li>
        </ul>
      )}
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
    </fieldset>
  );
}
