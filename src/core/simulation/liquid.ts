/**
 * A simulated section full of water, or a drain by its level: stiffness, trapped air, stretch, warmth, leak, mains and
 * somebody who draws water act together. Source: elastic water and wall
 */
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { normal } from './installation';
import { conductance, liquidTruth, type SimulatedLiquid } from './liquid-truth';

export type LiquidAction =
  | { readonly at: number; readonly act: 'pump'; readonly strokes: number }
  | { readonly at: number; readonly act: 'bleed'; readonly open: boolean }
  | { readonly at: number; readonly act: 'air-out' }
  | { readonly at: number; readonly act: 'supply'; readonly open: 'shut' | 'open' }
  | { readonly at: number; readonly act: 'tap'; readonly open: boolean }
  | { readonly at: number; readonly act: 'fill'; readonly millimetres: number }
  | { readonly at: number; readonly act: 'gauge'; readonly connected: boolean }
  | { readonly at: number; readonly act: 'zero' }
  | { readonly at: number; readonly act: 'look'; readonly place: string }
  | { readonly at: number; readonly act: 'reseat'; readonly end: string }
  | { readonly at: number; readonly act: 'dye' }
  | { readonly at: number; readonly act: 'listen'; readonly along: number };
export interface LiquidState {
  readonly at: number;
  /** Pa gauge */ readonly pressure: number;
  /** kelvin from the start */ readonly warmth: number;
  /** strokes so far */ readonly strokes: number;
  /** m3 of gas in the section at atmospheric pressure */ readonly air: number;
  /** height of the level over the slab, mm */ readonly level: number;
  readonly supply: 'shut' | 'open';
  readonly bleeding: boolean;
  readonly tap: boolean;
  readonly connected: boolean;
  readonly zeroError: number;
  /** Of the line of a pool: the plug that gives way still does; it came off. */
  readonly plug: 'holds' | 'weeps' | 'off';
}
/** Relaxation times of stretching wall, s: one element a decade, from seconds to a day. */
const TIMES = [10, 100, 1_000, 10_000, 100_000];
/** Conductances of opened mains, bleed and tap, m3/s per Pa: litres a minute, whatever the section. */
const MAINS = conductance(600, 300_000);
const BLEED = conductance(60, 300_000);
const TAP = conductance(300, 300_000);
/** An end without its plug. */
const PLUG_OFF = conductance(3000, 100_000);
/** Step of the integration, s: fine after every action, coarser while nothing is done. */
const FINE_S = 1;
const COARSE_S = 5;
const FINE_FOR_S = 120;
/** Part of the air that one bleeding at the high point lets out. */
const AIR_OUT = 0.8;
/** A filled drain bounces while air leaves its vents: mm at first, and s until a third is left. */
const BOUNCE = 9;
const BOUNCE_S = 90;

/** s after it was filled */
const bounceAt = (since: number): number => BOUNCE * Math.exp(-since / BOUNCE_S) * Math.cos(since / 7);

/**
 * State at a moment: a pure function of the section, what was done, and the time. Water balance of the closed section:
 * C (p − dp/dT ΔT) + V_air (1 − P_atm/P) + Σ stretch_i = water put in, with each stretch element following the
 * pressure by its own time. @param at ms; actions later than it are ignored
 */
