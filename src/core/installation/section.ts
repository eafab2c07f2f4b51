import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { toNumber, type Exact } from '@/core/quantity/exact';
import type { InventoryKind, ValveKind } from '@/core/pack/types';
import { convert } from '@/core/quantity/unit';

/** One run of pipe: bore is the inside diameter, outside is the nominal size that tables go by. */
export interface Pipe {
  readonly id: string;
  readonly name: string;
  readonly material: string;
  readonly size: Exact;
  readonly bore: Exact;
  readonly length: Exact;
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
  readonly kind: InventoryKind['kind'];
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
  readonly medium: 'natural gas' | 'propane' | 'air';
  readonly workingPressure: Exact;
  readonly supplyPressure: Exact;
  readonly supplyValve: string;
  readonly supplyValveOwner: string;
  readonly testPoint: string;
  readonly emergencyContact: string;
  readonly meter: Meter;
  readonly pipes: readonly Pipe[];
  readonly appliances: readonly Appliance[];
  readonly inScope: readonly string[];
  readonly notCovered: readonly string[];
  /** The regulator's set pressure, where it differs from the working pressure. */
  readonly setPressure?: Exact;
  readonly ventSetting?: Exact;
  readonly heatingValue?: Exact;
  readonly regulators?: readonly Regulator[];
  readonly tank?: Tank;
  readonly valves?: readonly Valve[];
  readonly joints?: readonly Joint[];
  /** What was written down here before, the newest of each thing. */
  readonly seen?: readonly ExpectedItem[];
  /** Ways in for a gauge: port, jet, quick-connect. */
  readonly access?: readonly string[];
}

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

const metres = (a: Exact): number => convert(toNumber(a), a.unit, 'm');
const cubicMetres = (a: Exact): number => convert(toNumber(a), a.unit, 'm3');
/** Volume of a round length, m3: pi/4 x bore^2 x length. @param bore m  @param length m */
export const roundVolume = (bore: number, length: number): number => (Math.PI / 4) * bore ** 2 * length;
/** Inside volume of one pipe, m3, in whatever units of length it was entered. */
export const pipeVolume = (pipe: Pick<Pipe, 'bore' | 'length'>): number =>
  roundVolume(metres(pipe.bore), metres(pipe.length));

/**
 * Volume of the section under test: pipes by bore and length, plus meter and (when connected) appliances.
 * @returns m3 as a figure, uncertainty in the note. Source: measurement chapter 7.1.
 */
export function sectionVolume(system: System, withAppliances = true): Figure {
  const pipes = system.pipes.reduce((sum, pipe) => sum + pipeVolume(pipe), 0);
  const meter = cubicMetres(system.meter.volume);
  const appliances = withAppliances
    ? system.appliances.reduce((sum, a) => sum + cubicMetres(a.volume), 0)
    : 0;
  const value = pipes + meter + appliances;
  return {
    name: 'volume of the section',
    value,
    unit: 'm3',
    decimals: Math.max(4, decimalsFor(value)),
    formula: 'V = Σ π/4 × bore² × length + V_meter + V_appliances',
    inputs: [
      ...system.pipes.map((p) => ({
        name: `${p.name}, ${toNumber(p.length)} ${p.length.unit} of ${toNumber(p.bore)} ${p.bore.unit} bore`,
        value: `${(pipeVolume(p) * 1000).toFixed(2)} l`,
      })),
      { name: `meter, ${system.meter.name}`, value: `${(meter * 1000).toFixed(2)} l` },
      {
        name: withAppliances ? 'appliances, inside their valves' : 'appliances, isolated',
        value: `${(appliances * 1000).toFixed(2)} l`,
      },
    ],
    source:
      'Pipe lengths as measured on the system page; meter and appliance volumes from their plates; chapter 7.1',
    note: 'measured lengths: about ± 10 %',
  };
}

/** The largest nominal pipe size in the section: it chooses the allowance row. */
export function largestSize(system: System): Exact | null {
  return system.pipes.reduce<Exact | null>(
    (best, p) => (!best || metres(p.size) > metres(best) ? p.size : best),
    null,
  );
}
