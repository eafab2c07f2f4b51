'use client';
import type { Plan } from '@/core/plan/plan';
import type { SimulatedView } from '@/core/simulation/simulation';
import { Button } from '@/ui/kit/button';

const pick = 'min-h-12 px-2 text-sm';
/** Cylinder, vent, pump, gauge, thermometer and leak fluid of a simulated circuit; what was seen stands under it, newest first. */
export function CircuitWorks({
  plan,
  view,
  does,
}: {
  plan: Plan;
  view: Extract<SimulatedView, { kind: 'circuit' }>;
  does: (body: { act: string; value?: string; id?: string }) => void;
}) {
  const solenoids = (plan.system.valves ?? []).filter((v) => v.kind === 'solenoid');
  const toggle = (
    act: string,
    on: boolean,
    words: [string, string],
    values: [string, string] = ['open', 'shut'],
  ) => (
    <Button
      className={pick}
      tone={on ? 'act' : 'plain'}
      aria-pressed={on}
      onClick={() => does({ act, value: on ? values[1] : values[0] })}
    >
      {on ? words[1] : words[0]}
    </Button>
  );
  const newest = view.said.slice(-4).reverse();
  return (
    <div className="mt-2 grid gap-3">
      <div className="grid grid-cols-2 gap-2">
        <Button className={pick} onClick={() => does({ act: 'label' })}>
          Read the cylinder’s label
        </Button>
        {toggle('cylinder', view.cylinder, ['Manifold: shut', 'Manifold: OPEN'])}
        {toggle('vent', view.venting, ['Vent: shut', 'Venting'])}
        {view.vacuum && toggle('vacuum-pump', view.pumping, ['Pump: off', 'Pump: running'], ['on', 'off'])}
        {toggle('gauge', view.connected, ['Gauge open to air', 'Gauge connected'], ['connected', 'open'])}
        {!view.vacuum && (
          <Button className={pick} onClick={() => does({ act: 'zero' })}>
            Zero it
          </Button>
        )}
      </div>
      {solenoids.length > 0 && (
        <div className="grid grid-cols-2 gap-2" role="group" aria-label="Solenoid valves">
          {solenoids.map((v) => (
            <Button
              key={v.id}
              className={pick}
              tone={view.open.includes(v.id) ? 'act' : 'plain'}
              aria-pressed={view.open.includes(v.id)}
              onClick={() => does({ act: 'solenoid', id: v.id })}
            >
              {v.name}: {view.open.includes(v.id) ? 'open' : 'shut'}
            </Button>
          ))}
        </div>
      )}
      {!view.vacuum && (
        <div className="grid grid-cols-2 gap-2" role="group" aria-label="Thermometer">
          <Button className={pick} onClick={() => does({ act: 'thermometer', value: 'pipe' })}>
            Thermometer on the pipe
          </Button>
          <Button className={pick} onClick={() => does({ act: 'thermometer', value: 'room' })}>
            Thermometer in the room
          </Button>
        </div>
      )}
      {!view.vacuum && (
        <div className="grid grid-cols-2 gap-2" role="group" aria-label="Leak fluid on">
          {view.places.map((p) => (
            <Button key={p} className={pick} onClick={() => does({ act: 'fluid', value: p })}>
              Fluid: {p.replaceAll('-', ' ')}
            </Button>
          ))}
        </div>
      )}
      <ol aria-live="polite" aria-label="What was seen and heard" className="min-h-6">
        {newest.map((words, i) => (
          <li key={view.said.length - i} className={i ? 'text-sm text-quiet' : 'font-semibold'}>
            {words}
          </li>
        ))}
      </ol>
    </div>
  );
}