export function simulateLiquid(
  s: SimulatedLiquid,
  actions: readonly LiquidAction[],
  at: number,
): LiquidState {
  const truth = liquidTruth(s);
  const share = truth.stretch * s.stiffness;
  const elements = TIMES.map(() => 0);
  let p = s.supply;
  let air = truth.air;
  let [time, last] = [s.began, s.began];
  let strokes = 0;
  let supply: LiquidState['supply'] = s.supply > 0 ? 'open' : 'shut';
  let bleeding = false;
  let tap = false;
  let connected = false;
  let zeroError = 0;
  let level = 0;
  let filled = s.began;
  let plug: LiquidState['plug'] = truth.weep > 0 ? 'weeps' : 'holds';
  let slips = truth.slips;
  const warmthAt = (t: number) => truth.warmth * (1 - Math.exp(-(t - s.began) / 1000 / truth.tau));
  const airVolume = (pressure: number) => air * (1 - STANDARD_ATMOSPHERE / (pressure + STANDARD_ATMOSPHERE));
  const held = (pressure: number, warm: number) =>
    s.stiffness * (pressure - s.perKelvin * warm) + airVolume(pressure) + elements.reduce((a, e) => a + e, 0);
  let water = held(p, 0);
  const drawing = (t: number) => {
    const since = (t - s.began) / 1000;
    return truth.drawTo > 0 && since >= truth.drawFrom && since < truth.drawTo;
  };
  const step = (dt: number, to: number) => {
    const kIn = supply === 'open' ? MAINS : truth.letBy;
    const draws = tap || drawing(to);
    if (slips > 0 && p > slips) plug = 'off';
    const kPlug = plug === 'off' ? PLUG_OFF : plug === 'weeps' ? truth.weep : 0;
    const kOut = kPlug + (bleeding ? BLEED : 0) + (draws && s.surface === 0 ? TAP : 0);
    // a leak that opens under pressure is there while the pressure before the step is over what opens it
    const leak = p > truth.opens ? truth.leak : 0;
    const lost = (pressure: number) => kOut * pressure + leak * Math.max(0, pressure - truth.opens);
    const warm = warmthAt(to);
    const decay = TIMES.map((tau) => dt / tau);
    const rest = elements.reduce((sum, e, i) => sum + e / (1 + decay[i]!), 0);
    const soft = decay.reduce((sum, d) => sum + (share * d) / (1 + d), 0);
    // everything but the air is straight in p: Newton on the air alone settles in a few turns
    let next = p;
    for (let turn = 0; turn < 8; turn++) {
      const absolute = next + STANDARD_ATMOSPHERE;
      const value =
        s.stiffness * (next - s.perKelvin * warm) +
        airVolume(next) +
        rest +
        soft * next -
        water -
        dt * (kIn * (s.supply - next) - lost(next));
      const out = kOut + (next > truth.opens ? leak : 0);
      const slope = s.stiffness + (air * STANDARD_ATMOSPHERE) / absolute ** 2 + soft + dt * (kIn + out);
      const move = value / slope;
      next = Math.max(-0.5 * STANDARD_ATMOSPHERE, next - move);
      if (Math.abs(move) < 0.01) break;
    }
    next = Math.max(0, next);
    TIMES.forEach((_, i) => {
      elements[i] = (elements[i]! + decay[i]! * share * next) / (1 + decay[i]!);
    });
    water = next > 0 ? water + dt * (kIn * (s.supply - next) - lost(next)) : held(0, warm);
    p = next;
    if (s.surface > 0) level += ((drawing(to) ? 0.0002 : 0) - truth.drain) * (dt / s.surface) * 1000;
  };
  const advance = (to: number) => {
    while (time < to) {
      const fine = (time - last) / 1000 < FINE_FOR_S || drawing(time) || drawing(time + COARSE_S * 1000);
      const dt = Math.min(fine ? FINE_S : COARSE_S, (to - time) / 1000);
      step(dt, time + dt * 1000);
      time = Math.min(to, time + dt * 1000);
    }
  };
  for (const action of [...actions].sort((x, y) => x.at - y.at)) {
    if (action.at > at) break;
    advance(Math.max(action.at, time));
    last = time;
    switch (action.act) {
      case 'pump':
        strokes += action.strokes;
        water += action.strokes * s.stroke;
        break;
      case 'bleed':
        bleeding = action.open;
        break;
      case 'air-out':
        // what goes out is air; water takes its place at the pressure that stands
        water -= airVolume(p) * AIR_OUT;
        air *= 1 - AIR_OUT;
        break;
      case 'supply':
        supply = action.open;
        break;
      case 'tap':
        tap = action.open;
        break;
      case 'fill':
        level = action.millimetres;
        filled = time;
        break;
      case 'gauge':
        connected = action.connected;
        break;
      case 'zero':
        zeroError = connected ? -p : 0;
        break;
      case 'reseat':
        // seated anew without pressure, by its right hand: it holds from then on
        if (p < s.step * 5 && action.end === s.pool?.bad) {
          plug = 'holds';
          slips = 0;
        }
        break;
    }
  }
  advance(at);
  return {
    at,
    pressure: p,
    warmth: warmthAt(at),
    strokes,
    air,
    level: s.surface > 0 ? level + bounceAt((at - filled) / 1000) : level,
    supply,
    bleeding,
    tap,
    connected,
    zeroError,
    plug,
  };
}

/** What the gauge displays, as digits of its step. */
export function displayLiquid(s: SimulatedLiquid, state: LiquidState): number {
  const seen =
    (state.connected ? state.pressure : 0) +
    state.zeroError +
    s.noise * normal(s.seed, Math.floor(state.at / 500));
  return Math.round(seen / s.step);
}
