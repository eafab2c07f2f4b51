/** What a simulated gas installation hides: everything of it that a person at the bench cannot read off. */
import type { CellValve } from './cells';
import { uniform } from './noise';

export type LeakLaw = 'laminar' | 'orifice';
export interface GasLeak {
  /** id of the part or run of pipe; `kit`: at what the tester connected */ readonly at: string;
  /** m3/s of gas at the atmosphere's pressure, and at what pressure, Pa gauge */ readonly rate: number;
  readonly under: number;
  readonly law: LeakLaw;
  /** Nobody gets at it: leak fluid shows nothing. */ readonly buried?: boolean;
}
export interface GasTruth {
  readonly leaks: readonly GasLeak[];
  /** What closed valves let by, m3/s per Pa between their sides, by their key. */
  readonly passes: Readonly<Record<string, number>>;
  /** Valves that stand shut though they look open, by their key. */ readonly shut: readonly string[];
  /** K in the end, s until two thirds of it, and from when, s after the beginning. */
  readonly warmth: { readonly kelvin: number; readonly tau: number; readonly from: number };
  /** How the pipe follows what warms it, s: a thermometer on it shows the pipe, the gas follows at once. 0: at once. */
  readonly lag: number;
  readonly gauge: {
    /** Pa by which it is off zero */ readonly zero: number;
    /** Pa by which it lags behind until it is tapped */ readonly sticks: number;
    /** Pa in an hour by which it walks away */ readonly drift: number;
    /** Degrees by which a liquid gauge hangs from the plumb: its column is then longer than the pressure is high */
    readonly tilt?: number;
  };
  /** Pa in a minute by which the regulator's shut-off pressure climbs while nothing is drawn; up to so many Pa. */
  readonly creep: { readonly perMinute: number; readonly most: number };
  /** Somebody draws gas: from and to, s after the beginning, m3/s per Pa. */
  readonly draws: readonly { readonly from: number; readonly to: number; readonly k: number }[];
  /** Places where a nose smells gas, besides leaks. */ readonly smells: readonly string[];
  /** The metalwork stands under voltage. */ readonly voltage: boolean;
  /** Appliances whose jet is for another gas, by their id: whoever looks reads it on the jet. */
  readonly jets?: readonly string[];
}
export const SOUND_GAS: GasTruth = {
  leaks: [],
  passes: {},
  shut: [],
  warmth: { kelvin: 0, tau: 900, from: 0 },
  lag: 0,
  gauge: { zero: 0, sticks: 0, drift: 0 },
  creep: { perMinute: 0, most: 0 },
  draws: [],
  smells: [],
  voltage: false,
};

/** What can be hidden by name in a practice run of a gas installation. */
export const FAULTS = {
  none: 'Sound installation',
  leak: 'A leak',
  'appliance-leak': 'A leak inside one appliance',
  'let-by': 'The supply valve passes',
  both: 'The supply valve passes and a leak, in balance',
  warming: 'The room warms up',
  'off-zero': 'The gauge is off zero',
  kit: 'Your own hose leaks',
  closed: 'A valve stands shut that should be open',
} as const;
export type Fault = keyof typeof FAULTS;

/** l/h at 20 mbar of a small laminar leak, as m3/s per Pa. */
export const litresPerHourAt20 = (rate: number): number => rate / 1000 / 3600 / 2000;
export const perHourAt20 = (at: string, rate: number): GasLeak => ({
  at,
  rate: rate / 3.6e6,
  under: 2000,
  law: 'laminar',
});

/** Sizes a named fault so that it shows in the rule's minutes whatever the pipe. */
export function gasTruth(
  fault: Fault,
  seed: number,
  {
    volume,
    supply,
    appliances,
    pipes,
    valves,
  }: {
    /** m3 */ readonly volume: number;
    /** Pa */ readonly supply: number;
    readonly appliances: readonly string[];
    /** Runs of pipe that can leak, by id. */ readonly pipes: readonly string[];
    readonly valves: readonly Pick<CellValve, 'key'>[];
  },
): GasTruth {
  const size = (least: number, most: number, n: number) =>
    (least + (most - least) * uniform(seed, n)) * (volume / 0.02);
  const one = <T>(of: readonly T[], n: number): T | undefined => of[Math.floor(uniform(seed, n) * of.length)];
  const pipe = one(pipes, 12) ?? 'pipework';
  const appliance = one(appliances, 11);
  switch (fault) {
    case 'none':
      return SOUND_GAS;
    case 'leak':
      return { ...SOUND_GAS, leaks: [perHourAt20(pipe, size(4, 7, 1))] };
    case 'appliance-leak':
      return { ...SOUND_GAS, leaks: [perHourAt20(appliance ?? pipe, size(0.8, 1.6, 2))] };
    case 'let-by':
      return { ...SOUND_GAS, passes: { supply: litresPerHourAt20(size(2.5, 5, 3)) } };
    case 'both': {
      // at the let-by pressure (85 mbar/10) inflow k_in (ps - p) equals outflow k_out p: nothing moves
      const p = 850;
      const letBy = size(2.5, 4, 4);
      return {
        ...SOUND_GAS,
        passes: { supply: litresPerHourAt20(letBy) },
        leaks: [perHourAt20(pipe, (letBy * (supply - p)) / p)],
      };
    }
    case 'warming':
      return { ...SOUND_GAS, warmth: { kelvin: 1.2, tau: 600, from: 0 } };
    case 'off-zero':
      return { ...SOUND_GAS, gauge: { ...SOUND_GAS.gauge, zero: 60 + 60 * uniform(seed, 5) } };
    case 'kit':
      return { ...SOUND_GAS, leaks: [perHourAt20('kit', size(2, 4, 6))] };
    case 'closed': {
      const key = one(
        valves.filter((v) => v.key !== 'supply' && v.key !== 'meter'),
        7,
      )?.key;
      const leak = perHourAt20(appliance ?? pipe, size(2, 3, 8));
      return { ...SOUND_GAS, leaks: [leak], shut: key ? [key] : [] };
    }
  }
}
