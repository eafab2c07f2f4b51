/** What a simulated section with water is made of, and the hidden truth of each fault. */
import { pickOf, uniform } from './noise';
import { behind, type Parted, parting } from './parted';

/** Hidden faults of a simulated section with water. */
export const LIQUID_FAULTS = {
  none: 'Sound section',
  leak: 'A leak',
  closed: 'A valve stands shut though it looks open, and the leak lies behind it',
  air: 'Air is trapped',
  stretch: 'Pipe that stretches a lot',
  'stretch-leak': 'It stretches, and leaks',
  cooling: 'The water cools down',
  'let-by': 'The valve to the mains passes',
  user: 'Somebody draws water meanwhile',
} as const;
export type LiquidFault = keyof typeof LIQUID_FAULTS;

export interface SimulatedLiquid {
  readonly kind: 'liquid';
  readonly seed: number;
  readonly truth: LiquidTruth;
  /** A line of a pool: its ends, each with a plug of the tester's, and its run in the ground. */
  readonly pool?: SimulatedPoolLine;
  /** Names of what can be looked at, by the id it has on the drawing. */
  readonly places?: Readonly<Record<string, string>>;
  /** What its valves part, and the part in which the gauge stands; absent: nothing inside parts it. */
  readonly parted?: Parted;
  /** m3 */ readonly volume: number;
  /** m3/Pa, water and wall alone */ readonly stiffness: number;
  /** Pa per kelvin of the full section */ readonly perKelvin: number;

  /** pressure of the mains, Pa gauge; 0 where a pump alone raises */ readonly supply: number;
  /** m3 per stroke of the pump */ readonly stroke: number;
  /** free surface of a drain, m2; 0 for a closed section */ readonly surface: number;
  /** gauge display step, Pa */ readonly step: number;
  /** standard deviation of the gauge's noise, Pa */ readonly noise: number;
  /** ms */ readonly began: number;
}
/** What can be hidden in a line of a pool. */
export const POOL_FAULTS = {
  none: 'Sound line',
  'under-water': 'A leak below the water level',
  'above-water': 'A leak above the water level',
  'under-pump': 'A leak that opens only under pressure',
  'bad-plug': 'One of your own plugs weeps',
  'plug-slips': 'One of your own plugs slips off',
  air: 'Air is trapped',
} as const;
export type PoolFault = Exclude<keyof typeof POOL_FAULTS, 'none' | 'air'>;

export interface SimulatedPoolLine {
  readonly ends: readonly { readonly id: string; readonly name: string }[];
  /** The end whose plug gives way, where one does. */
  readonly bad: string;
  /** m along the run, and its length */
  readonly at: number;
  readonly length: number;
}
/** l/h at a pressure as a conductance, m3/s per Pa. */
export const conductance = (litresPerHour: number, pressure: number): number =>
  litresPerHour / 1000 / 3600 / pressure;
