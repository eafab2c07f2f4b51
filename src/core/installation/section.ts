import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { toNumber, type Exact } from '@/core/quantity/exact';

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
}

/** Inside volume of one pipe, m3: pi/4 x bore^2 x length. */
export const pipeVolume = (pipe: Pipe): number =>
  (Math.PI / 4) * (toNumber(pipe.bore) / 1000) ** 2 * toNumber(pipe.length);

/**
 * Volume of the section under test: pipes by bore and length, plus meter and (when connected) appliances.
 * @returns m3 as a figure, uncertainty in the note. Source: measurement chapter 7.1.
 */
export function sectionVolume(system: System, withAppliances = true): Figure {
  const pipes = system.pipes.reduce((sum, pipe) => sum + pipeVolume(pipe), 0);
  const meter = toNumber(system.meter.volume) / 1000;
  const appliances = withAppliances
    ? system.appliances.reduce((sum, a) => sum + toNumber(a.volume) / 1000, 0)
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
        name: `${p.name}, ${toNumber(p.length)} m of ${toNumber(p.bore)} mm bore`,
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
    (best, p) => (!best || toNumber(p.size) > toNumber(best) ? p.size : best),
    null,
  );
}
