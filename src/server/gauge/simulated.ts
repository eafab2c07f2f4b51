import type { Filling } from '@/core/fillings/filling';
import { freeSurface, systemStiffness } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import { fillingOf } from '@/core/plan/filling';
import { known } from '@/core/formula';
import { testPressureOf } from '@/core/plan/limits';
import { type Plan, planVolume } from '@/core/plan/plan';
import { exact, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { simulatesOf } from '@/core/plan/offer';
import type { Fault, SimulatedInstallation } from '@/core/simulation/installation';
import { type DuctFault, SIMULATED_RINGS, type SimulatedDuct } from '@/core/simulation/duct';
import { type FanStage, isPushed, limitOf, referenceOf } from '@/core/kinds/fan/asked';
import type { OwnKit } from '@/core/instrument/kit';
import type { CircuitFault, SimulatedCircuit } from '@/core/simulation/circuit';
import type { LiquidFault, PoolFault, SimulatedLiquid } from '@/core/simulation/liquid-truth';
import { poolLineOf } from '@/core/simulation/pool-line';
import { HIDDEN } from '@/core/simulation/simulation';
import type { SimulatedView } from '@/core/simulation/simulation';
import { poolEnds } from '@/core/trades/pool/ends';
import { inOrganisation } from '@/database/client';
import { gaugeLinks } from '@/database/schema';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import { planOf } from '@/server/runs/log';
import { notHere, TroubleError } from '@/server/trouble';
import type { SimulatedRequest } from '@/wire/requests';
import { randomBytes } from 'node:crypto';
import 'server-only';

/** The id of a stand-in of a practice run, derived from the run's: starting twice makes one. */
function simulatedId(run: string, what: 'gauge' | 'fan'): string {
  const hex = digest(`simulated ${what} ${run}`);
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
/** The stand-in gauge of a practice run. */
export function simulatedGauge(run: string, unit: Filling['simulated']['unit']): Gauge {
  return {
    id: simulatedId(run, 'gauge'),
    name: 'Simulated gauge',
    serial: 'SIM',
    kind: 'digital',
    ...(unit === 'Pa(abs)'
      ? { least: exact(0, 0, unit), greatest: exact(2500, 0, unit), resolution: exact(1, 0, unit) }
      : unit === 'Pa'
        ? { least: exact(-10000, 1, unit), greatest: exact(10000, 1, unit), resolution: exact(1, 1, unit) }
        : unit === 'bar'
          ? { least: exact(0, 2, 'bar'), greatest: exact(6000, 2, 'bar'), resolution: exact(1, 2, 'bar') }
          : {
              least: exact(-10000, 2, 'mbar'),
              greatest: exact(20000, 2, 'mbar'),
              resolution: exact(1, 2, 'mbar'),
            }),
    calibrated: '2000-01-01',
    calibrationDue: '2999-12-31',
    simulated: true,
  };
}

async function standIn<T>(path: string, body?: unknown): Promise<T> {
  const base = process.env.VAST_GAUGE_URL;
  let response: Response | undefined;
  try {
    if (base)
      response = await fetch(`${base}${path}`, {
        method: body === undefined ? 'GET' : 'POST',
        ...(body === undefined
          ? {}
          : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
        signal: AbortSignal.timeout(3000),
      });
  } catch {
    /* said below */
  }
  if (!response?.ok)
    throw new TroubleError(
      503,
      'stand-in-away',
      'The simulated gauge does not answer. It is started with ./start; wait a moment and try again.',
    );
  return (await response.json()) as T;
}

/** The fault wished for, or one that nobody knows; none where its pool hides joins alone. @throws TroubleError 422 */
function faultOf<F extends string>(plan: Plan, wished: string, seed: number): F {
  const known = Object.keys(HIDDEN[simulatesOf(plan.procedure, plan.system)]) as F[];
  if (!known.length) return 'none' as F;
  if (wished === 'surprise') return known[seed % known.length]!;
  if (!known.includes(wished as F)) throw new TroubleError(422, 'fault', 'This hidden fault is not known.');
  return wished as F;
}
const gasOf = (plan: Plan, seed: number, wished: string): SimulatedInstallation => ({
  seed,
  fault: faultOf<Fault>(plan, wished, seed),
  volume: planVolume(plan).value,
  supply: convert(toNumber(plan.system.supplyPressure), plan.system.supplyPressure.unit, 'Pa'),
  appliances: plan.system.appliances.map((a) => a.id),
  step: 1,
  noise: 0.25,
  began: now(),
});
/** Share of the stiffness that follows per decade of time in plastic pipe. House figure for the model. */
const PLASTIC_STRETCH = 0.08;
/** @throws TroubleError 422 where nothing of that name can be hidden in what this run simulates */
export const hiddenFault = (plan: Plan, wished: string): void => void faultOf(plan, wished, 0);
/** What one stroke of the simulated pump delivers, m3. */
const STROKE = 45e-6;
/** The same for a line of a pool: little water makes much pressure there. */
const POOL_STROKE = 5e-6;
function liquidOf(plan: Plan, seed: number, wished: string): SimulatedLiquid {
  const { system } = plan;
  const mains = convert(toNumber(system.supplyPressure), system.supplyPressure.unit, 'Pa');
  const full = systemStiffness(system, Math.max(mains, 100_000));
  const volume = planVolume(plan).value;
  const surface = freeSurface(system);
  const pool = simulatesOf(plan.procedure, system) === 'pool-line' ? poolLineOf(system, seed) : undefined;
  return {
    kind: 'liquid',
    seed,
    ...(pool ? { pool } : {}),
    fault: faultOf<LiquidFault | PoolFault>(plan, wished, seed),
    volume,
    // walls that are not known are taken as thin copper
    stiffness: full?.c ?? volume * 6e-10,
    perKelvin: full?.perKelvin ?? 0,
    stretch: system.pipes.some((p) => /PE|PVC|PB|PP|plastic/i.test(p.material)) ? PLASTIC_STRETCH : 0,
    supply: plan.procedure.boundary === 'separated' ? 0 : mains,
    stroke: pool ? POOL_STROKE : STROKE,
    surface: fillingOf(plan).mark ? surface || 0.01 : 0,
    step: 1000,
    noise: 250,
    began: now(),
  };
}

/** A circuit with what is drawn of it; its steps are a hundredth of a bar, or a pascal of a vacuum. */
function circuitSimulated(plan: Plan, seed: number, wished: string): SimulatedCircuit {
  const { system } = plan;
  const vacuum = fillingOf(plan).stores === null;
  const highest = known(() => testPressureOf(plan).value);
  const test =
    'value' in highest ? convert(toNumber(highest.value), highest.value.unit, vacuum ? 'Pa(abs)' : 'Pa') : 0;
  const parts = system.network?.parts ?? [];
  return {
    kind: 'circuit',
    seed,
    fault: faultOf<CircuitFault>(plan, wished, seed),
    vacuum,
    set: test * 1.15,
    left: 0,
    solenoids: (system.valves ?? []).filter((v) => v.kind === 'solenoid').map((v) => v.id),
    places: parts
      .filter((p) => ['evaporator', 'tee', 'joint', 'expansion'].includes(p.kind))
      .map((p) => p.name || p.id),
    step: vacuum ? 1 : 1000,
    noise: vacuum ? 0.3 : 250,
    began: now(),
  };
}

/** A duct system with its registers, and what it may lose by the edition that judges. */
function ductOf(plan: Plan, seed: number, wished: string): SimulatedDuct {
  const stage = Object.values(plan.procedure.stages).find(
    (s): s is FanStage => s.kind === 'fan' && s.of === 'system',
  );
  return {
    kind: 'duct',
    seed,
    fault: faultOf<DuctFault>(plan, wished, seed),
    limit: (stage && limitOf(plan, stage)) ?? USUAL_LIMIT,
    reference: (stage && referenceOf(plan, stage)) ?? 25,
    registers: (plan.system.registers ?? []).map(({ id, name }) => ({ id, name })),
    pushed: !stage || isPushed(plan, stage),
    step: 0.1,
    noise: 0.05,
    began: now(),
  };
}
/** Where no edition gives a limit, and where own kit is tested alone, m3/s. House figure for the model. */
const USUAL_LIMIT = 0.0227;
/** The fan of a practice run: what a person brings to it, with no test of its hose yet. */
export const simulatedFan = (run: string): OwnKit => ({
  id: simulatedId(run, 'fan'),
  name: 'Simulated fan',
  serial: 'SIM',
  kind: 'fan',
  accuracy: exact(3, 0, '%'),
  ranges: SIMULATED_RINGS,
});

/** Sets up the simulated installation of a practice run in the stand-in process and pairs its gauge. */
export async function beginSimulation(scope: { org: string }, plan: Plan, wished: string): Promise<void> {
  const seed = randomBytes(4).readUInt32BE();
  const { kind, unit } = fillingOf(plan).simulated;
  const installation =
    kind === 'duct'
      ? ductOf(plan, seed, wished)
      : simulatesOf(plan.procedure, plan.system) === 'circuit'
        ? circuitSimulated(plan, seed, wished)
        : kind === 'liquid'
          ? liquidOf(plan, seed, wished)
          : gasOf(plan, seed, wished);
  const gauge = simulatedGauge(plan.run, unit);
  const code = randomBytes(9).toString('base64url');
  await inOrganisation(scope, (tx) =>
    tx.insert(gaugeLinks).values({
      org: scope.org,
      run: plan.run,
      gauge: gauge.id,
      codeHash: digest(code),
      simulated: true,
      made: new Date(now()),
    }),
  );
  await standIn('/installations', {
    id: plan.run,
    code,
    office: process.env.VAST_URL,
    installation,
    scale: gauge.resolution.scale,
    unit,
  });
}

async function practicePlan(scope: { org: string }, run: string): Promise<Plan> {
  const plan = await inOrganisation(scope, (tx) => planOf(tx, run));
  if (!plan.practice) throw notHere('simulated installation');
  return plan;
}
export async function simulatedState(scope: { org: string }, run: string): Promise<SimulatedView> {
  await practicePlan(scope, run);
  return standIn(`/installations/${run}`);
}
/** Does something at the simulated installation. */
export async function workSimulated(
  scope: { org: string },
  run: string,
  request: SimulatedRequest,
): Promise<SimulatedView> {
  const plan = await practicePlan(scope, run);
  if (request.act === 'appliance' && !plan.system.appliances.some((a) => a.id === request.id))
    throw new TroubleError(422, 'appliance', 'There is no such appliance.');
  if (
    ((request.act === 'look' && request.value !== 'ground') || request.act === 'reseat') &&
    !poolEnds(plan.system).some((e) => e.id === request.value)
  )
    throw new TroubleError(422, 'end', 'This line has no such end.');
  if (request.act === 'supply' && !['shut', 'crack', 'open'].includes(request.value ?? ''))
    throw new TroubleError(422, 'supply', 'The supply valve is shut, cracked open, or open.');
  const open = request.value === 'open';
  const figure = Number(request.value);
  if (request.act === 'solenoid' && !plan.system.valves?.some((v) => v.id === request.id))
    throw new TroubleError(422, 'valve', 'There is no such valve.');
  if (request.act === 'listen' && !(figure >= 0 && figure <= 10000))
    throw new TroubleError(422, 'figure', 'Say how far along the run, in m.');
  if ((request.act === 'pump' || request.act === 'fill') && !(figure >= 0 && figure <= 1000))
    throw new TroubleError(422, 'figure', 'Say how many strokes, or how many millimetres.');
  if (request.act === 'speed' && !(figure >= 0 && figure <= 100))
    throw new TroubleError(422, 'figure', 'Say the speed of the fan, from 0 to 100 %.');
  if (
    (request.act === 'mount' || request.act === 'set') &&
    !SIMULATED_RINGS.some((r) => r.name === request.value)
  )
    throw new TroubleError(422, 'ring', 'There is no such ring.');
  if (
    ['look-at', 'mask', 'smoke', 'seal'].includes(request.act) &&
    !plan.system.registers?.some((r) => r.id === request.id)
  )
    throw new TroubleError(422, 'register', 'There is no such register.');
  const action = {
    speed: { act: 'speed', percent: Math.round(figure) },
    mount: { act: 'mount', ring: request.value },
    set: { act: 'set', ring: request.value },
    hose: { act: 'hose', closed: request.value === 'closed' },
    'look-fan': { act: 'look-fan' },
    'look-at': { act: 'look-at', id: request.id },
    mask: { act: 'mask', id: request.id },
    smoke: { act: 'smoke', id: request.id },
    seal: { act: 'seal', id: request.id },
    'new-hose': { act: 'new-hose' },
    supply: { act: 'supply', open: request.value },
    bleed: { act: 'bleed', open },
    appliance: { act: 'appliance', id: request.id, open },
    gauge: { act: 'gauge', connected: request.value === 'connected' },
    zero: { act: 'zero' },
    fluid: { act: 'fluid', place: request.value ?? 'pipework' },
    pump: { act: 'pump', strokes: Math.round(figure) },
    'air-out': { act: 'air-out' },
    tap: { act: 'tap', open },
    fill: { act: 'fill', millimetres: Math.round(figure) },
    look: { act: 'look', place: request.value },
    reseat: { act: 'reseat', end: request.value },
    dye: { act: 'dye' },
    listen: { act: 'listen', along: figure },
    label: { act: 'label' },
    cylinder: { act: 'cylinder', open },
    vent: { act: 'vent', open },
    'vacuum-pump': { act: 'vacuum-pump', on: request.value === 'on' },
    solenoid: { act: 'solenoid', id: request.id },
    thermometer: { act: 'thermometer', place: request.value === 'pipe' ? 'pipe' : 'room' },
  }[request.act as 'supply'];
  return standIn(`/installations/${run}/actions`, action);
}
