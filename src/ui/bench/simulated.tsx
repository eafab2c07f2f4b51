'use client';
import { useCallback, useEffect, useState } from 'react';
import type { Plan } from '@/core/plan/plan';
import { office, type OfficeError } from '@/device/office';
import type { SimulatedView } from '@/core/simulation/simulation';
import { Button } from '@/ui/kit/button';
import { simulatesOf } from '@/core/plan/offer';
import { CircuitWorks } from './circuit-works';
import { DuctWorks } from './duct/duct-works';
import { PoolWorks } from './pool/pool-works';
import { type Tool, TOOLS, WorksDrawn } from './works-drawn';

/** The simulated installation, worked by hand: valves, bleed, gauge, leak fluid. The model answers on the gauge. */
export const SimulatedWorks = ({ plan }: { plan: Plan }) =>
  // hidden joins answer where the look is entered: nothing else is worked there
  simulatesOf(plan.procedure, plan.system) === 'pool-joins' ? null : <Works plan={plan} />;
function Works({ plan }: { plan: Plan }) {
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
  const gas = state?.kind === 'gas' ? state : null;
  const pressed = !plan.procedure.unpressed;
  const [tool, setTool] = useState<Tool>('hand');
  useEffect(() => {
    // a level is looked at; nothing streams it
    if (state?.kind !== 'liquid' || !state.drain) return;
    const timer = setInterval(() => void take(office<SimulatedView>(url)), 2000);
    return () => clearInterval(timer);
  }, [state, take, url]);
  return (
    <section aria-labelledby="works" className="border-2 border-dashed border-heather p-3">
      <h2 id="works" className="font-semibold text-heather">
        Simulated installation
      </h2>
      {!state && !trouble && <p className="text-quiet">Looking at the valves …</p>}
      {state && (pressed || state.kind === 'duct') && (
        <WorksDrawn plan={plan} view={state} does={does} tool={tool} />
      )}
      {state?.kind === 'duct' && <DuctWorks view={state} does={does} />}
      {state?.kind === 'circuit' && <CircuitWorks plan={plan} view={state} does={does} />}
      {state?.kind === 'liquid' && state.pool && <PoolWorks plan={plan} said={state.said} does={does} />}
      {state?.kind === 'liquid' && pressed && (
        <WaterWorks view={state} does={does} live={plan.procedure.boundary !== 'separated'} />
      )}
      {gas && <GasWorks view={gas} does={does} tool={tool} onTool={setTool} />}
      {(state?.kind === 'gas' || (state?.kind === 'liquid' && !state.pool)) && <Told said={state.said} />}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}

/** What was seen, smelt and read last, the newest first. */
const TOLD = 3;
const Told = ({ said }: { said: readonly string[] }) => (
  <ul className="mt-2 min-h-6 text-sm" aria-live="polite" aria-label="What you found">
    {said.slice(-TOLD).map((words, i, all) => (
      <li
        key={said.length - all.length + i}
        className={i === all.length - 1 ? 'font-semibold' : 'text-quiet'}
      >
        {words}
      </li>
    ))}
  </ul>
);
/** A gas installation: what is not on the drawing, and what one has in the hand when one touches it. */
function GasWorks({
  view,
  does,
  tool,
  onTool,
}: {
  view: Extract<SimulatedView, { kind: 'gas' }>;
  does: (body: { act: string; value?: string; id?: string }) => void;
  tool: Tool;
  onTool: (tool: Tool) => void;
}) {
  return (
    <div className="mt-2 grid gap-3">
      <fieldset>
        <legend className="text-sm text-quiet">In your hand, for what you touch</legend>
        <div className="grid grid-cols-3 gap-2">
          {(Object.keys(TOOLS) as Tool[]).map((t) => (
            <Button
              key={t}
              className={pick}
              tone={tool === t ? 'act' : 'plain'}
              aria-pressed={tool === t}
              onClick={() => onTool(t)}
            >
              {TOOLS[t]}
            </Button>
          ))}
          {tool !== 'hand' &&
            (
              [
                ['kit', 'on my own kit'],
                ['pipework', 'along the pipe'],
              ] as const
            ).map(([place, words]) => (
              <Button key={place} className={pick} onClick={() => does({ act: tool, value: place })}>
                {words}
              </Button>
            ))}
        </div>
      </fieldset>
      {view.pump ? (
        <fieldset>
          <legend className="text-sm text-quiet">Pump</legend>
          <div className="grid grid-cols-3 gap-2">
            {['1', '5', '25'].map((n) => (
              <Button key={n} className={pick} onClick={() => does({ act: 'pump', value: n })}>
                {n} {n === '1' ? 'stroke' : 'strokes'}
              </Button>
            ))}
          </div>
        </fieldset>
      ) : (
        <fieldset>
          <legend className="text-sm text-quiet">
            Supply valve; the meter has counted{' '}
            <span className="figure-narrow">{view.metered.toFixed(2)} l</span>
          </legend>
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
                tone={view.supply === v ? 'act' : 'plain'}
                aria-pressed={view.supply === v}
                onClick={() => does({ act: 'supply', value: v })}
              >
                {w}
              </Button>
            ))}
          </div>
        </fieldset>
      )}
      <fieldset>
        <legend className="text-sm text-quiet">Gauge, bleed, detector</legend>
        <div className="grid grid-cols-3 gap-2">
          <Button
            className={pick}
            tone={view.connected ? 'act' : 'plain'}
            aria-pressed={view.connected}
            onClick={() => does({ act: 'gauge', value: view.connected ? 'open' : 'connected' })}
          >
            {view.connected ? 'Connected' : 'Open to air'}
          </Button>
          <Button className={pick} onClick={() => does({ act: 'zero' })}>
            Zero it
          </Button>
          <Button className={pick} onClick={() => does({ act: 'tap-gauge' })}>
            Tap it
          </Button>
          <Button className={pick} onClick={() => does({ act: 'level-gauge' })}>
            Hang it plumb
          </Button>
          <Button
            className={pick}
            tone={view.bleeding ? 'act' : 'plain'}
            aria-pressed={view.bleeding}
            onClick={() => does({ act: 'bleed', value: view.bleeding ? 'shut' : 'open' })}
          >
            {view.bleeding ? 'Bleeding' : 'Bleed'}
          </Button>
          <Button className={pick} onClick={() => does({ act: 'detector' })}>
            Detector on metal
          </Button>
        </div>
      </fieldset>
    </div>
  );
}

