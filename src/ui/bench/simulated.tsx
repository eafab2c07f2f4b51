'use client';
import { useCallback, useEffect, useState } from 'react';
import type { Plan } from '@/core/plan/plan';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';

interface SimulatedView {
  readonly supply: 'shut' | 'crack' | 'open';
  readonly bleeding: boolean;
  readonly connected: boolean;
  readonly closedAppliances: readonly string[];
  readonly fluid: readonly { readonly at: number; readonly place: string; readonly bubbles: boolean }[];
}
/** The simulated installation, worked by hand: valves, bleed, gauge, leak fluid. The model answers on the gauge. */
export function SimulatedWorks({ plan }: { plan: Plan }) {
  const [state, setState] = useState<SimulatedView | null>(null);
  const [trouble, setTrouble] = useState('');
  const url = `/api/runs/${plan.run}/simulated`;
  const take = useCallback(
    (work: Promise<SimulatedView>) =>
      work.then(
        (s) => {
          setState(s);
          setTrouble('');
        },
        (e: OfficeError) => setTrouble(e.message),
      ),
    [],
  );
  useEffect(() => {
    void take(office<SimulatedView>(url));
  }, [take, url]);
  const does = (body: { act: string; value?: string; id?: string }) =>
    void take(office<SimulatedView>(url, { body }));
  const pick = 'min-h-12 px-2 text-sm';
  const places = [
    ['valve', 'the valve barrel'],
    ['pipework', 'the pipe joints'],
    ['kit', 'my own kit'],
    ...plan.system.appliances.map((a) => [a.id, a.name]),
  ] as [string, string][];
  const last = state?.fluid[state.fluid.length - 1];
  return (
    <section aria-labelledby="works" className="border-2 border-dashed border-heather p-3">
      <h2 id="works" className="font-semibold text-heather">
        Simulated installation
      </h2>
      {!state && !trouble && <p className="text-quiet">Looking at the valves …</p>}
      {state && (
        <div className="mt-2 grid gap-3">
          <fieldset>
            <legend className="text-sm text-quiet">Supply valve</legend>
            <div className="grid grid-cols-3 gap-2">
              {(
                [
                  ['shut', 'Shut'],
                  ['crack', 'Cracked'],
                  ['open', 'Open'],
                ] as const
              ).map(([v, w]) => (
                <Button
                  key={v}
                  className={pick}
                  tone={state.supply === v ? 'act' : 'plain'}
                  aria-pressed={state.supply === v}
                  onClick={() => does({ act: 'supply', value: v })}
                >
                  {w}
                </Button>
              ))}
            </div>
          </fieldset>
          <fieldset>
            <legend className="text-sm text-quiet">Gauge and bleed</legend>
            <div className="grid grid-cols-3 gap-2">
              <Button
                className={pick}
                tone={state.connected ? 'act' : 'plain'}
                aria-pressed={state.connected}
                onClick={() => does({ act: 'gauge', value: state.connected ? 'open' : 'connected' })}
              >
                {state.connected ? 'Connected' : 'Open to air'}
              </Button>
              <Button className={pick} onClick={() => does({ act: 'zero' })}>
                Zero it
              </Button>
              <Button
                className={pick}
                tone={state.bleeding ? 'act' : 'plain'}
                aria-pressed={state.bleeding}
                onClick={() => does({ act: 'bleed', value: state.bleeding ? 'shut' : 'open' })}
              >
                {state.bleeding ? 'Bleeding' : 'Bleed'}
              </Button>
            </div>
          </fieldset>
          <fieldset>
            <legend className="text-sm text-quiet">Appliance isolating valves</legend>
            <div className="grid grid-cols-2 gap-2">
              {plan.system.appliances.map((a) => {
                const open = !state.closedAppliances.includes(a.id);
                return (
                  <Button
                    key={a.id}
                    className={pick}
                    tone={open ? 'plain' : 'act'}
                    aria-pressed={!open}
                    onClick={() => does({ act: 'appliance', id: a.id, value: open ? 'shut' : 'open' })}
                  >
                    {a.name}: {open ? 'open' : 'shut'}
                  </Button>
                );
              })}
            </div>
          </fieldset>
          <fieldset>
            <legend className="text-sm text-quiet">Leak fluid on</legend>
            <div className="grid grid-cols-2 gap-2">
              {places.map(([key, words]) => (
                <Button key={key} className={pick} onClick={() => does({ act: 'fluid', value: key })}>
                  {words}
                </Button>
              ))}
            </div>
            <p className="mt-1 min-h-6" aria-live="polite">
              {last
                ? `${places.find(([k]) => k === last.place)?.[1] ?? last.place}: ${last.bubbles ? 'large growing bubbles' : 'no bubbles'}`
                : ''}
            </p>
          </fieldset>
        </div>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
