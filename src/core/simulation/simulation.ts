/** What the stand-in gauge plays: a gas installation, or a section full of water. */
import {
  display,
  FAULTS,
  simulate,
  type SimulatedAction,
  type SimulatedInstallation,
  type SimulatedState,
} from './installation';
import {
  CIRCUIT_FAULTS,
  type CircuitAction,
  type CircuitState,
  displayCircuit,
  simulateCircuit,
  type SimulatedCircuit,
} from './circuit';
import {
  displayDuct,
  displayFlow,
  type DuctAction,
  DUCT_FAULTS,
  type DuctState,
  SIMULATED_RINGS,
  simulateDuct,
  type SimulatedDuct,
} from './duct';
import type { Simulates } from '@/core/trades/trade';
import { LIQUID_FAULTS, POOL_FAULTS, type SimulatedLiquid } from './liquid-truth';
import { poolSaid } from './pool-line';
import { displayLiquid, simulateLiquid, type LiquidAction, type LiquidState } from './liquid';

/** What can be hidden in each kind of simulated installation; where nothing is chosen the pool hides its joins. */
export const HIDDEN = {
  gas: FAULTS,
  liquid: LIQUID_FAULTS,
  'pool-line': POOL_FAULTS,
  'pool-joins': {},
  circuit: CIRCUIT_FAULTS,
  duct: DUCT_FAULTS,
} as const satisfies Record<Simulates, Readonly<Record<string, string>>>;
export type Simulation = SimulatedInstallation | SimulatedLiquid | SimulatedCircuit | SimulatedDuct;
export type Action = SimulatedAction | LiquidAction | CircuitAction | DuctAction;
const isLiquid = (s: Simulation): s is SimulatedLiquid => 'kind' in s && s.kind === 'liquid';
const isCircuit = (s: Simulation): s is SimulatedCircuit => 'kind' in s && s.kind === 'circuit';
const isDuct = (s: Simulation): s is SimulatedDuct => 'kind' in s && s.kind === 'duct';
/** Steps up to which the stand-in's own gauge shows: 60 bar, and 2500 Pa of a vacuum. */
const MOST = { pressed: 6000, vacuum: 2500 } as const;

/** Digits of the display at a moment. */
export const shown = (s: Simulation, actions: readonly Action[], at: number): number =>
  isDuct(s)
    ? displayDuct(s, simulateDuct(s, actions as DuctAction[], at))
    : isCircuit(s)
      ? displayCircuit(
          s,
          simulateCircuit(s, actions as CircuitAction[], at),
          s.vacuum ? MOST.vacuum : MOST.pressed,
        )
      : isLiquid(s)
        ? displayLiquid(s, simulateLiquid(s, actions as LiquidAction[], at))
        : display(s, simulate(s, actions as SimulatedAction[], at));

/** Tenths of CFM that the second display shows at a moment: null below its range; undefined where there is none. */
export const shownFlow = (
  s: Simulation,
  actions: readonly Action[],
  at: number,
): number | null | undefined =>
  isDuct(s) ? displayFlow(simulateDuct(s, actions as DuctAction[], at)) : undefined;

/** Temperature at which the simulated sections begin, tenths of a degree C: gas in a room, water in its pipe. */
const BEGINS = { gas: 200, liquid: 150 };
/** Tenths of a degree C that the stand-in's probe on the pipe shows; undefined where it has none. */
export const shownTemperature = (
  s: Simulation,
  actions: readonly Action[],
  at: number,
): number | undefined =>
  isDuct(s) || isCircuit(s)
    ? undefined
    : isLiquid(s)
      ? Math.round(BEGINS.liquid + 10 * simulateLiquid(s, actions as LiquidAction[], at).warmth)
      : Math.round(BEGINS.gas + 10 * simulate(s, actions as SimulatedAction[], at).warmth);

/** What a person at the installation can see: never the hidden fault, nor the true pressure. */
export type SimulatedView =
  | ({ readonly kind: 'gas' } & Pick<
      SimulatedState,
      'supply' | 'bleeding' | 'connected' | 'closedAppliances' | 'fluid'
    >)
  | ({
      readonly kind: 'liquid';
      /** whole mm */ readonly level: number;
      readonly drain: boolean;
      /** What one stroke of the pump delivers, ml. */
      readonly stroke: number;
      /** What was seen and heard at the line of a pool, newest last; null where there is none. */
      readonly said: readonly string[] | null;
    } & Pick<LiquidState, 'supply' | 'bleeding' | 'tap' | 'connected' | 'strokes'>)
  | ({ readonly kind: 'circuit'; readonly vacuum: boolean; readonly places: readonly string[] } & Pick<
      CircuitState,
      'cylinder' | 'venting' | 'pumping' | 'connected' | 'open' | 'said'
    >)
  | ({
      readonly kind: 'duct';
      readonly registers: SimulatedDuct['registers'];
      /** The rings that lie there. */
      readonly rings: readonly string[];
    } & Pick<DuctState, 'speed' | 'set' | 'closed' | 'connected' | 'said'>);
export function seen(s: Simulation, actions: readonly Action[], at: number): SimulatedView {
  if (isDuct(s)) {
    const { speed, set, closed, connected, said } = simulateDuct(s, actions as DuctAction[], at);
    const rings = SIMULATED_RINGS.map((r) => r.name);
    return { kind: 'duct', registers: s.registers, rings, speed, set, closed, connected, said };
  }
  if (isCircuit(s)) {
    const { cylinder, venting, pumping, connected, open, said } = simulateCircuit(
      s,
      actions as CircuitAction[],
      at,
    );
    const { vacuum, places } = s;
    return { kind: 'circuit', vacuum, places, cylinder, venting, pumping, connected, open, said };
  }
  if (isLiquid(s)) {
    const { supply, bleeding, tap, connected, strokes, level } = simulateLiquid(
      s,
      actions as LiquidAction[],
      at,
    );
    return {
      kind: 'liquid',
      supply,
      bleeding,
      tap,
      connected,
      strokes,
      level: Math.round(level),
      drain: s.surface > 0,
      stroke: Math.round(s.stroke * 1e6),
      said: s.pool ? poolSaid(s, s.pool, actions as LiquidAction[], at) : null,
    };
  }
  const { supply, bleeding, connected, closedAppliances, fluid } = simulate(
    s,
    actions as SimulatedAction[],
    at,
  );
  return { kind: 'gas', supply, bleeding, connected, closedAppliances, fluid };
}
