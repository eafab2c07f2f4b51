/** What the demonstrations of the Yard reckon with: the same functions as bench and Desk, for sizes that somebody slides. */
import { HOUSE_TEMPERATURE } from '@/core/adequacy/house';
import { gasHoldSees } from '@/core/adequacy/gas';
import { fitFlowLaw } from '@/core/medium/flow-law';
import { pressurePerKelvin } from '@/core/medium/gas';
import { balancePressure, drive, laminarConductance, laminarRate } from '@/core/medium/leak';
import { liquidPerKelvin } from '@/core/medium/liquid';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';

const LITRE_HOUR = 1e-3 / 3600;
/** A point of a curve, in the units named by who asks. */
export interface At {
  readonly x: number;
  readonly y: number;
}
/** Closer together at the beginning, where such curves bend most. */
const along = (from: number, to: number, y: (x: number) => number, points = 80): At[] =>
  Array.from({ length: points + 1 }, (_, i) => {
    const x = from + (to - from) * (i / points) ** 2;
    return { x, y: y(x) };
  });

/**
 * Openings that are partly holes (flow as the root of the pressure) and partly cracks (flow as the pressure), by their share at the
 * reference pressure: what flows at half of it, and the exponent that follows from both flows.
 * @param cracks share of the flow that goes through cracks, 0 to 1  @param reference Pa  @throws RangeError outside. Source: power law of openings
 */
export function halving(cracks: number, reference: number) {
  if (!(cracks >= 0 && cracks <= 1)) throw new RangeError('The share must be between 0 and 1.');
  const flow = (p: number) => (1 - cracks) * Math.sqrt(p / reference) + cracks * (p / reference);
  const ratio = flow(reference / 2) / flow(reference);
  const law = fitFlowLaw(
    [reference, reference / 2].map((pressure) => ({ pressure, flow: flow(pressure), uncertainty: 0.03 })),
  );
  return {
    ratio,
    exponent: law.n,
    /** percent of the flow at the reference, against Pa */ curve: along(
      0,
      reference * 1.2,
      (p) => 100 * flow(p),
    ),
  };
}
/**
 * Smallest leak that a gas hold shows, against its length.
 * @param volume l  @param step display step, mbar  @param pressure mbar  @param longest min  @returns l/h against min. Source: as the bench
 */
export function sensitivity(volume: number, step: number, pressure: number, longest: number) {
  const at = (minutes: number) =>
    gasHoldSees(
      {
        volume: volume * 1e-3,
        pressure: pressure * 100,
        workingPressure: pressure * 100,
        minutes,
        unit: 'mbar',
        resolution: step,
        // a step is the least that an eye takes for movement
        perceptible: Math.max(step, 0.25),
      },
      HOUSE_TEMPERATURE,
    ).leak;
  return { at, curve: along(1, longest, at) };
}
/** Sections that a degree moves differently: pressure in Pa above the atmosphere; a full one by its water and pipe. */
const SECTIONS = [
  { name: 'gas at working pressure', at: 2_000 },
  { name: 'new pipe with air', at: 20_700 },
  { name: 'air test of 1 bar', at: 100_000 },
  { name: 'nitrogen at 40 bar', at: 4_000_000 },
] as const;
/** 20 m of copper of 20 mm inside and 1 mm wall, full of water at 15 degrees: volume m3, stiffness m3/Pa, 1/K. */
const COPPER = { volume: 6.283e-3, alpha: 16.5e-6, bulk: 2.2e9, modulus: 120e9, bore: 0.02, wall: 0.001 };
/** What warmth does to closed sections. @param kelvin change  @returns Pa each. Source: Gay-Lussac; elastic water and pipe wall */
export function warmed(
  kelvin: number,
): { readonly name: string; readonly at: number; readonly change: number }[] {
  const { volume, alpha, bulk, modulus, bore, wall } = COPPER;
  const stiffness = volume * (1 / bulk + bore / (modulus * wall));
  return [
    ...SECTIONS.map(({ name, at }) => ({ name, at, change: kelvin * pressurePerKelvin(at, 293.15) })),
    {
      name: '20 m of copper full of water',
      at: 600_000,
      change: kelvin * liquidPerKelvin(volume, 15, alpha, stiffness),
    },
  ];
}
/**
 * A valve that passes and a leak behind it: how the gauge moves at each pressure. Laminar both.
 * @param letBy l/h into a section at zero  @param leak l/h at the supply pressure  @param supply mbar  @param volume l
 * @returns mbar a minute against mbar, and where both cancel. Source: laws of small leaks
 */
export function balance(letBy: number, leak: number, supply: number, volume: number) {
  const ps = supply * 100;
  const kIn = letBy > 0 ? laminarConductance(letBy * LITRE_HOUR, ps) : 0;
  const kOut = leak > 0 ? laminarConductance(leak * LITRE_HOUR, ps) : 0;
  const driven = drive(ps, STANDARD_ATMOSPHERE);
  const net = (mbar: number) =>
    kIn * (driven - drive(mbar * 100, STANDARD_ATMOSPHERE)) - laminarRate(kOut, mbar * 100);
  const slope = (mbar: number) => (net(mbar) * STANDARD_ATMOSPHERE * 60) / (volume * 1e-3) / 100;
  return {
    slope,
    /** mbar */ stands: balancePressure(kIn, kOut, ps) / 100,
    /** l/h that leave at a pressure */ leaves: (mbar: number) => laminarRate(kOut, mbar * 100) / LITRE_HOUR,
    curve: along(0, supply, slope),
  };
}
