/** Simulated installations asked at a moment, with what only tests may see. */
import type { CircuitAction, CircuitView, SimulatedCircuit } from '@/core/simulation/circuit';
import type { DuctAction, DuctView, SimulatedDuct } from '@/core/simulation/duct';
import type { GasAction, GasView, SimulatedGas } from '@/core/simulation/gas';
import type { LiquidAction, LiquidView } from '@/core/simulation/liquid';
import type { SimulatedLiquid } from '@/core/simulation/liquid-truth';
import { type Action, asked, type Simulation } from '@/core/simulation/simulation';

function at<V, Inside>(s: Simulation, actions: readonly Action[], moment: number) {
  return asked(s, actions, [moment], (w) => ({
    ...(w as unknown as Inside),
    ...(w.view() as V),
    ...w.truth(),
    pressure: w.truth().steps * s.step,
    display: w.display(),
    shownFlow: w.flow(),
    probe: w.probe(),
  }))[0]!;
}
export const gasAt = (s: SimulatedGas, actions: readonly GasAction[], moment: number) =>
  at<GasView, object>(s, actions, moment);
export const liquidAt = (s: SimulatedLiquid, actions: readonly LiquidAction[], moment: number) =>
  at<LiquidView, { readonly air: number; readonly plug: string }>(s, actions, moment);
export const circuitAt = (s: SimulatedCircuit, actions: readonly CircuitAction[], moment: number) =>
  at<CircuitView, object>(s, actions, moment);
export const ductAt = (s: SimulatedDuct, actions: readonly DuctAction[], moment: number) => {
  const state = at<DuctView, { readonly mounted: string }>(s, actions, moment);
  const met = asked(s, actions, [moment], (w) =>
    (w as unknown as { meets(): { pressure: number; fan: number; flow: number } }).meets(),
  );
  return { ...state, ...met[0]! };
};
