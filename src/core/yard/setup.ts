/** The simulated installation and the instruments of a practice run, from its plan: the section as drawn, what it hides, the gauge that shows it. */
import { freeSurface, systemStiffness } from '@/core/installation/section';
import { known } from '@/core/formula';
import type { Gauge } from '@/core/instrument/gauge';
import type { OwnKit } from '@/core/instrument/kit';
import { type FanStage, isPushed, limitOf, referenceOf } from '@/core/kinds/fan/asked';
import { type PartKind, ruleOfPart } from '@/core/network/catalogue';
import { listId } from '@/core/network/installation';
import { type Network, partName, positionKey } from '@/core/network/network';
import { networkOf } from '@/core/network/enter';
import { fillingOf } from '@/core/plan/filling';
import { testPressureOf } from '@/core/plan/limits';
import { simulatesOf } from '@/core/plan/offer';
import { type Plan, planVolume } from '@/core/plan/plan';
import { exact, type Exact, toNumber } from '@/core/quantity/exact';
import { convert, type Unit, UNITS } from '@/core/quantity/unit';
import { tradeOf } from '@/core/trades';
import { cellsOf, partedOf } from '@/core/simulation/cells';
import { type CircuitFault, circuitTruth, type SimulatedCircuit } from '@/core/simulation/circuit';
import { type DuctFault, ductTruth, SIMULATED_RINGS, type SimulatedDuct } from '@/core/simulation/duct';
import type { SimulatedGas } from '@/core/simulation/gas';
import { type Fault, gasTruth } from '@/core/simulation/gas-truth';
import {
  type LiquidFault,
  liquidTruth,
  type PoolFault,
  type SimulatedLiquid,
} from '@/core/simulation/liquid-truth';
import { cellOf, type Parted } from '@/core/simulation/parted';
import { poolLineOf } from '@/core/simulation/pool-line';
import { HIDDEN, type Simulation } from '@/core/simulation/simulation';

/** Steps of a stand-in's display by the unit it shows in: tenths and hundredths, as such gauges have them. */
const STEPS: Partial<
  Record<Unit, { readonly least: number; readonly greatest: number; readonly scale: number }>
> = {
  mbar: { least: -100, greatest: 200, scale: 2 },
  inWC: { least: -40, greatest: 80, scale: 2 },
  psi: { least: -2, greatest: 100, scale: 2 },
  bar: { least: 0, greatest: 60, scale: 2 },
  kPa: { least: -10, greatest: 100, scale: 2 },
  Pa: { least: -1000, greatest: 1000, scale: 1 },
  'Pa(abs)': { least: 0, greatest: 2500, scale: 0 },
};
/** The pressures at which a plan tests, each once per part, lowest first. */
function askedOf(plan: Plan): Exact[] {
  const parts = plan.procedure.parts?.map((p) => p.key) ?? [null];
  return parts
    .flatMap((part) => {
      const found = known(() => testPressureOf(plan, part).value);
      return 'value' in found ? [found.value] : [];
    })
    .sort((a, b) => pascal(a) - pascal(b));
}
/** The highest of them, Pa; the working pressure where none is known. */
const highestOf = (plan: Plan): number => {
  const highest = askedOf(plan).at(-1);
  return highest ? pascal(highest) : pascal(plan.system.workingPressure);
};
/** The unit in which the stand-in of a plan shows: its filling's, a gas in the unit in which it is asked. */
export function simulatedUnit(plan: Plan): Unit {
  const { kind, unit } = fillingOf(plan).simulated;
  if (kind !== 'gas') return unit;
  const lowest = askedOf(plan)[0];
  return lowest && STEPS[lowest.unit] ? lowest.unit : unit;
}
const pascal = (e: Exact): number =>
  convert(toNumber(e), e.unit, UNITS[e.unit].dimension === 'absolute' ? 'Pa(abs)' : 'Pa');

/** How far a stand-in's range goes beyond the highest pressure it is read at. House figure. */
const ROOM = 1.5;
/** The stand-in gauge of a practice run. @param most highest figure it must show, in its unit */
export function simulatedGauge(id: string, unit: Unit, most = 0): Gauge {
  const { least, scale, ...usual } = STEPS[unit]!;
  const greatest = Math.max(usual.greatest, Math.ceil((ROOM * most) / 100) * 100);
  return {
    id,
    name: 'Simulated gauge',
    serial: 'SIM',
    kind: 'digital',
    least: exact(least * 10 ** scale, scale, unit),
    greatest: exact(greatest * 10 ** scale, scale, unit),
    resolution: exact(1, scale, unit),
    calibrated: '2000-01-01',
    calibrationDue: '2999-12-31',
    simulated: true,
  };
}
/** The fan of a practice run: what a person brings to it, with no test of its hose yet. */
export const simulatedFan = (id: string): OwnKit => ({
  id,
  name: 'Simulated fan',
  serial: 'SIM',
  kind: 'fan',
  accuracy: exact(3, 0, '%'),
  ranges: SIMULATED_RINGS,
});
/** What pipework for water is loaded to with gas at most, Pa. */
const LOADED = 300_000;
/** The highest figure it must show; nothing where its unit is not one of pressures above the atmosphere. */
function mostOf(plan: Plan): number {
  const unit = simulatedUnit(plan);
  if (unit === 'Pa(abs)' || unit === 'Pa') return 0;
  // pipework raised dry is loaded far above its tightness test
  const most = tradeOf(plan.system).fuel ? highestOf(plan) : Math.max(highestOf(plan), LOADED);
  return convert(most, 'Pa', unit);
}
/** A practice plan with the instruments that belong to it, whatever it was asked with. */
export const withStandIns = (plan: Plan, ids: { readonly gauge: string; readonly fan: string }): Plan => ({
  ...plan,
  gauges: [simulatedGauge(ids.gauge, simulatedUnit(plan), mostOf(plan))],
  ownKit: fillingOf(plan).simulated.kind === 'duct' ? [simulatedFan(ids.fan)] : [],
});

