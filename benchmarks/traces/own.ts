/** Traces by the product's own simulator, as a practice run plays them: each hidden fault, and what the analysis makes of it. */
import { analyse } from '@/core/analysis/analyse';
import type { Cause, SectionFacts } from '@/core/analysis/section';
import { pressurePerKelvin } from '@/core/medium/gas';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { type Fault, gasTruth } from '@/core/simulation/gas-truth';
import { type LiquidFault, liquidTruth, type SimulatedLiquid } from '@/core/simulation/liquid-truth';
import { type Action, shown, type Simulation } from '@/core/simulation/simulation';

const LITRE_HOUR = 1e-3 / 3600;
interface Played {
  readonly name: string;
  readonly simulation: Simulation;
  readonly actions: readonly Action[];
  /** s from the beginning */ readonly from: number;
  readonly seconds: number;
  readonly facts: (pressure: number) => SectionFacts;
  /** What it may be called; the first is the truth. */
  readonly truth: readonly Cause[];
}
const GAS: readonly (readonly [Fault, number, readonly Cause[]])[] = [
  ['none', 1, ['steady']],
  ['leak', 1, ['leak', 'temperature+leak']],
  ['appliance-leak', 1, ['leak', 'temperature+leak']],
  ['let-by', 12, ['let-by']],
  ['warming', 1, ['temperature']],
];
function gas([fault, bled, truth]: (typeof GAS)[number], seed: number): Played {
  const volume = 0.015 + (seed % 7) * 0.004;
  const supply = 2100;
  return {
    name: `gas, ${fault}`,
    truth,
    simulation: {
      kind: 'gas',
      seed,
      truth: gasTruth(fault, seed, { volume, supply, appliances: ['a', 'b'], pipes: ['p'], valves: [] }),
      // a source, its valve, and all the rest in one
      cells: [
        { holds: [], volume: 0, fed: true },
        { holds: ['p', 'a', 'b'], volume, fed: false },
      ],
      valves: [{ key: 'supply', name: 'supply', joins: [0, 1] }],
      point: 1,
      places: [],
      pipes: [],
      supply,
      stroke: 0,
      step: 1,
      noise: 0.5,
      began: 0,
    },
    actions: [
      { at: 100, act: 'gauge', connected: true },
      { at: 1000, act: 'supply', open: 'shut' },
      { at: 2000, act: 'bleed', open: true },
      { at: 2000 + bled * 1000, act: 'bleed', open: false },
    ],
    from: 20,
    seconds: fault === 'warming' ? 900 : 300,
    facts: (pressure) => ({
      filling: 'gas',
      pressure,
      atmosphere: STANDARD_ATMOSPHERE,
      give: volume / STANDARD_ATMOSPHERE,
      giveUncertainty: 0.05,
      perKelvin: pressurePerKelvin(pressure, 293.15),
      drift: { perMinute: 0.05, most: 0.5 },
      stretches: false,
      supply: supply > pressure ? supply : null,
      matters: LITRE_HOUR,
      step: 1,
      perceptible: 2,
      warmth: [],
      thermometer: 0.05,
    }),
  };
}
const LIQUID: readonly (readonly [LiquidFault, number, readonly Cause[]])[] = [
  ['none', 0, ['steady', 'air', 'temperature']],
  ['leak', 0, ['leak', 'temperature+leak']],
  ['stretch', 0.6, ['stretch']],
  ['stretch-leak', 0.2, ['stretch+leak', 'leak', 'temperature+leak']],
  ['cooling', 0, ['temperature', 'air']],
  ['user', 0, ['step']],
];
function liquid([fault, stretch, truth]: (typeof LIQUID)[number], seed: number): Played {
  const volume = 0.01 + (seed % 5) * 0.01;
  const stiffness = volume * (stretch ? 3e-9 : 7e-10);
  const perKelvin = stretch ? -8e3 : 8e4;
  const s: SimulatedLiquid = {
    kind: 'liquid',
    seed,
    truth: liquidTruth(fault, { seed, volume, stiffness, stretch, surface: 0 }),
    volume,
    stiffness,
    perKelvin,
    supply: 0,
    stroke: volume * 5e-5,
    surface: 0,
    step: 1000,
    noise: 400,
    began: 0,
  };
  return {
    name: `water, ${fault}`,
    truth,
    simulation: s,
    actions: [
      { at: 100, act: 'gauge', connected: true },
      { at: 1000, act: 'pump', strokes: Math.ceil((6e5 * stiffness * 1.6) / s.stroke) },
    ],
    from: 60,
    seconds: 2400,
    facts: (pressure) => ({
      filling: 'liquid',
      pressure,
      atmosphere: STANDARD_ATMOSPHERE,
      give: stiffness,
      giveUncertainty: 0.15,
      perKelvin,
      drift: { perMinute: 0.05, most: 0.5 },
      stretches: stretch > 0,
      supply: null,
      matters: 0.1 * LITRE_HOUR,
      step: 1000,
      perceptible: 2000,
      warmth: [],
      thermometer: 0.05,
    }),
  };
}
export interface Called {
  of: number;
  right: number;
  untold: number;
  readonly else: Map<Cause, number>;
}
/** @param seeds how many of each fault */
export function ownTraces(seeds: number): Map<string, Called> {
  const rows = new Map<string, Called>();
  for (let seed = 1; seed <= seeds; seed += 1)
    for (const p of [...GAS.map((g) => gas(g, seed)), ...LIQUID.map((l) => liquid(l, seed))]) {
      const step = 'step' in p.simulation ? p.simulation.step : 1;
      const samples = Array.from({ length: 120 }, (_, i) => {
        const t = (p.from + (i * p.seconds) / 119) * 1000;
        return { t, p: shown(p.simulation, p.actions, t) * step };
      });
      const a = analyse(samples, p.facts(samples[0]!.p));
      const row = rows.get(p.name) ?? { of: 0, right: 0, untold: 0, else: new Map<Cause, number>() };
      rows.set(p.name, row);
      row.of += 1;
      const told = a?.told ?? null;
      if (told === null) row.untold += 1;
      else if (p.truth.includes(told)) row.right += 1;
      else row.else.set(told, (row.else.get(told) ?? 0) + 1);
    }
  return rows;
}
