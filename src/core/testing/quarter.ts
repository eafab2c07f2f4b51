import imperialJson from '@packs/gas-imperial.json';
import leakRateJson from '@packs/gas-leak-rate.json';
import waterHouseJson from '@packs/water-house.json';
import waterMainsJson from '@packs/water-mains.json';
import waterPipeworkJson from '@packs/water-pipework.json';
import propaneJson from '@packs/propane.json';
import type { Gauge } from '@/core/instrument/gauge';
import type { System } from '@/core/installation/section';
import { pipeFigures } from '@/core/installation/pipes';
import type { Pack, Procedure } from '@/core/pack/schema';
import { makePlan, type Plan } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import { playScript, type ScriptLine } from '@/core/run/script';
import { verdictOf } from '@/core/verdict/verdict';
import { asShipped } from './as-shipped';
import { EARLIER, circuitPack, coldStoreFor, nitrogenGauge, vacuumGauge } from './coldstore';
import { ductPack, fanKit, loft, paGauge } from './loft';
import { lidoFor, poolGauge, poolPack } from './lido';
import { bakery, gauge, pack as metric, scribe, uuid } from './bakery';

/** Fixtures beside the bakery: kiln annexe (psi), turn-on (inWC, ft3), trailer and tank (propane), and their gauges. */
export const packs: Record<string, Pack> = {
  metric,
  imperial: asShipped(imperialJson),
  leakRate: asShipped(leakRateJson),
  propane: asShipped(propaneJson),
  waterHouse: asShipped(waterHouseJson),
  waterPipework: asShipped(waterPipeworkJson),
  waterMains: asShipped(waterMainsJson),
  pool: poolPack,
  refrigerant: circuitPack,
  duct: ductPack,
};
export const packWith = (id: string): Pack =>
  Object.values(packs).find((p) => [...p.procedures, ...(p.sequences ?? [])].some((x) => x.id === id))!;

/** Systems of the quarter that a water pack is tried on. */
const waterSystem = (pack: string, medium: string | undefined): System | null =>
  medium === 'drain'
    ? gateDrain()
    : ((
        { 'water-house': gatehouse, 'water-mains': riverLane, 'water-pipework': dyeHouse } as Record<
          string,
          () => System
        >
      )[pack]?.() ?? null);

const other = (n: number, over: Partial<Gauge>): Gauge => gauge({ id: uuid(n, 9), serial: `S${n}`, ...over });
export const gauges = {
  psiPool: poolGauge,
  nitrogen: nitrogenGauge,
  vacuum: vacuumGauge,
  pascal: paGauge,
  /** 0 to 15 psi dial, half-psi divisions would be too coarse: 0.1 psi. */
  psiDial: other(11, {
    name: 'D-15',
    kind: 'dial',
    least: q('0 psi'),
    greatest: q('15 psi'),
    resolution: q('0.1 psi'),
  }),
  psiWide: other(12, {
    name: 'D-60',
    kind: 'dial',
    least: q('0 psi'),
    greatest: q('60 psi'),
    resolution: q('1 psi'),
  }),
  psiHigh: other(16, { name: 'P-300', least: q('0 psi'), greatest: q('300 psi'), resolution: q('0.1 psi') }),
  inwc: other(13, { name: 'I-1', least: q('-10 inWC'), greatest: q('40 inWC'), resolution: q('0.01 inWC') }),
  inwcDial: other(14, {
    name: 'I-D',
    kind: 'dial',
    least: q('0 inWC'),
    greatest: q('35 inWC'),
    resolution: q('0.5 inWC'),
  }),
  bar: other(15, { name: 'B-2', least: q('0 bar'), greatest: q('2.5 bar'), resolution: q('0.001 bar') }),
  wide: other(18, { name: 'W-16', least: q('0 bar'), greatest: q('16 bar'), resolution: q('0.01 bar') }),
  mbar: other(17, { name: 'M-1', least: q('0 mbar'), greatest: q('500 mbar'), resolution: q('0.01 mbar') }),
};
const appliance = (id: string, name: string, maxInlet?: string) => ({
  id,
  name,
  place: 'annexe',
  kind: 'appliance',
  valve: 'stop',
  hasPilot: false,
  hasLid: false,
  volume: q('0.2 l'),
  ...(maxInlet ? { maxInlet: q(maxInlet) } : {}),
});
export const kiln = (over: Partial<System> = {}): System =>
  bakery({
    name: 'Kiln gas',
    workingPressure: q('7 inWC'),
    supplyPressure: q('7 inWC'),
    setPressure: q('7 inWC'),
    ventSetting: q('14 inWC'),
    heatingValue: q('38.5 MJ/m3'),
    meter: {
      kind: 'other',
      name: 'class 250 meter',
      volume: q('0.3 ft3'),
      testDial: q('0.5 ft3'),
      valve: 'meter stop',
    },
    valves: [{ id: 'drop-1', name: 'drop at the kiln', place: 'annexe', kind: 'drop' }],
    pipes: [
      {
        id: 'p',
        name: 'Main',
        material: 'steel',
        size: q('1 in'),
        bore: q('1.049 in'),
        length: q('60 ft'),
      },
    ],
    appliances: [appliance('kiln', 'Kiln', '14 inWC'), appliance('heater', 'Unit heater', '10.5 inWC')],
    ...over,
  });
