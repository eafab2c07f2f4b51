/**
 * What a scenario hides, as it is written by hand: figures with their unit, by the kind of installation. Only what differs from a sound
 * one is written; `as` takes a named fault with its usual sizes first.
 */
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { convert, type Unit, UNITS } from '@/core/quantity/unit';
import {
  figure,
  mark,
  maybe,
  maybeAmong,
  maybeList,
  maybeNumber,
  maybeObject,
  object,
  type Of,
  optionalFigure,
  text,
  textMap,
} from '@/core/grammar/schema';
import type { CircuitTruth } from '@/core/simulation/circuit';
import { CIRCUIT_FAULTS } from '@/core/simulation/circuit';
import { DUCT_FAULTS, type DuctTruth } from '@/core/simulation/duct';
import { FAULTS, type GasTruth } from '@/core/simulation/gas-truth';
import { LIQUID_FAULTS, type LiquidTruth, POOL_FAULTS } from '@/core/simulation/liquid-truth';
import type { Simulation } from '@/core/simulation/simulation';

/** A small flow at a pressure: what a leak loses, what a closed valve lets by with so much across it. */
const maybeFlow = () => maybeObject({ rate: figure(), under: figure() });
const span = object({ from: figure(), to: figure() });
const gauge = maybeObject({ zero: optionalFigure(), sticks: optionalFigure(), drift: optionalFigure() });
/** A liquid gauge may hang askew, by so many degrees. */
const gasGauge = maybeObject({
  zero: optionalFigure(),
  sticks: optionalFigure(),
  drift: optionalFigure(),
  tilt: maybeNumber().min(0).max(60),
});

/** Gas: parts are named by the ids they have on the drawing, valves by what a run calls them, own kit `kit`. */
const gas = {
  as: maybeAmong(Object.keys(FAULTS)),
  leaks: maybeList(
    object({
      at: text(60),
      rate: figure(),
      under: figure(),
      law: maybeAmong(['laminar', 'orifice']),
      buried: mark(),
    }),
  ),
  passes: maybeList(object({ valve: text(60), rate: figure(), under: figure() })),
  shut: maybeList(text(60)),
  warms: maybeObject({ by: figure(), within: figure(), from: optionalFigure() }),
  lag: optionalFigure(),
  gauge: gasGauge,
  creeps: maybeObject({ perMinute: figure(), most: figure() }),
  draws: maybeList(object({ from: figure(), to: figure(), rate: figure(), under: figure() })),
  smells: maybeList(text(60)),
  voltage: mark(),
  /** Appliances whose jet is for another gas. */ jets: maybeList(text(60)),
};
const liquid = {
  as: maybeAmong([...new Set([...Object.keys(LIQUID_FAULTS), ...Object.keys(POOL_FAULTS)])]),
  /** `at`: where, by its id on the drawing. */ leak: maybeObject({
    rate: figure(),
    under: figure(),
    at: maybe(),
  }),
  opens: optionalFigure(),
  where: maybeAmong(['under-water', 'above-water', 'under-pump']),
  letBy: maybeFlow(),
  air: optionalFigure(),
  /** A vessel that was left in: its gas, and the pressure it was filled to. */
  vessel: maybeObject({ gas: figure(), filled: figure() }),
  /** Part of the stiffness that follows per decade of time. */ stretch: maybeNumber(),
  warms: maybeObject({ by: figure(), within: figure() }),
  draws: maybeList(span),
  drain: optionalFigure(),
  weeps: maybeFlow(),
  slips: optionalFigure(),
  kit: maybeFlow(),
  /** Valves that stand shut though they look open, by what a run calls them. */ shut: maybeList(text(60)),
  gauge,
  sights: textMap(),
};
const circuit = {
  as: maybeAmong(Object.keys(CIRCUIT_FAULTS)),
  /** Part of the gauge pressure lost in an hour. */ leak: optionalFigure(),
  /** Rise of the vacuum by air in a minute. */ letsIn: optionalFigure(),
  place: maybe(),
  stuck: maybe(),
  moisture: maybeObject({ rises: figure(), within: figure() }),
  sun: optionalFigure(),
  label: maybe(),
  wrongGas: mark(),
  gauge: maybeObject({ zero: figure() }),
  /** Own hose, part of the gauge pressure lost in an hour. */ kit: optionalFigure(),
};
const duct = {
  as: maybeAmong(Object.keys(DUCT_FAULTS)),
  /** Register whose boot leaks, and one that nobody masked, by id. */
  boot: maybe(),
  open: maybe(),
  /** What passes at the reference pressure: boots, seams, the fan's hose. */
  boots: optionalFigure(),
  seams: optionalFigure(),
  hose: optionalFigure(),
  mounted: maybe(),
  /** Dampers that stand shut though they look open, by what a run calls them. */ shut: maybeList(text(60)),
  gauge: maybeObject({ zero: figure() }),
};
export const hiddenSchema = {
  gas: object(gas),
  liquid: object(liquid),
  circuit: object(circuit),
  duct: object(duct),
};
export type HiddenKind = keyof typeof hiddenSchema;
export type Hidden<K extends HiddenKind = HiddenKind> = Of<(typeof hiddenSchema)[K]>;

