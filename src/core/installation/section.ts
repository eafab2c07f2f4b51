import { liquidPerKelvin, stiffness, type WallSegment } from '@/core/medium/liquid';
import type { Schematic } from '@/core/network/drawn-before';
import type { Network } from '@/core/network/network';
import { type Exact, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { convert, STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { tradeOf } from '@/core/trades';
import type { Ambient, Cooled, Heats, RegisterType, ThingKind, ValveKind } from './parts';
import type { FoundEnd, Look } from '@/core/trades/pool/joins';
import type { Pipe } from './pipe';
import { pipeWall } from './pipes';

/** A part that permits less than the pipe: it caps every test pressure while it is in scope. */
export interface Element {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly most: Exact;
}
/** A part its maker has tested: isolated from the test, its certificate quoted instead. */
export interface FactoryTested {
  readonly id: string;
  readonly name: string;
  readonly certificate: string;
}
/** A volume that was measured, not added up from lengths. */
export interface MeasuredVolume {
  readonly by: 'draw' | 'strokes';
  readonly volume: Exact;
  /** 95 %, percent */
  readonly uncertainty: Exact;
  readonly said: string;
}
/** A free water surface at the level of a drain under test: the opening itself, closet risers, stacks. */
export interface Surface {
  readonly id: string;
  readonly name: string;
  readonly bore: Exact;
  readonly count: number;
}
/** An end of a line whose joins nobody sees: in the pool, or at the equipment. */
export interface LineEnd {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly type?: string;
  readonly size?: Exact;
}
/** One loop of a manifold: a section with its own valve and flow meter. */
export interface Loop {
  readonly id: string;
  readonly name: string;
  readonly valve: string;
  readonly flowMeter: string;
}
/** Heights over one datum: slab and lowest point of a drain, test point and ends of a main. */
export interface Heights {
  readonly datum: string;
  /** The lowest fixture, floor drain or shower tray inside: water above it comes up in the house. */
  readonly fixture?: Exact;
  readonly slab?: Exact;
  readonly rim?: Exact;
  readonly testPoint?: Exact;
  readonly highest?: Exact;
  readonly lowest?: Exact;
}
export interface Meter {
  /** Class as the allowance table names it, or 'none' (no meter in the section) or 'other'. */
  readonly kind: string;
  readonly name: string;
  readonly volume: Exact;
  readonly serial?: string;
  /** Smallest test dial, volume of one turn; needed to use the dial as evidence. */
  readonly testDial?: Exact;
  readonly valve?: string;
  readonly valveOwner?: string;
}
/** Kinds a place may have or not have: until somebody looked, the bench asks. */
export const OPTIONAL_VALVES = [
  'drop',
  'selector',
  'container',
  'hidden',
  'liquid',
  'suction',
  'solenoid',
  'damper',
] as const;
/** A closing part besides the appliances' own valves: a drop valve, a selector, something hidden that shuts off. */
export interface Valve {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly kind: ValveKind;
}
export interface Regulator {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly stage?: string;
  readonly maxInlet?: Exact;
  readonly make?: string;
  readonly model?: string;
  readonly serial?: string;
}
export interface Tank {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly size: string;
  readonly make?: string;
  readonly serial?: string;
}
export interface Joint {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  /** So many alike, made on site, stand for one line of the list. */
  readonly count?: number;
}
/** What makes the cold or the heat of a refrigerant circuit, as its plate says. */
export interface Condensing {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly refrigerant?: string;
  readonly psHigh?: Exact;
  readonly psLow?: Exact;
  readonly charge?: Exact;
  /** kg of CO2 for a kg, where the data sheet was at hand. */
  readonly gwp?: number;
  readonly cooled?: Cooled;
  readonly ambient?: Ambient;
  readonly certificate?: string;
  readonly make?: string;
  readonly model?: string;
  readonly serial?: string;
}
/** What moves the air of a duct system. */
export interface AirHandler {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly heats?: Heats;
  readonly make?: string;
  readonly model?: string;
  readonly serial?: string;
}
/** Where a duct ends in a room: masked for a test, each by itself. */
export interface Register {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly type?: RegisterType;
}
/** A vessel of a circuit with a plate of its own. */
export interface Vessel {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly ps?: Exact;
  readonly volume?: Exact;
}
export interface Appliance {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly kind: string;
  readonly valve: string;
  readonly hasPilot: boolean;
  readonly hasLid: boolean;
  readonly volume: Exact;
  /** Maximum inlet pressure on its plate. Absent: not read. */
  readonly maxInlet?: Exact;
  /** Heat input on its plate. */
  readonly input?: Exact;
  readonly make?: string;
  readonly model?: string;
  readonly serial?: string;
}
/** A thing that is or was present, as a line of the inventory. */
export interface ExpectedItem {
  readonly id: string;
  readonly kind: ThingKind;
  readonly name: string;
  readonly place: string;
  readonly make: string;
  readonly model: string;
  readonly serial: string;
}
/** A system as it stands on the day: copied whole into the plan. */
export interface System {
  readonly id: string;
  readonly name: string;
  /** As a trade carries it (core/trades). */
  readonly medium: string;
  readonly workingPressure: Exact;
  readonly supplyPressure: Exact;
  /** What the installation was designed for: a fact of its own, never derived from the working pressure. */
  readonly designPressure?: Exact;
  readonly supplyValve: string;
  readonly supplyValveOwner: string;
  readonly testPoint: string;
  readonly emergencyContact: string;
  readonly meter: Meter;
  readonly pipes: readonly Pipe[];
  readonly appliances: readonly Appliance[];
  readonly inScope: readonly string[];
  readonly notCovered: readonly string[];
  /** Tested again every so many months, as the place or its owner wants it. */
  readonly everyMonths?: number;
  /** The regulator's set pressure, where it differs from the working pressure. */
  readonly setPressure?: Exact;
  readonly ventSetting?: Exact;
  readonly heatingValue?: Exact;
  readonly regulators?: readonly Regulator[];
  readonly tank?: Tank;
  readonly valves?: readonly Valve[];
  /** Kinds of valve that were looked for and are not here. */
  readonly noValves?: readonly ValveKind[];
  readonly joints?: readonly Joint[];
  /** What was written down here before, the newest of each thing. */
  readonly seen?: readonly ExpectedItem[];
  /** Ways in for a gauge: port, jet, quick-connect. */
  readonly access?: readonly string[];
  readonly elements?: readonly Element[];
  readonly factoryTested?: readonly FactoryTested[];
  readonly measured?: MeasuredVolume;
  /** The network it follows from; absent in what was planned before there was one. */
  readonly network?: Network;
  /** Of several sections of one place the one that is meant, as its trade names them. */
  readonly section?: {
    readonly key: string;
    readonly title: string;
    /** Ends of the others, where its trade has unseen joins: what shows there says that they are no others. */
    readonly others?: readonly OtherEnd[];
  };
  /** What was seen of its unseen joins, and ends that were found on the way (trades/pool). */
  readonly looks?: readonly Look[];
  readonly foundEnds?: readonly FoundEnd[];
  /** A drawing from before. */
  readonly schematic?: Schematic;
  /** Free surface of a pool. */
  readonly surface?: Exact;
  /** Gas in a liquid system at test pressure: vessel, arrestors. */
  readonly gasInside?: Exact;
  /** What it is there for, where its trade tells installations apart by that: decides which procedures are offered. Absent: all. */
  readonly duty?: string;
  readonly surfaces?: readonly Surface[];
  readonly loops?: readonly Loop[];
  readonly outlets?: readonly LineEnd[];
  readonly connections?: readonly LineEnd[];
  readonly heights?: Heights;
  readonly condensing?: readonly Condensing[];
  readonly evaporators?: readonly Vessel[];
  readonly receivers?: readonly Vessel[];
  readonly expansions?: readonly Joint[];
  readonly handlers?: readonly AirHandler[];
  readonly registers?: readonly Register[];
  readonly intakes?: readonly Joint[];
  /** Of a duct system: the floor it alone serves, its own surface, and the test pressure its class is tested at. */
  readonly floorServed?: Exact;
  readonly ductSurface?: Exact;
  readonly ductPressure?: Exact;
}

/** An end that belongs to another section, as far as anybody knows; where it is drawn. */
export interface OtherEnd {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly type: string;
  readonly dry: boolean;
  readonly x: number;
  readonly y: number;
}

const vessels = (system: Pick<System, 'evaporators' | 'receivers'>): readonly Vessel[] => [
  ...(system.evaporators ?? []),
  ...(system.receivers ?? []),
];
/** The parts that permit only so much: elements by name and place, then pipes by their rating. */
export const ratedParts = (
  system: Pick<System, 'elements' | 'pipes'>,
): { readonly name: string; readonly place: string; readonly most: Exact; readonly pipe: boolean }[] => [
  ...(system.elements ?? []).map((e) => ({ name: e.name, place: e.place, most: e.most, pipe: false })),
  ...system.pipes.flatMap((p) => (p.rating ? [{ name: p.name, place: '', most: p.rating, pipe: true }] : [])),
];
/** Every valve whose position matters, by kind: those named on the system page and each appliance's own. */
export function valvesOf(system: System): Valve[] {
  return [
    { id: 'supply', name: system.supplyValve, place: '', kind: 'supply' },
    ...(system.meter.valve
      ? [{ id: 'meter', name: system.meter.valve, place: 'meter', kind: 'meter' } as const]
      : []),
    ...(system.valves ?? []),
    ...system.appliances.map((a): Valve => ({
      id: a.id,
      name: `${a.name}, ${a.valve}`,
      place: a.place,
      kind: 'appliance',
    })),
  ];
}

/** Kinds of valve of which none is entered and of which nobody said that there is none. */
export function unknownValves(system: System, kinds: readonly ValveKind[]): ValveKind[] {
  const known = new Set(valvesOf(system).map((v) => v.kind));
  return kinds.filter(
    (k) =>
      !known.has(k) &&
      !system.noValves?.includes(k) &&
      !(k === 'meter' && system.meter.kind === 'none') &&
      !(k === 'appliance' && !tradeOf(system).fuel),
  );
}

/** A length in metres. */
export const metres = (a: Exact): number => convert(toNumber(a), a.unit, 'm');
const cubicMetres = (a: Exact): number => convert(toNumber(a), a.unit, 'm3');
/** Volume of a round length, m3: pi/4 x bore^2 x length. @param bore m  @param length m */
export const roundVolume = (bore: number, length: number): number => (Math.PI / 4) * bore ** 2 * length;
/** Inside volume of one pipe, m3, in whatever units of length it was entered. */
export const pipeVolume = (pipe: Pick<Pipe, 'bore' | 'length'>): number =>
  roundVolume(metres(pipe.bore), metres(pipe.length));

/**
 * Volume of the section under test: pipes by bore and length, plus meter and (when connected) appliances.
 * @returns m3 as a figure, uncertainty in the note. Source: geometry of round pipe; elastic water and wall
 */
export function sectionVolume(system: System, withAppliances = true): Figure {
  if (system.measured) return measuredVolume(system.measured);
  const pipes = system.pipes.reduce((sum, pipe) => sum + pipeVolume(pipe), 0);
  const meter = cubicMetres(system.meter.volume);
  const appliances = withAppliances
    ? system.appliances.reduce((sum, a) => sum + cubicMetres(a.volume), 0)
    : 0;
  const held = vessels(system);
  const inside = held.reduce((sum, v) => sum + (v.volume ? cubicMetres(v.volume) : 0), 0);
  const value = pipes + meter + appliances + inside;
  return {
    name: 'volume of the section',
    value,
    unit: 'm3',
    decimals: Math.max(4, decimalsFor(value)),
    formula: held.length
      ? 'V = Σ π/4 × bore² × length + V_vessels'
      : 'V = Σ π/4 × bore² × length + V_meter + V_appliances',
    inputs: [
      ...held.map((v) => ({
        name: v.name,
        value: v.volume ? `${(cubicMetres(v.volume) * 1000).toFixed(2)} l` : 'not known: counted as nothing',
      })),
      ...system.pipes.map((p) => ({
        name: `${p.name}, ${toNumber(p.length)} ${p.length.unit} of ${toNumber(p.bore)} ${p.bore.unit} bore`,
        value: `${(pipeVolume(p) * 1000).toFixed(2)} l`,
      })),
      ...(held.length
        ? []
        : [
            { name: `meter, ${system.meter.name}`, value: `${(meter * 1000).toFixed(2)} l` },
            {
              name: withAppliances ? 'appliances, inside their valves' : 'appliances, isolated',
              value: `${(appliances * 1000).toFixed(2)} l`,
            },
          ]),
    ],
    source: 'Pipe lengths as measured on the system page; meter and appliance volumes from their plates',
    note: 'measured lengths: about ± 10 %',
  };
}

/** The volume as it was measured: that figure stands in place of the lengths. */
function measuredVolume(m: MeasuredVolume): Figure {
  const value = cubicMetres(m.volume);
  return {
    name: 'volume of the section',
    value,
    unit: 'm3',
    decimals: Math.max(4, decimalsFor(value)),
    formula: m.by === 'draw' ? 'V = V_drawn × P_atm / (p_before − p_after)' : 'V = strokes × stroke volume',
    inputs: [{ name: m.by === 'draw' ? 'metered draw' : 'pump strokes', value: m.said }],
    source: m.by === 'draw' ? 'Metered draw' : 'Filled by pump strokes; needs of the trade N020',
    note: `measured: about ± ${toNumber(m.uncertainty)} %`,
  };
}

/** 95 % parts of each way to know a volume: a bore by table and a length by tape, a bore by hand, a plate. House figures. */
const TABLE_PART = 0.05;
const HAND_PART = 0.1;
const PLATE_PART = 0.2;
/**
 * Relative 95 % uncertainty of the section's volume: each pipe by where its bore comes from, meter and appliances by
 * their plates, added as squares; a measured volume brings its own. House figures.
 */
export function volumeUncertainty(system: System, withAppliances = true): number {
  if (system.measured) return toNumber(system.measured.uncertainty) / 100;
  const parts = [
    ...system.pipes.map((p) => [pipeVolume(p), p.table ? TABLE_PART : HAND_PART] as const),
    [cubicMetres(system.meter.volume), PLATE_PART] as const,
    ...vessels(system).map((v) => [v.volume ? cubicMetres(v.volume) : 0, PLATE_PART] as const),
    ...(withAppliances ? system.appliances.map((a) => [cubicMetres(a.volume), PLATE_PART] as const) : []),
  ];
  const whole = parts.reduce((s, [v]) => s + v, 0);
  return whole > 0 ? Math.hypot(...parts.map(([v, u]) => v * u)) / whole : HAND_PART;
}

/** Walls of the pipes for the stiffness of a full section; null where a pipe was not taken from a table. */
export function wallsOf(system: System): (WallSegment & { readonly alpha: number })[] | null {
  const walls = system.pipes.map((p) => {
    if (!p.table || !p.nominal) return null;
    const w = pipeWall(p.table, p.nominal);
    return { volume: pipeVolume(p), diameter: w.diameter, wall: w.wall, modulus: w.modulus, alpha: w.alpha };
  });
  return walls.every((w) => w !== null) && walls.length > 0 ? walls : null;
}
/**
 * Stiffness of a system full of water and what a kelvin does to it. The gas inside counts at the test pressure.
 * @param pressure gauge Pa  @param celsius of the water  @returns null where a pipe's wall is not known
 */
export function systemStiffness(
  system: System,
  pressure: number,
  celsius = 15,
): { c: number; perKelvin: number; figure: Figure } | null {
  const walls = wallsOf(system);
  if (!walls) return null;
  const air = system.gasInside ? cubicMetres(system.gasInside) : 0;
  const c = stiffness(walls, air, pressure + STANDARD_ATMOSPHERE);
  const volume = walls.reduce((s, w) => s + w.volume, 0);
  const alpha = walls.reduce((s, w) => s + w.alpha * w.volume, 0) / volume;
  const perBar = c / 1e-11;
  return {
    c,
    perKelvin: liquidPerKelvin(volume, celsius, alpha, c),
    figure: {
      name: 'stiffness of the full section',
      value: perBar,
      unit: 'ml/bar',
      decimals: decimalsFor(perBar),
      formula: 'C = Σ V (1/K + D/(E e)) + V_air / P',
      inputs: [
        { name: 'V, water in the pipes', value: `${(volume * 1000).toFixed(1)} l` },
        { name: 'of it by pipe and water', value: `${(stiffness(walls) / 1e-11).toFixed(2)} ml/bar` },
        { name: 'V_air, gas inside', value: `${(air * 1000).toFixed(2)} l` },
      ],
      source: 'Elastic water and pipe wall',
    },
  };
}

/** All free surfaces of a drain at its level, m2. Source: geometry of round pipe; elastic water and wall: the sum, not the opening alone */
export const freeSurface = (system: System): number =>
  (system.surfaces ?? []).reduce((sum, x) => sum + x.count * roundVolume(metres(x.bore), 1), 0);

/** The largest nominal pipe size in the section: it chooses the allowance row. */
export function largestSize(system: System): Exact | null {
  return system.pipes.reduce<Exact | null>(
    (best, p) => (!best || metres(p.size) > metres(best) ? p.size : best),
    null,
  );
}