const pick = 'min-h-12 px-2 text-sm';
/** A section full of water, worked by hand: pump, release, air, taps, mains; or a drain by its level. */
function WaterWorks({
  view,
  does,
  live,
}: {
  view: Extract<SimulatedView, { kind: 'liquid' }>;
  does: (body: { act: string; value?: string }) => void;
  live: boolean;
}) {
  const [height, setHeight] = useState('60');
  if (view.drain)
    return (
      <div className="mt-2 grid gap-3">
        <p>
          Mark at the opening: <span className="figure text-2xl">{view.level} mm</span> over the slab
        </p>
        <label className="text-sm">
          Fill to, mm over the slab
          <input
            className="figure mt-1 min-h-12 w-full border border-edge bg-panel px-2 text-lg"
            inputMode="numeric"
            value={height}
            onChange={(e) => setHeight(e.target.value)}
          />
        </label>
        <Button className={pick} onClick={() => does({ act: 'fill', value: height })}>
          Fill through the air gap
        </Button>
      </div>
    );
  const toggle = (act: string, on: boolean, words: [string, string]) => (
    <Button
      className={pick}
      tone={on ? 'act' : 'plain'}
      aria-pressed={on}
      onClick={() => does({ act, value: on ? 'shut' : 'open' })}
    >
      {on ? words[1] : words[0]}
    </Button>
  );
  return (
    <div className="mt-2 grid gap-3">
      {!live && (
        <fieldset>
          <legend className="text-sm text-quiet">
            Pump, {view.stroke} ml a stroke: <span className="figure-narrow">{view.strokes}</span>{' '}
            {view.strokes === 1 ? 'stroke' : 'strokes'} so far
          </legend>
          <div className="grid grid-cols-3 gap-2">
            {['1', '5', '25'].map((n) => (
              <Button key={n} className={pick} onClick={() => does({ act: 'pump', value: n })}>
                {n} {n === '1' ? 'stroke' : 'strokes'}
              </Button>
            ))}
          </div>
        </fieldset>
      )}
      {live && toggle('supply', view.supply === 'open', ['Meter valve: shut', 'Meter valve: open'])}
      <div className="grid grid-cols-2 gap-2">
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
        {toggle('bleed', view.bleeding, ['Release: shut', 'Releasing'])}
        {toggle('tap', view.tap, ['Tap: shut', 'Tap: running'])}
        <Button className={pick} onClick={() => does({ act: 'air-out' })}>
          Bleed air at the high point
        </Button>
        <Button className={pick} onClick={() => does({ act: 'look', value: 'kit' })}>
          Look at my own kit
        </Button>
        <Button className={pick} onClick={() => does({ act: 'mend', value: 'kit' })}>
          Couple it anew
        </Button>
      </div>
    </div>
  );
}
