'use client';
import { type PartKind, ruleOfPart } from '@/core/network/catalogue';
import { networkOf } from '@/core/network/enter';
import { type Positions, reachOf } from '@/core/network/flood';
import { listId } from '@/core/network/installation';
import { type Network, type Part, positionKey } from '@/core/network/network';
import type { Plan } from '@/core/plan/plan';
import type { SimulatedView } from '@/core/simulation/simulation';
import { NetworkDrawing } from '@/ui/network/drawing';
import { useMemo } from 'react';

type Does = (body: { act: string; value?: string; id?: string }) => void;
/** What one touches a gas installation with. */
export const TOOLS = {
  hand: 'My hand',
  fluid: 'Leak fluid',
  smell: 'My nose',
  look: 'My eyes',
  mend: 'A spanner',
} as const;
export type Tool = keyof typeof TOOLS;
/** A supply valve is shut, cracked and opened in turn, as a hand does it. */
const NEXT = { shut: 'crack', crack: 'open', open: 'shut' } as const;

/** What a tester brings to a section of water, or finds there, and works in practice: by the ids they have on the drawing. */
const WATER_WORKS = {
  pump: 'works:pump',
  release: 'works:release',
  tap: 'works:tap',
  vent: 'works:vent',
} as const;
/** Grid units between the row of works and the installation, and between two of them. */
const ROW_BELOW = 12;
const BESIDE = 11;
type LiquidView = Extract<SimulatedView, { kind: 'liquid' }>;
type CircuitView = Extract<SimulatedView, { kind: 'circuit' }>;

/** The drawing of a section of water with what is worked in practice joined to its test point. */
function withWorks(network: Network, plan: Plan, view: LiquidView): Network {
  const point = network.parts.find((p) => p.kind === 'point');
  if (!point || view.drain) return network;
  const works: readonly (readonly [keyof typeof WATER_WORKS, PartKind, string])[] = [
    ['pump', 'pump', `${view.strokes} stroke${view.strokes === 1 ? '' : 's'}`],
    ['tap', 'tap', view.tap ? 'draw-off, running' : 'draw-off, shut'],
    ['vent', 'vent', 'bleed here'],
    ['release', 'valve', 'release'],
  ];
  // in a row of their own under the installation, where no branch stands; from the left, where the sheet begins
  const x = Math.min(...network.parts.map((p) => p.x));
  const y = Math.max(...network.parts.map((p) => p.y)) + ROW_BELOW;
  const parts = works
    .filter(([key]) => key !== 'pump' || plan.procedure.boundary === 'separated')
    .map(([key, kind, name], n): Part => ({
      id: WATER_WORKS[key],
      kind,
      name,
      place: '',
      facts: {},
      x: x + n * BESIDE,
      y,
    }));
  // from the part to the point: the line runs along this row and up, never over a valve of the installation
  const links = parts.map((p) => ({ id: `${p.id}:join`, from: p.id, to: point.id }));
  return { parts: [...network.parts, ...parts], links: [...network.links, ...links] };
}
/** A valve is turned to where it does not stand. */
const turn = (key: string, closed: readonly string[]) => ({
  act: 'valve',
  id: key,
  value: closed.includes(key) ? 'open' : 'shut',
});
/** What touching a part of a section of water does. */
function handOnWater(plan: Plan, part: Part, key: string, view: LiquidView): Parameters<Does>[0] | null {
  switch (part.id) {
    case WATER_WORKS.pump:
      return { act: 'pump', value: '5' };
    case WATER_WORKS.release:
      return { act: 'bleed', value: view.bleeding ? 'shut' : 'open' };
    case WATER_WORKS.tap:
      return { act: 'tap', value: view.tap ? 'shut' : 'open' };
    case WATER_WORKS.vent:
      return { act: 'air-out' };
  }
  if (view.pool && ruleOfPart(part.kind).lineEnd) return { act: 'look', value: part.id };
  if (part.kind === 'opening') return view.drain ? { act: 'fill', value: String(view.level + 10) } : null;
  if (part.kind !== 'valve') return null;
  if (key !== 'supply') return turn(key, view.closed);
  return plan.procedure.boundary === 'separated'
    ? null
    : { act: 'supply', value: view.supply === 'open' ? 'shut' : 'open' };
}
/** What touching a part of a circuit does: a solenoid valve is worked, a joint or an evaporator gets leak fluid. */
function handOnCircuit(plan: Plan, part: Part, key: string, view: CircuitView): Parameters<Does>[0] | null {
  if (plan.system.valves?.some((v) => v.kind === 'solenoid' && v.id === listId(part)))
    return { act: 'solenoid', id: listId(part) };
  if (part.kind === 'valve') return turn(key, view.closed);
  const place = part.name || part.id;
  return view.places.includes(place) ? { act: 'fluid', value: place } : null;
}
/** What touching a part of the simulated installation does; null where nothing can be worked there. */
export function handOn(
  plan: Plan,
  part: Part,
  key: string,
  view: SimulatedView,
  tool: Tool = 'hand',
): Parameters<Does>[0] | null {
  if (view.kind === 'gas' && tool !== 'hand')
    return { act: tool, value: ruleOfPart(part.kind).closes ? key : listId(part) };
  if (part.kind === 'point') return { act: 'gauge', value: view.connected ? 'open' : 'connected' };
  if (view.kind === 'liquid') return handOnWater(plan, part, key, view);
  if (view.kind === 'circuit') return handOnCircuit(plan, part, key, view);
  if (view.kind === 'duct') {
    if (part.kind === 'valve') return turn(key, view.closed);
    return view.registers.some((r) => r.id === listId(part)) ? { act: 'look-at', id: listId(part) } : null;
  }
  if (part.kind === 'valve' && key === 'supply') return { act: 'supply', value: NEXT[view.supply] };
  if (ruleOfPart(part.kind).closes) return turn(key, view.closed);
  return null;
}
/** How the valves of the simulated installation stand now. */
export const standingOf = (view: SimulatedView, plan?: Plan): Positions => ({
  ...Object.fromEntries(view.closed.map((id) => [id, 'closed' as const])),
  ...(view.kind === 'circuit'
    ? Object.fromEntries(
        (plan?.system.valves ?? [])
          .filter((v) => v.kind === 'solenoid')
          .map((v) => [v.id, view.open.includes(v.id) ? ('open' as const) : ('closed' as const)]),
      )
    : {}),
  ...(view.kind === 'gas' || view.kind === 'liquid'
    ? { supply: view.supply === 'shut' ? ('closed' as const) : ('open' as const) }
    : {}),
  ...(view.kind === 'liquid'
    ? { [WATER_WORKS.release]: view.bleeding ? ('open' as const) : ('closed' as const) }
    : {}),
});