export interface LiquidTruth {
  /** m3/s per Pa over what opens it */ readonly leak: number;
  /** Where it leaks, by the id it has on the drawing; '': where the gauge stands. */ readonly at: string;
  /** Pa below which nothing leaks */ readonly opens: number;
  /** Where the leak of a pool's line lies; '' where it has none. */
  readonly where: '' | 'under-water' | 'above-water' | 'under-pump';
  readonly letBy: number;
  /** m3 at atmospheric pressure */ readonly air: number;
  /** A vessel that was left in: m3 of its gas at the Pa gauge it was filled to; below that it takes no water. */
  readonly vessel?: { readonly gas: number; readonly filled: number };
  readonly stretch: number;
  /** K in the end, and s */ readonly warmth: number;
  readonly tau: number;
  /** Somebody draws: from and to, s after the beginning. */
  readonly draws: readonly { readonly from: number; readonly to: number }[];
  /** m3/s out of a drain by its level */ readonly drain: number;
  /** m3/s per Pa at a plug of the tester's until it is seated anew */ readonly weep: number;
  /** Pa at which a plug comes off; 0: it stays */ readonly slips: number;
  /** m3/s per Pa at the hose and connection of the gauge */ readonly kit: number;
  /** Valves that stand shut though they look open, by their key. */ readonly shut: readonly string[];
  readonly gauge: {
    /** Pa by which it is off zero */ readonly zero: number;
    /** Pa by which it lags behind until it is tapped */ readonly sticks: number;
  };
  /** What is seen where somebody looks, by the id of the part. */ readonly sights: Readonly<
    Record<string, string>
  >;
}
export const SOUND_LIQUID: LiquidTruth = {
  leak: 0,
  at: '',
  opens: 0,
  where: '',
  letBy: 0,
  air: 0,
  stretch: 0,
  warmth: 0,
  tau: 1200,
  draws: [],
  drain: 0,
  weep: 0,
  slips: 0,
  kit: 0,
  shut: [],
  gauge: { zero: 0, sticks: 0 },
  sights: {},
};
/** What a named fault is sized by. */
export interface LiquidSizes {
  readonly seed: number;
  /** m3 */ readonly volume: number;
  /** m3/Pa */ readonly stiffness: number;
  readonly stretch: number;
  /** m2 */ readonly surface: number;
  readonly parted?: Parted | undefined;
}
/** Part of a section that is air after the usual bleeding. House figure for the model. */
const LEFT_AIR = 0.002;
/** Sizes a named fault so that it shows in the rule's minutes whatever the section. */
export function liquidTruth(fault: LiquidFault | PoolFault, s: LiquidSizes): LiquidTruth {
  const sound: LiquidTruth = { ...SOUND_LIQUID, air: s.volume * LEFT_AIR, stretch: s.stretch };
  const between = (low: number, high: number, n: number) => low + (high - low) * uniform(s.seed, n);
  // a leak that shows in the rule's minutes: so much of the stiffness per hour and bar
  const leak = (s.stiffness * between(0.4, 0.8, 1)) / 3600;
  switch (fault) {
    case 'none':
      return sound;
    case 'leak':
      return { ...sound, leak, drain: (s.surface * between(0.006, 0.012, 2)) / 1800 };
    case 'closed':
      return { ...sound, leak, ...hiddenPart(s) };
    case 'air':
      return { ...sound, air: s.volume * between(0.06, 0.1, 3) };
    case 'stretch':
      return { ...sound, stretch: Math.max(s.stretch, 0.6) };
    case 'stretch-leak':
      return { ...sound, stretch: Math.max(s.stretch, 0.2), leak };
    case 'cooling':
      return { ...sound, warmth: -between(0.6, 1.2, 4), tau: 1800 };
    case 'let-by':
      return { ...sound, letBy: conductance(between(0.5, 1, 5), 200_000) };
    case 'user': {
      const from = between(900, 1800, 6);
      return { ...sound, draws: [{ from, to: from + 6 }] };
    }
    default:
      return poolTruth(s, fault, sound);
  }
}
/** A valve inside that stands shut, and something behind it that leaks; nothing where no valve parts the section. */
function hiddenPart({ parted, seed }: LiquidSizes): Pick<LiquidTruth, 'shut' | 'at'> {
  const valve = parted && pickOf(parting(parted), uniform(seed, 7));
  if (!valve) return { shut: [], at: '' };
  return { shut: [valve.key], at: parted.cells[behind(parted, valve)!]!.holds[0]! };
}
/** psi in Pa. */
const PSI = 6894.757;
/** m3/s at 10 psi of so many l/h. */
const at10psi = (litresPerHour: number) => conductance(litresPerHour, 10 * PSI);
/** What a fault does to the water in the line. */
function poolTruth(s: LiquidSizes, fault: PoolFault, sound: LiquidTruth): LiquidTruth {
  const between = (low: number, high: number, n: number) => low + (high - low) * uniform(s.seed, n);
  switch (fault) {
    case 'under-water':
    case 'above-water':
      return { ...sound, where: fault, leak: at10psi(between(4, 12, 1)) };
    case 'under-pump':
      // shut by the ground and its own edge until so much pressure parts it; then it runs
      return { ...sound, where: fault, leak: at10psi(between(15, 30, 1)), opens: between(3, 6, 2) * PSI };
    case 'bad-plug':
      return { ...sound, weep: at10psi(between(4, 10, 1)) };
    case 'plug-slips':
      return { ...sound, slips: between(5, 8, 2) * PSI };
  }
}
