'use client';
import type { SimulatedView } from '@/core/simulation/simulation';
import { Button } from '@/ui/kit/button';

const pick = 'min-h-12 px-2 text-sm';
const SPEEDS = [-10, -2, 2, 10];
/** Fan, rings, hose, masks and smoke of a simulated duct system; what was seen stands under it, newest first. */
export function DuctWorks({
  view,
  does,
}: {
  view: Extract<SimulatedView, { kind: 'duct' }>;
  does: (body: { act: string; value?: string; id?: string }) => void;
}) {
  const rings = (act: 'mount' | 'set', legend: string) => (
    <fieldset>
      <legend className="text-sm text-quiet">{legend}</legend>
      <div className="grid grid-cols-4 gap-2">
        {view.rings.map((r) => (
          <Button
            key={r}
            className={pick}
            {...(act === 'set'
              ? {
                  tone: view.set === r ? ('act' as const) : ('plain' as const),
                  'aria-pressed': view.set === r,
                }
              : {})}
            onClick={() => does({ act, value: r })}
          >
            {r}
          </Button>
        ))}
      </div>
    </fieldset>
  );
  const at = (act: string, words: string) => (
    <div className="grid grid-cols-2 gap-2" role="group" aria-label={words}>
      {view.registers.map((r) => (
        <Button key={r.id} className={pick} onClick={() => does({ act, id: r.id })}>
          {words}: {r.name}
        </Button>
      ))}
    </div>
  );
  return (
    <div className="mt-2 grid gap-3">
      <fieldset>
        <legend className="text-sm text-quiet">
          Fan at <span className="figure-narrow">{view.speed} %</span>
        </legend>
        <div className="grid grid-cols-5 gap-2">
          <Button className={pick} onClick={() => does({ act: 'speed', value: '0' })}>
            Off
          </Button>
          {SPEEDS.map((by) => (
            <Button
              key={by}
              className={pick}
              onClick={() =>
                does({ act: 'speed', value: String(Math.min(100, Math.max(0, view.speed + by))) })
              }
            >
              {by > 0 ? `+${by}` : `−${-by}`} %
            </Button>
          ))}
        </div>
      </fieldset>
      {rings('mount', 'Put on the fan')}
      {rings('set', 'The gauge is set to')}
      <div className="grid grid-cols-2 gap-2">
        <Button className={pick} onClick={() => does({ act: 'look-fan' })}>
          Look at the fan
        </Button>
        <Button
          className={pick}
          tone={view.looped ? 'act' : 'plain'}
          aria-pressed={view.looped}
          onClick={() => does({ act: 'hose', value: view.looped ? 'ducts' : 'closed' })}
        >
          {view.looped ? 'Hose closed on itself' : 'Hose on the ducts'}
        </Button>
        <Button
          className={pick}
          tone={view.connected ? 'act' : 'plain'}
          aria-pressed={view.connected}
          onClick={() => does({ act: 'gauge', value: view.connected ? 'open' : 'connected' })}
        >
          {view.connected ? 'Gauge connected' : 'Gauge open to air'}
        </Button>
        <Button className={pick} onClick={() => does({ act: 'zero' })}>
          Zero it
        </Button>
        <Button className={pick} onClick={() => does({ act: 'new-hose' })}>
          Another hose
        </Button>
      </div>
      <details>
        <summary className="min-h-11 cursor-pointer py-2">At the registers: masks, smoke, sealing</summary>
        <div className="grid gap-3">
          {at('mask', 'Mask')}
          {at('smoke', 'Smoke')}
          {at('seal', 'Seal')}
        </div>
      </details>
      <ol aria-live="polite" aria-label="What was seen and heard" className="min-h-6">
        {view.said
          .slice(-4)
          .reverse()
          .map((words, i) => (
            <li key={view.said.length - i} className={i ? 'text-sm text-quiet' : 'font-semibold'}>
              {words}
            </li>
          ))}
      </ol>
    </div>
  );
}