/** The simulated installation drawn, worked on the drawing: a valve touched turns, an appliance gets leak fluid. */
export function WorksDrawn({
  plan,
  view,
  does,
  tool,
}: {
  plan: Plan;
  view: SimulatedView;
  does: Does;
  tool: Tool;
}) {
  const installed = useMemo(() => networkOf(plan.system), [plan.system]);
  const network = view.kind === 'liquid' ? withWorks(installed, plan, view) : installed;
  const positions = standingOf(view, plan);
  const reach = reachOf(network, positions);
  return (
    <>
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
            const hand = handOn(plan, part, positionKey(network, part), view, tool);
            if (hand) does(hand);
          }}
        />
      </div>
      <p className="text-sm text-quiet">
        {view.kind === 'duct'
          ? 'Touch a register to look at its mask, a damper to turn it, the fan to connect the gauge.'
          : view.kind === 'circuit'
            ? 'Touch a solenoid valve to work its magnet, a joint or evaporator for leak fluid, another valve to turn it, the port for the gauge.'
            : view.kind === 'gas'
              ? 'Touch a valve to turn it, the test point to connect the gauge; or take something else in your hand first.'
              : view.drain
                ? 'Touch an opening to fill it 10 mm more.'
                : view.pool
                  ? 'Touch the pump for five strokes, release or high point to work them, an end to look at its plug, the rig for the gauge.'
                  : plan.procedure.boundary === 'separated'
                    ? 'Touch the pump for five strokes, release, tap or high point to work them, the test point for the gauge.'
                    : 'Touch the meter valve to turn it, release, tap or high point to work them, the test point for the gauge.'}
      </p>
    </>
  );
}
