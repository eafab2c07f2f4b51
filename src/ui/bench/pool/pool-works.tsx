'use client';
import type { Plan } from '@/core/plan/plan';
import { poolEnds } from '@/core/trades/pool/ends';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import { Line } from '../line';

const pick = 'min-h-12 px-2 text-sm';
/** What is looked at, dyed and heard at the simulated line of a pool; what was found stands under it, newest first. */
export function PoolWorks({
  plan,
  said,
  does,
}: {
  plan: Plan;
  said: readonly string[];
  does: (body: { act: string; value?: string }) => void;
}) {
  const [along, setAlong] = useState('');
  const listens = Object.values(plan.procedure.stages).some((s) => s.kind === 'listen');
  const newest = said.slice(-4).reverse();
  return (
    <div className="mt-2 grid gap-3">
      {listens ? (
        <form
          className="grid grid-cols-[1fr_auto] items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            does({ act: 'listen', value: along.replace(',', '.') });
          }}
        >
          <Line value={along} onChange={setAlong} most={8} figure>
            So far along the run, m
          </Line>
          <Button type="submit" className={pick} disabled={!along.trim()}>
            Listen there
          </Button>
        </form>
      ) : plan.procedure.unpressed ? (
        <Button className={pick} onClick={() => does({ act: 'dye' })}>
          A little dye before the open plug
        </Button>
      ) : (
        <ul aria-label="Plugs of the simulated line" className="grid gap-2">
          {poolEnds(plan.system).map((e) => (
            <li key={e.id} className="grid grid-cols-[1fr_auto_auto] items-center gap-2">
              <span>{e.name}</span>
              <Button className={pick} onClick={() => does({ act: 'look', value: e.id })}>
                Look
              </Button>
              <Button className={pick} onClick={() => does({ act: 'reseat', value: e.id })}>
                Seat anew
              </Button>
            </li>
          ))}
          <li>
            <Button className={`${pick} w-full`} onClick={() => does({ act: 'look', value: 'ground' })}>
              Walk along the run and look at the ground
            </Button>
          </li>
        </ul>
      )}
      <ol aria-live="polite" aria-label="What was seen and heard" className="min-h-6">
        {newest.map((words, i) => (
          <li key={said.length - i} className={i ? 'text-sm text-quiet' : 'font-semibold'}>
            {words}
          </li>
        ))}
      </ol>
    </div>
  );
}
