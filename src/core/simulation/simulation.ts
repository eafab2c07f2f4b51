/** What the stand-in gauge plays: an installation of any trade, with what it hides. */
import type { Simulates } from '@/core/trades/trade';
import {
  CIRCUIT_FAULTS,
  type CircuitAction,
  type CircuitView,
  CircuitWorld,
  type SimulatedCircuit,
} from './circuit';
import { DUCT_FAULTS, type DuctAction, type DuctView, DuctWorld, type SimulatedDuct } from './duct';
import { type GasAction, type GasView, GasWorld, type SimulatedGas } from './gas';
import { FAULTS } from './gas-truth';
import { type LiquidAction, type LiquidView, LiquidWorld } from './liquid';
import { LIQUID_FAULTS, POOL_FAULTS, type SimulatedLiquid } from './liquid-truth';
import { along, type World } from './world';

/** What can be hidden by name in each kind of simulated installation; where nothing is chosen the pool hides its joins. */
export const HIDDEN = {
  gas: FAULTS,
  liquid: LIQUID_FAULTS,
  'pool-line': POOL_FAULTS,
  'pool-joins': {},
  circuit: CIRCUIT_FAULTS,
  duct: DUCT_FAULTS,
} as const satisfies Record<Simulates, Readonly<Record<string, string>>>;
export type Simulation = SimulatedGas | SimulatedLiquid | SimulatedCircuit | SimulatedDuct;
export type Action = GasAction | LiquidAction | CircuitAction | DuctAction;
/** What a person at the installation can see: never what is hidden, nor the true pressure. */
export type SimulatedView = GasView | LiquidView | CircuitView | DuctView;
export type AnyWorld = World<Action, SimulatedView>;

/** The world of a simulation at its beginning; what was done to it brings it on. */
export function worldOf(s: Simulation): AnyWorld {
  switch (s.kind) {
    case 'gas':
      return new GasWorld(s) as AnyWorld;
    case 'liquid':
      return new LiquidWorld(s) as AnyWorld;
    case 'circuit':
      return new CircuitWorld(s) as AnyWorld;
    case 'duct':
      return new DuctWorld(s) as AnyWorld;
  }
}
/** Asks at several moments, by one run through. @param at ms, ascending; what is done later is not there yet */
export const asked = <T>(
  s: Simulation,
  actions: readonly Action[],
  at: readonly number[],
  ask: (world: AnyWorld, at: number) => T,
): T[] => along(worldOf(s), actions, at, ask);
/** Digits of the display at a moment. */
export const shown = (s: Simulation, actions: readonly Action[], at: number): number =>
  asked(s, actions, [at], (w) => w.display())[0]!;