export const trailer = (over: Partial<System> = {}): System =>
  bakery({
    name: 'Trailer propane',
    medium: 'propane',
    workingPressure: q('11 inWC'),
    supplyPressure: q('11 inWC'),
    meter: { kind: 'none', name: 'none', volume: q('0 l') },
    supplyValve: 'cylinder valve',
    pipes: [
      { id: 'p', name: 'Line', material: 'copper', size: q('0.5 in'), bore: q('0.43 in'), length: q('6 m') },
    ],
    appliances: [appliance('urn', 'Water boiler'), appliance('ring', 'Ring')],
    regulators: [{ id: 'r1', name: 'First stage', place: 'tank' }],
    tank: { id: 't1', name: 'Tank', place: 'yard', size: '120 gal' },
    ...over,
  });

const waterPipe = (
  name: string,
  table: string,
  nominal: string,
  length: string,
): System['pipes'][number] => ({
  id: name,
  name,
  material: table,
  ...(({ nominal: size, bore }) => ({ size, bore }))(pipeFigures(table, nominal)),
  length: q(length),
  table,
  nominal,
});
/** Copper and PE-X of the dye house: 4 bar working, no appliances. */
export const dyeHouse = (over: Partial<System> = {}): System =>
  bakery({
    name: 'Dye house water',
    medium: 'water',
    workingPressure: q('4 bar'),
    supplyPressure: q('4 bar'),
    supplyValve: 'main stop valve',
    meter: { kind: 'none', name: 'none', volume: q('0 l') },
    pipes: [waterPipe('Riser', 'copper-standard', '22 × 1.0', '30 m')],
    appliances: [],
    ...over,
  });
/** The gatehouse: supply at 60 psi behind the meter, and a drain under its slab. */
export const gatehouse = (over: Partial<System> = {}): System =>
  dyeHouse({ name: 'Gatehouse supply', workingPressure: q('60 psi'), supplyPressure: q('60 psi'), ...over });
export const gateDrain = (over: Partial<System> = {}): System =>
  dyeHouse({
    name: 'Gatehouse drain',
    medium: 'drain',
    workingPressure: q('0 bar'),
    supplyPressure: q('0 bar'),
    surfaces: [
      { id: 's1', name: 'Opening', bore: q('100 mm'), count: 1 },
      { id: 's2', name: 'Closet risers', bore: q('100 mm'), count: 2 },
    ],
    heights: {
      datum: 'gate sill',
      slab: q('0 m'),
      rim: q('0.4 m'),
      fixture: q('0.5 m'),
      lowest: q('-1.2 m'),
    },
    ...over,
  });
