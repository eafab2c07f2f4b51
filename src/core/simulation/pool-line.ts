/**
 * One line of a simulated pool: plugs of the tester's that may not hold, a place in the ground where it may leak, and what
 * eyes, dye and ears find there. The water in it is a section like others (liquid.ts).
 */
import { poolEnds } from '@/core/trades/pool/ends';
import { metres, type System } from '@/core/installation/section';
import { loudness } from '@/core/trades/pool/listen';
import { normal, uniform } from './installation';
import { simulateLiquid, type LiquidAction } from './liquid';
import type { PoolFault, SimulatedLiquid, SimulatedPoolLine } from './liquid-truth';

/** Length of a run of which nobody entered a pipe, m. House figure for the model. */
const RUN = 12;
/** The line of a practice run. @param system the section under test */
export function poolLineOf(system: System, seed: number): SimulatedPoolLine | undefined {
  const ends = poolEnds(system).map(({ id, name }) => ({ id, name }));
  if (!ends.length) return undefined;
  const length = system.pipes.reduce((sum, p) => sum + metres(p.length), 0) || RUN;
  return {
    ends,
    bad: ends[Math.floor(uniform(seed, 21) * ends.length)]!.id,
    at: length * (0.15 + 0.7 * uniform(seed, 22)),
    length,
  };
}
/** From what pressure on a leak above the water wets the ground: 2 psi, in Pa. */
const WET = 2 * 6894.757;
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
  const there = LEAKS.includes(s.fault) ? loudness(LOUD, REACH, along - line.at) : 0;
  // far from it an ear makes nothing up
  const heard = Math.round(there + (there > 0.3 ? EAR * normal(s.seed, 900 + n) : 0));
  const loud = Math.min(10, Math.max(0, heard));
  const how = loud >= 6 ? 'clear' : loud >= 3 ? 'fair' : loud > 0 ? 'a murmur' : 'nothing';
  return `At ${along.toFixed(1)} m: loudness ${loud} of 10, ${how}.`;
}
