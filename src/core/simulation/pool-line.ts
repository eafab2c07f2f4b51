/**
 * One line of a simulated pool: plugs of the tester's that may not hold, a place in the ground where it may leak, and what
 * eyes, dye and ears find there. The water in it is a section like others (liquid.ts).
 */
import { poolEnds } from '@/core/trades/pool/ends';
import type { System } from '@/core/installation/section';
import { loudness } from '@/core/trades/pool/listen';
import { convert } from '@/core/quantity/unit';
import { toNumber } from '@/core/quantity/exact';
import { normal, uniform } from './installation';
import { simulateLiquid, type LiquidAction, type LiquidTruth, type SimulatedLiquid } from './liquid';

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
/** Length of a run of which nobody entered a pipe, m. House figure for the model. */
const RUN = 12;
/** The line of a practice run. @param system the section under test */
export function poolLineOf(system: System, seed: number): SimulatedPoolLine | undefined {
  const ends = poolEnds(system).map(({ id, name }) => ({ id, name }));
  if (!ends.length) return undefined;
  const length =
    system.pipes.reduce((sum, p) => sum + convert(toNumber(p.length), p.length.unit, 'm'), 0) || RUN;
  return {
    ends,
    bad: ends[Math.floor(uniform(seed, 21) * ends.length)]!.id,
    at: length * (0.15 + 0.7 * uniform(seed, 22)),
    length,
  };
}
/** psi in Pa. */
const PSI = 6894.757;
/** m3/s at 10 psi of so many l/h. */
const at10psi = (litresPerHour: number) => litresPerHour / 1000 / 3600 / (10 * PSI);
/** What a fault does to the water in the line. */
export function poolTruth(s: SimulatedLiquid, fault: PoolFault, sound: LiquidTruth): LiquidTruth {
  const between = (low: number, high: number, n: number) => low + (high - low) * uniform(s.seed, n);
  switch (fault) {
    case 'under-water':
    case 'above-water':
      return { ...sound, leak: at10psi(between(4, 12, 1)) };
    case 'under-pump':
      // shut by the ground and its own edge until so much pressure parts it; then it runs
      return { ...sound, leak: at10psi(between(15, 30, 1)), opens: between(3, 6, 2) * PSI };
    case 'bad-plug':
      return { ...sound, weep: at10psi(between(4, 10, 1)) };
    case 'plug-slips':
      return { ...sound, slips: between(5, 8, 2) * PSI };
  }
}
/** What shows of a leak in the ground while the line is pressed. */
const WET = 2 * PSI;
/** What each look, dye and listening found, in words, oldest first. */
export function poolSaid(
  s: SimulatedLiquid,
  line: SimulatedPoolLine,
  actions: readonly LiquidAction[],
  at: number,
): string[] {
  const name = (id: string) => line.ends.find((e) => e.id === id)?.name ?? id;
  return actions
    .filter((a) => a.at <= at)
    .flatMap((a, n) => {
      switch (a.act) {
        case 'look':
          return [lookedAt(s, line, simulateLiquid(s, actions, a.at), a.place, name(a.place))];
        case 'reseat': {
          const pressed = simulateLiquid(s, actions, a.at - 1).pressure >= s.step * 5;
          return [
            pressed
              ? `${name(a.end)}: it cannot be seated under pressure. Release first.`
              : `${name(a.end)}: plug seated anew.`,
          ];
        }
        case 'dye':
          return [
            // still water moves dye only where much is lost, below the level
            s.fault === 'under-water'
              ? 'Dye bends, and is drawn into the open plug.'
              : 'Dye hangs before the plug and drifts away.',
          ];
        case 'listen':
          return [heardAt(s, line, a.along, n)];
        default:
          return [];
      }
    });
}
function lookedAt(
  s: SimulatedLiquid,
  line: SimulatedPoolLine,
  state: ReturnType<typeof simulateLiquid>,
  place: string,
  named: string,
): string {
  if (place === 'ground')
    return s.fault === 'above-water' && state.pressure > WET
      ? `Along the run: the ground grows wet near ${line.at.toFixed(0)} m.`
      : 'Along the run: nothing to see.';
  if (state.plug === 'off' && place === line.bad) return `${named}: the plug has come off.`;
  return state.plug === 'weeps' && place === line.bad && state.pressure > s.step * 5
    ? `${named}: drops at the rim of the plug.`
    : `${named}: dry at the plug, no bubble.`;
}
const LEAKS: readonly string[] = ['under-water', 'above-water', 'under-pump'] satisfies PoolFault[];
/** Loudness over the leak, its reach in m, and what an ear is off by. */
const LOUD = 8;
const REACH = 1.2;
const EAR = 0.7;
function heardAt(s: SimulatedLiquid, line: SimulatedPoolLine, along: number, n: number): string {
  const true_ = LEAKS.includes(s.fault) ? loudness(LOUD, REACH, along - line.at) : 0;
  const heard = Math.round(true_ + (true_ > 0.3 ? EAR * normal(s.seed, 900 + n) : 0));
  const loud = Math.min(10, Math.max(0, heard));
  const how = loud >= 6 ? 'clear' : loud >= 3 ? 'fair' : loud > 0 ? 'a murmur' : 'nothing';
  return `At ${along.toFixed(1)} m: loudness ${loud} of 10, ${how}.`;
}