/** River lane: 300 m of ductile iron, 6 in. */
export const riverLane = (over: Partial<System> = {}): System =>
  dyeHouse({
    name: 'River lane main',
    workingPressure: q('100 psi'),
    supplyPressure: q('100 psi'),
    pipes: [
      {
        id: 'm',
        name: 'Main',
        material: 'ductile iron',
        size: q('6 in'),
        bore: q('6.28 in'),
        length: q('1000 ft'),
      },
    ],
    ...over,
  });

export function planOf(
  procedureId: string,
  over: {
    system?: System;
    case?: string;
    choices?: Record<string, string>;
    gauges?: Gauge[];
    pack?: Pack;
    after?: Plan['after'];
    practice?: boolean;
  } = {},
): Plan {
  const pack = over.pack ?? packWith(procedureId);
  const found = [...pack.procedures, ...(pack.sequences ?? [])].find((p) => p.id === procedureId)!;
  return makePlan({
    run: uuid(1, 3),
    practice: over.practice ?? false,
    organisation: { id: uuid(1, 1), name: 'Hollin & Daughters' },
    site: { id: uuid(1, 4), name: 'Quarter', address: 'Millrace Quarter', customer: 'A. Customer' },
    system:
      over.system ??
      (pack.id === 'pool' ? lidoFor(found as Procedure) : null) ??
      (pack.id === 'refrigerant' ? coldStoreFor(found as Procedure) : null) ??
      (pack.id === 'duct' ? loft() : null) ??
      waterSystem(pack.id, 'media' in found ? found.media?.[0] : undefined) ??
      (pack.id === 'propane' ? trailer() : pack.id === 'gas-imperial' ? kiln() : bakery()),
    pack,
    packHash: 'test',
    procedureId,
    case: over.case ?? found.cases[0]!.key,
    choices: over.choices ?? {},
    gauges: over.gauges ?? Object.values(gauges),
    ...(pack.id === 'duct' ? { ownKit: [fanKit({ flow: '6 CFM' })] } : {}),
    ...(over.after ? { after: over.after } : pack.id === 'refrigerant' ? { after: EARLIER } : {}),
    made: { at: '2026-11-20T08:00:00.000Z', zone: 'Europe/London', by: 'T' },
  });
}
/** Lines without times: each stands so many seconds after the one before, holds as long as they are given. */
export type Step = readonly [string, ...string[]] | readonly [number, string, ...string[]];
export const timed = (steps: readonly Step[], from = 10): ScriptLine[] => {
  let at = from;
  return steps.map((step) => {
    const [first, ...rest] = step;
    if (typeof first === 'number') {
      at += first * 60;
      return [at, ...(rest as [string, ...string[]])];
    }
    at += 5;
    return [at, first, ...(rest as string[])];
  });
};
export const run = (plan: Plan, steps: readonly Step[], options = {}) => {
  const events = playScript(plan, timed(steps), scribe(), options);
  const state = reduce(plan, events);
  return { events, state, verdict: verdictOf(plan, state) };
};
export const judged = (plan: Plan, steps: readonly Step[]) => run(plan, steps).verdict!;

/** Steps that several suites share: a barometer that stood still; the staged test to its let-by, one attempt, the pipework alone. */
export const still: Step[] = [
  ['barometer', 'start', '1013.00'],
  ['barometer', 'end', '1013.00'],
];
export const letBySteps: Step[] = [
  ['checks'],
  ['gauge', 'M-1'],
  ['zero', '0'],
  ['fill', '9.00'],
  ['start', '9.00'],
  [1.05, 'end', '9.00'],
];
export const holdSteps = (end: string): Step[] => [
  ['fill', '20.50'],
  ['start', '20.50'],
  [1.05, 'end', '20.50'],
  ['start', '20.50'],
  [2.02, 'end', end],
];
export const pipeSteps: Step[] = [['checks'], ...holdSteps('20.50'), ['skip', '', 'known'], ['zero', '0']];
