/** What the stand-in gauge plays: a gas installation, or a section full of water. */
import {
  display,
  simulate,
  type SimulatedAction,
  type SimulatedInstallation,
  type SimulatedState,
} from './installation';
import {
  displayLiquid,
  simulateLiquid,
  type LiquidAction,
  type LiquidState,
  type SimulatedLiquid,
} from './liquid';

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
  | ({ readonly kind: 'liquid'; /** whole mm */ readonly level: number; readonly drain: boolean } & Pick<
      LiquidState,
      'supply' | 'bleeding' | 'tap' | 'connected' | 'strokes'
    >);
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
    };
  }
  const { supply, bleeding, connected, closedAppliances, fluid } = simulate(
    s,
    actions as SimulatedAction[],
    at,
  );
  return { kind: 'gas', supply, bleeding, connected, closedAppliances, fluid };
}
