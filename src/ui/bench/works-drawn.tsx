'use client';
import { useMemo } from 'react';
import { networkOf } from '@/core/network/enter';
import { reachOf, type Positions } from '@/core/network/flood';
import { listId } from '@/core/network/installation';
import { positionKey, type Part } from '@/core/network/network';
import type { Plan } from '@/core/plan/plan';
import type { SimulatedView } from '@/core/simulation/simulation';
import { NetworkDrawing } from '@/ui/network/drawing';

type Does = (body: { act: string; value?: string; id?: string }) => void;
/** A supply valve is shut, cracked and opened in turn, as a hand does it. */
const NEXT = { shut: 'crack', crack: 'open', open: 'shut' } as const;

/** What touching a part of the simulated installation does; null where nothing can be worked there. */
export function handOn(plan: Plan, part: Part, key: string, view: SimulatedView): Parameters<Does>[0] | null {
  if (part.kind === 'point') return { act: 'gauge', value: view.connected ? 'open' : 'connected' };
  if (view.kind === 'liquid')
    return key === 'supply' && part.kind === 'valve' && plan.procedure.boundary !== 'separated'
      ? { act: 'supply', value: view.supply === 'open' ? 'shut' : 'open' }
      : null;
  if (part.kind === 'valve' && key === 'supply') return { act: 'supply', value: NEXT[view.supply] };
  if (part.kind === 'valve' && plan.system.appliances.some((a) => a.id === key))
    return { act: 'appliance', id: key, value: view.closedAppliances.includes(key) ? 'open' : 'shut' };
  if (part.kind === 'appliance') return { act: 'fluid', value: listId(part) };
  return null;
}
/** How the valves of the simulated installation stand now. */
export const standingOf = (view: SimulatedView): Positions => ({
  supply: view.supply === 'shut' ? 'closed' : 'open',
  ...(view.kind === 'gas'
    ? Object.fromEntries(view.closedAppliances.map((id) => [id, 'closed' as const]))
    : {}),
});

/** The simulated installation drawn, worked on the drawing: a valve touched turns, an appliance gets leak fluid. */
export function WorksDrawn({ plan, view, does }: { plan: Plan; view: SimulatedView; does: Does }) {
  const network = useMemo(() => networkOf(plan.system), [plan.system]);
  const positions = standingOf(view);
  const reach = reachOf(network, positions);
  return (
    <div
      className="mt-2 overflow-x-auto"
      role="region"
      aria-label="Installation, worked by touch"
      tabIndex={0}
    >
      <NetworkDrawing
        network={network}
        reach={reach}
        positions={positions}
        label="The simulated installation"
        least={0.6}
        onPart={(id) => {
          const part = network.parts.find((p) => p.id === id)!;
          const hand = handOn(plan, part, positionKey(network, part), view);
          if (hand) does(hand);
        }}
      />
      <p className="text-sm text-quiet">
        {view.kind === 'gas'
          ? 'Touch a valve to turn it, an appliance to put leak fluid on it, the test point to connect the gauge.'
          : 'Touch the test point to connect the gauge or to take it off, the supply where it feeds the section.'}
      </p>
    </div>
  );
}
