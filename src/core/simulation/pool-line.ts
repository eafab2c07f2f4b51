/**
 * One line of a simulated pool: plugs of the tester's that may not hold, a place in the ground where it may leak, and what
 * eyes, dye and ears find there. The water in it is a section like others (liquid.ts).
 */
import { poolEnds } from '@/core/trades/pool/ends';
import { metres, type System } from '@/core/installation/section';
import { loudness } from '@/core/trades/pool/listen';
import { normal, uniform } from './noise';
import type { LiquidAction } from './liquid';
import type { LiquidTruth, SimulatedLiquid, SimulatedPoolLine } from './liquid-truth';

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
/** What the line shows at the moment: pressure, Pa, and its plug. */
export interface LineNow {
  readonly pressure: number;
  readonly plug: 'holds' | 'weeps' | 'off';
  readonly connected: boolean;
}
/** What a look, dye or an ear finds at a section of water, in words. @param n which of them it is: an ear is off by something else each time */
export function poolSays(
  s: SimulatedLiquid,
  truth: LiquidTruth,
  now: LineNow,
  action: Extract<LiquidAction, { act: 'look' | 'mend' | 'dye' | 'listen' }>,
  n: number,
): string {
  switch (action.act) {
    case 'mend':
    case 'look': {
      const name =
        s.pool?.ends.find((e) => e.id === action.place)?.name ?? s.places?.[action.place] ?? action.place;
      return lookedAt(s, truth, now, action.place, name);
    }
    case 'dye':
      // still water moves dye only where much is lost, below the level
      return truth.where === 'under-water'
        ? 'Dye bends, and is drawn into the open plug.'
        : 'Dye hangs before the plug and drifts away.';
    case 'listen':
      return heardAt(s, truth, action.along, n);
  }
}
function lookedAt(
  s: SimulatedLiquid,
  truth: LiquidTruth,
  now: LineNow,
  place: string,
  named: string,
): string {
  if (place === 'kit')
    return `Own kit: ${truth.kit > 0 && now.connected && now.pressure > s.step * 5 ? 'drops at the coupling.' : 'dry.'}`;
  if (truth.sights[place]) return `${named}: ${truth.sights[place]}`;
  const line = s.pool;
  if (!line) return `${named}: nothing to see.`;
  if (place === 'ground')
    return truth.where === 'above-water' && now.pressure > WET
      ? `Along the run: the ground grows wet near ${line.at.toFixed(0)} m.`
      : 'Along the run: nothing to see.';
  if (now.plug === 'off' && place === line.bad) return `${named}: the plug has come off.`;
  return now.plug === 'weeps' && place === line.bad && now.pressure > s.step * 5
    ? `${named}: drops at the rim of the plug.`
    : `${named}: dry at the plug, no bubble.`;
}
/** Loudness over the leak, its reach in m, and what an ear is off by. */
const LOUD = 8;
const REACH = 1.2;
const EAR = 0.7;
function heardAt(s: SimulatedLiquid, truth: LiquidTruth, along: number, n: number): string {
  const there = truth.where && s.pool ? loudness(LOUD, REACH, along - s.pool.at) : 0;
  // far from it an ear makes nothing up
  const heard = Math.round(there + (there > 0.3 ? EAR * normal(s.seed, 900 + n) : 0));
  const loud = Math.min(10, Math.max(0, heard));
  const how = loud >= 6 ? 'clear' : loud >= 3 ? 'fair' : loud > 0 ? 'a murmur' : 'nothing';
  return `At ${along.toFixed(1)} m: loudness ${loud} of 10, ${how}.`;
}