/** What is not of the plan: its chance, its beginning, and the fault wished for, or `surprise`. */
export interface Chance {
  readonly seed: number;
  /** ms */ readonly began: number;
  readonly fault: string;
}
/** The fault wished for, or one that nobody knows; none where its pool hides joins alone; null where it is not known there. */
export function faultOf(plan: Plan, wished: string, seed: number): string | null {
  const known = Object.keys(HIDDEN[simulatesOf(plan.procedure, plan.system)]);
  if (!known.length) return 'none';
  if (wished === 'surprise') return known[seed % known.length]!;
  return known.includes(wished) ? wished : null;
}
/** The simulated installation of a practice run. @throws RangeError for a fault that is not known there */
export function simulationOf(plan: Plan, chance: Chance): Simulation {
  const fault = faultOf(plan, chance.fault, chance.seed);
  if (fault === null) throw new RangeError(`Nothing called ${chance.fault} can be hidden here.`);
  const { kind } = fillingOf(plan).simulated;
  if (kind === 'duct') return ductOf(plan, chance, fault as DuctFault);
  if (simulatesOf(plan.procedure, plan.system) === 'circuit')
    return circuitOf(plan, chance, fault as CircuitFault);
  if (kind === 'liquid') return liquidOf(plan, chance, fault as LiquidFault | PoolFault);
  return gasOf(plan, chance, fault as Fault);
}
/** Strokes of a pump until a section stands at its test pressure. House figure for the model. */
const STROKES = 12;
/** m3/s display noise of a gas gauge, in its steps. */
const GAS_NOISE = 0.25;
/** Whether the section stands on a supply of its own while it is tested. */
export const fedLive = (plan: Plan): boolean =>
  tradeOf(plan.system).fuel && plan.procedure.boundary !== 'separated';
function gasOf(plan: Plan, { seed, began }: Chance, fault: Fault): SimulatedGas {
  const { system } = plan;
  const supply = fedLive(plan) ? pascal(system.supplyPressure) : 0;
  const volume = planVolume(plan).value;
  const cells = cellsOf(system, volume);
  const raised = highestOf(plan);
  const gauge = plan.gauges[0];
  const step = gauge ? pascal(gauge.resolution) : 1;
  const inside = new Set(cells.cells.flatMap((c) => (c.fed ? [] : c.holds)));
  return {
    kind: 'gas',
    ...cells,
    seed,
    truth: gasTruth(fault, seed, {
      volume,
      supply,
      appliances: system.appliances.map((a) => a.id).filter((id) => inside.has(id)),
      pipes: networkOf(system).links.flatMap((l) => (l.pipe && inside.has(l.id) ? [l.id] : [])),
      valves: cells.valves,
    }),
    supply,
    stroke: supply > 0 ? 0 : (volume * raised) / 101_325 / STROKES,
    step,
    noise: GAS_NOISE * step,
    began,
  };
}
/** Pipe whose wall stretches on. */
const PLASTIC = /^(PE|PVC|PB|PP|plastic)/;
/** Share of the stiffness that follows per decade of time in plastic pipe. House figure for the model. */
const PLASTIC_STRETCH = 0.08;
/** What one stroke of a pump delivers, ml: that which raises a full section without air in about so many strokes is brought. House figures for the model. */
const PUMPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 45, 100, 200, 500];
const RAISED_IN = 40;
/** m3 of a stroke that fits a section. @param taken m3 that raising it takes */
const strokeFor = (taken: number, strokes = RAISED_IN): number =>
  (PUMPS.findLast((ml) => ml * 1e-6 * strokes <= taken) ?? PUMPS[0]!) * 1e-6;