const si = (words: string, unit: Unit): number => {
  const e = parseWithUnit(words);
  return convert(toNumber(e), e.unit, unit);
};
const seconds = (w: string) => si(w, 's');
/** Of a vacuum, too, differences are what counts. */
const pascal = (w: string) => si(w, UNITS[parseWithUnit(w).unit].dimension === 'absolute' ? 'Pa(abs)' : 'Pa');
const part = (w: string) => si(w, '1');
/** m3/s per Pa. */
const perPascal = (f: { readonly rate: string; readonly under: string }) =>
  si(f.rate, 'm3/s') / pascal(f.under);
const given = <T, R>(value: T | undefined | null, to: (v: T) => R, key: string): Record<string, R> =>
  value === undefined || value === null ? {} : { [key]: to(value) };
const gaugeOf = (g: Of<typeof gauge>, base: { zero: number; sticks: number; drift: number }) => ({
  zero: g?.zero ? pascal(g.zero) : base.zero,
  sticks: g?.sticks ? pascal(g.sticks) : base.sticks,
  drift: g?.drift ? pascal(g.drift) : base.drift,
});

function gasChange(h: Hidden<'gas'>, base: GasTruth): Partial<GasTruth> {
  return {
    ...given(
      h.leaks,
      (ls) =>
        ls.map((l) => ({
          at: l.at,
          rate: si(l.rate, 'm3/s'),
          under: pascal(l.under),
          law: (l.law ?? 'laminar') as 'laminar',
          ...(l.buried ? { buried: true } : {}),
        })),
      'leaks',
    ),
    ...given(h.passes, (ps) => Object.fromEntries(ps.map((p) => [p.valve, perPascal(p)])), 'passes'),
    ...given(h.shut, (s) => s, 'shut'),
    ...given(
      h.warms,
      (w) => ({ kelvin: si(w.by, 'K'), tau: seconds(w.within), from: w.from ? seconds(w.from) : 0 }),
      'warmth',
    ),
    ...given(h.lag, seconds, 'lag'),
    ...given(
      h.gauge,
      (g) => ({ ...gaugeOf(g, base.gauge), ...(g.tilt === undefined ? {} : { tilt: g.tilt }) }),
      'gauge',
    ),
    ...given(h.creeps, (c) => ({ perMinute: pascal(c.perMinute), most: pascal(c.most) }), 'creep'),
    ...given(
      h.draws,
      (ds) => ds.map((d) => ({ from: seconds(d.from), to: seconds(d.to), k: perPascal(d) })),
      'draws',
    ),
    ...given(h.smells, (s) => s, 'smells'),
    ...given(h.voltage, () => true, 'voltage'),
    ...given(h.jets, (j) => j, 'jets'),
  } as Partial<GasTruth>;
}
function liquidChange(h: Hidden<'liquid'>, base: LiquidTruth): Partial<LiquidTruth> {
  return {
    ...given(h.leak, perPascal, 'leak'),
    ...given(h.leak?.at, (at) => at, 'at'),
    ...given(h.opens, pascal, 'opens'),
    ...given(h.where, (w) => w, 'where'),
    ...given(h.letBy, perPascal, 'letBy'),
    ...given(h.air, (a) => si(a, 'm3'), 'air'),
    ...given(h.vessel, (v) => ({ gas: si(v.gas, 'm3'), filled: pascal(v.filled) }), 'vessel'),
    ...given(h.stretch, (s) => s, 'stretch'),
    ...given(h.warms, (w) => si(w.by, 'K'), 'warmth'),
    ...given(h.warms, (w) => seconds(w.within), 'tau'),
    ...given(h.draws, (ds) => ds.map((d) => ({ from: seconds(d.from), to: seconds(d.to) })), 'draws'),
    ...given(h.drain, (d) => si(d, 'm3/s'), 'drain'),
    ...given(h.weeps, perPascal, 'weep'),
    ...given(h.slips, pascal, 'slips'),
    ...given(h.kit, perPascal, 'kit'),
    ...given(h.shut, (s) => s, 'shut'),
    ...given(h.gauge, (g) => gaugeOf(g, { ...base.gauge, drift: 0 }), 'gauge'),
    ...given(h.sights, (s) => s, 'sights'),
  } as Partial<LiquidTruth>;
}
/** The part of a pressure lost in an hour, as the part lost in a second. */
const perSecond = (w: string) => -Math.log(1 - part(w)) / 3600;
function circuitChange(h: Hidden<'circuit'>): Partial<CircuitTruth> {
  return {
    ...given(h.leak, perSecond, 'leak'),
    ...given(h.letsIn, (w) => pascal(w) / 60, 'letsIn'),
    ...given(h.place, (p) => p, 'place'),
    ...given(h.stuck, (s) => s, 'stuck'),
    ...given(h.moisture, (m) => pascal(m.rises), 'moisture'),
    ...given(h.moisture, (m) => seconds(m.within), 'moistureS'),
    ...given(h.sun, (w) => si(w, 'K'), 'sun'),
    ...given(h.label, (l) => l, 'gas'),
    ...given(h.wrongGas, () => true, 'wrongGas'),
    ...given(h.gauge, (g) => ({ zero: pascal(g.zero) }), 'gauge'),
    ...given(h.kit, perSecond, 'kit'),
  } as Partial<CircuitTruth>;
}
/** Exponents by which the model carries a flow at the reference pressure: holes, and seams. */
const HOLE = 0.5;
const SEAMS = 0.6;
function ductChange(h: Hidden<'duct'>, reference: number): Partial<DuctTruth> {
  const at = (n: number) => (w: string) => si(w, 'm3/s') / reference ** n;
  return {
    ...given(h.boot, (b) => b, 'boot'),
    ...given(h.open, (o) => o, 'open'),
    ...given(h.boots, at(HOLE), 'boots'),
    ...given(h.seams, at(SEAMS), 'seams'),
    ...given(h.hose, at(HOLE), 'hose'),
    ...given(h.mounted, (m) => m, 'mounted'),
    ...given(h.shut, (s) => s, 'shut'),
    ...given(h.gauge, (g) => ({ zero: pascal(g.zero) }), 'gauge'),
  } as Partial<DuctTruth>;
}
/**
 * What a hidden state, or a change of one, is in the terms of its simulation.
 * @throws yup.ValidationError where it hides what such an installation does not have, or a figure is none
 */
export function changeOf(hidden: Hidden, s: Simulation): object {
  hiddenSchema[s.kind].validateSync(hidden, { strict: true });
  switch (s.kind) {
    case 'gas':
      return gasChange(hidden as Hidden<'gas'>, s.truth);
    case 'liquid':
      return liquidChange(hidden as Hidden<'liquid'>, s.truth);
    case 'circuit':
      return circuitChange(hidden as Hidden<'circuit'>);
    case 'duct':
      return ductChange(hidden as Hidden<'duct'>, s.reference);
  }
}
/** A simulation with what a scenario hides in it. */
export const withHidden = (s: Simulation, hidden: Hidden): Simulation =>
  ({ ...s, truth: { ...s.truth, ...changeOf(hidden, s) } }) as Simulation;
