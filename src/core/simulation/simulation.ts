/** What the stand-in gauge plays: a gas installation, or a section full of water. */
import {
  display,
  FAULTS,
  simulate,
  type SimulatedAction,
  type SimulatedInstallation,
  type SimulatedState,
} from './installation';
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
} as const satisfies Record<Simulates, Readonly<Record<string, string>>>;
export type Simulation = SimulatedInstallation | SimulatedLiquid;
export type Action = SimulatedAction | LiquidAction;
const isLiquid = (s: Simulation): s is SimulatedLiquid => 'kind' in s;

/** Digits of the display at a moment. */
export const shown = (s: Simulation, actions: readonly Action[], at: number): number =>
  isLiquid(s)
    ? displayLiquid(s, simulateLiquid(s, actions as LiquidAction[], at))
    : display(s, simulate(s, actions as SimulatedAction[], at));

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
    } & Pick<LiquidState, 'supply' | 'bleeding' | 'tap' | 'connected' | 'strokes'>);
export function seen(s: Simulation, actions: readonly Action[], at: number): SimulatedView {
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