/** A line of a pool is raised by the house's water: in so many small openings of its tap. */
const POOL_RAISED_IN = 10;
/** Stiffness of a litre whose walls nobody knows, as of thin copper, m3/Pa per m3. House figure for the model. */
const THIN_COPPER = 6e-10;
/** The same of a pool's line: rubber plugs, hose and what air stays make it some twenty times softer. House figure for the model. */
const POOL_LINE = 1e-8;
function liquidOf(plan: Plan, { seed, began }: Chance, fault: LiquidFault | PoolFault): SimulatedLiquid {
  const { system } = plan;
  const mains = pascal(system.supplyPressure);
  const full = systemStiffness(system, Math.max(mains, 100_000));
  const volume = planVolume(plan).value;
  const pool = simulatesOf(plan.procedure, system) === 'pool-line' ? poolLineOf(system, seed) : undefined;
  const walls = full?.c ?? volume * THIN_COPPER;
  const stiffness = pool ? Math.max(walls, volume * POOL_LINE) : walls;
  const stretch = system.pipes.some((p) => PLASTIC.test(p.material)) ? PLASTIC_STRETCH : 0;
  const surface = fillingOf(plan).mark ? freeSurface(system) || 0.01 : 0;
  const parted = pool || surface > 0 ? undefined : partedOf(system, volume);
  const truth = liquidTruth(fault, { seed, volume, stiffness, stretch, surface, parted });
  return {
    kind: 'liquid',
    seed,
    ...(pool ? { pool } : {}),
    ...(parted ? { parted } : {}),
    places: Object.fromEntries(networkOf(system).parts.map((p) => [p.id, partName(p)])),
    truth,
    volume,
    stiffness,
    perKelvin: ((full?.perKelvin ?? 0) * walls) / stiffness,
    supply: plan.procedure.boundary === 'separated' ? 0 : mains,
    stroke: strokeFor(stiffness * highestOf(plan), pool ? POOL_RAISED_IN : RAISED_IN),
    surface,
    step: 1000,
    noise: 250,
    began,
  };
}
/** Valves inside that are drawn shut, by their key. */
const shutIn = (network: Network, parted: Parted): string[] =>
  network.parts
    .filter((p) => ruleOfPart(p.kind).closes && p.position === 'closed')
    .map((p) => positionKey(network, p))
    .filter((key) => parted.valves.some((v) => v.key === key));
/** What leak fluid is put on in a circuit. */
const LOOKED_AT: readonly PartKind[] = ['evaporator', 'tee', 'joint', 'expansion'];
/** A circuit with what is drawn of it; its steps are a hundredth of a bar, or a pascal of a vacuum. */
function circuitOf(plan: Plan, { seed, began }: Chance, fault: CircuitFault): SimulatedCircuit {
  const { system } = plan;
  const vacuum = fillingOf(plan).stores === null;
  const highest = known(() => testPressureOf(plan).value);
  const test =
    'value' in highest ? convert(toNumber(highest.value), highest.value.unit, vacuum ? 'Pa(abs)' : 'Pa') : 0;
  const solenoids = (system.valves ?? []).filter((v) => v.kind === 'solenoid').map((v) => v.id);
  const network = networkOf(system);
  const looked = network.parts.filter((p) => LOOKED_AT.includes(p.kind));
  const parted = partedOf(system, undefined, true);
  const drawn = parted && {
    parted,
    lies: Object.fromEntries(
      looked.map((p) => [
        p.name || p.id,
        cellOf(parted, ruleOfPart(p.kind).closes ? positionKey(network, p) : p.id) ?? parted.point,
      ]),
    ),
    shut: shutIn(network, parted),
  };
  const places = looked.map((p) => p.name || p.id);
  return {
    kind: 'circuit',
    seed,
    truth: circuitTruth(fault, { seed, solenoids, places, ...drawn }),
    vacuum,
    set: test * 1.15,
    left: 0,
    solenoids,
    places,
    ...drawn,
    step: vacuum ? 1 : 1000,
    noise: vacuum ? 0.3 : 250,
    began,
  };
}
/** Where no edition gives a limit, and where own kit is tested alone, m3/s. House figure for the model. */
const USUAL_LIMIT = 0.0227;
/** A duct system with its registers, and what it may lose by the edition that judges. */
function ductOf(plan: Plan, { seed, began }: Chance, fault: DuctFault): SimulatedDuct {
  const stage = Object.values(plan.procedure.stages).find(
    (s): s is FanStage => s.kind === 'fan' && s.of === 'system',
  );
  const network = networkOf(plan.system);
  const parted = partedOf(plan.system);
  const registers = network.parts.filter((p) => p.kind === 'register');
  const drawn = parted && {
    parted,
    lies: Object.fromEntries(registers.map((p) => [listId(p), cellOf(parted, p.id) ?? parted.point])),
    shut: shutIn(network, parted),
  };
  const sizes = {
    seed,
    ...drawn,
    limit: (stage && limitOf(plan, stage)) ?? USUAL_LIMIT,
    reference: (stage && referenceOf(plan, stage)) ?? 25,
    registers: (plan.system.registers ?? []).map(({ id, name }) => ({ id, name })),
  };
  return {
    kind: 'duct',
    ...sizes,
    truth: ductTruth(fault, sizes),
    pushed: !stage || isPushed(plan, stage),
    step: 0.1,
    noise: 0.05,
    began,
  };
}
