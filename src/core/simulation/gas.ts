/**
 * A simulated gas installation as its drawing has it: what its valves part are cells with a pressure each, joined where a valve
 * stands open, losing by their leaks and gaining by what a closed valve lets by. A pure function of what it is, what was
 * done, and the time. Source: laws of small leaks; gas at constant volume
 */
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { laminarRate, laminarConductance, orificeRateAt } from '@/core/medium/leak';
import type { Cells } from './cells';
import { normal } from './noise';
import type { TruthNow, World } from './world';
import { litresPerHourAt20, type GasLeak, type GasTruth } from './gas-truth';

export interface SimulatedGas extends Cells {
  readonly kind: 'gas';
  readonly seed: number;
  readonly truth: GasTruth;
  /** Pressure at which the source shuts off, Pa gauge; 0 where nothing feeds it. */ readonly supply: number;
  /** What one stroke of a pump brings, m3 of air; 0 where none is used. */ readonly stroke: number;
  /** gauge display step, Pa */ readonly step: number;
  /** standard deviation of the gauge's noise, Pa */ readonly noise: number;
  /** moment the installation comes to be, ms */ readonly began: number;
}
export type GasAction =
  | { readonly at: number; readonly act: 'supply'; readonly open: 'shut' | 'crack' | 'open' }
  | { readonly at: number; readonly act: 'bleed'; readonly open: boolean }
  | { readonly at: number; readonly act: 'pump'; readonly strokes: number }
  /** A valve by its key; `appliance` is how runs from before there were cells call it. */
  | { readonly at: number; readonly act: 'valve' | 'appliance'; readonly id: string; readonly open: boolean }
  | { readonly at: number; readonly act: 'gauge'; readonly connected: boolean }
  | { readonly at: number; readonly act: 'zero' | 'tap-gauge' | 'level-gauge' | 'detector' }
  | { readonly at: number; readonly act: 'fluid' | 'smell' | 'look'; readonly place: string }
  | { readonly at: number; readonly act: 'mend'; readonly place: string }
  | { readonly at: number; readonly act: 'truth'; readonly change: Partial<GasTruth> };
/** What a person at a gas installation can see. */
export interface GasView {
  readonly kind: 'gas';
  readonly supply: 'shut' | 'crack' | 'open';
  readonly bleeding: boolean;
  readonly connected: boolean;
  /** Valves that are seen to be shut, by their key. */ readonly closed: readonly string[];
  /** What the meter counted so far, l. */ readonly metered: number;
  /** Strokes have something to bring. */ readonly pump: boolean;
  /** What was seen, smelt and read, newest last. */ readonly said: readonly string[];
}
const KELVIN = 293.15;
/** Tenths of a degree C at which it begins. */
const BEGINS = 200;
/** Conductances of the cracked and of the opened supply and of the bleed, for 20 l. House figures for the model. */
const CRACK = litresPerHourAt20(60);
const OPEN = litresPerHourAt20(600);
const BLEED = litresPerHourAt20(90);
const MODEL_VOLUME = 0.02;
/** An eye finds bubbles from so much on, a nose gas from so much: m3/s. House figures. */
const BUBBLES = 0.3 / 3.6e6;
const SMELT = 2 / 3.6e6;
/** Least pressure that drives a bubble, Pa. House figure. */
const DRIVES = 200;
/** Longest step of the integration, s, and its part of the fastest time constant. */
const LONGEST = 5;
const SHORTEST = 1e-3;
/** ms */
const JUST_AFTER = 0.5;
const PART = 0.2;
/** Slower than so many Pa/s it stands nearly still; Runge-Kutta stays stable up to 2.78 time constants. */
const STILL = 0.05;
const STABLE = 2.5;

/** m3/s that a leak loses at a pressure. */
export function leakAt(leak: GasLeak, pressure: number): number {
  if (pressure <= 0 || leak.rate <= 0) return 0;
  return leak.law === 'laminar'
    ? laminarRate(laminarConductance(leak.rate, leak.under), pressure)
    : orificeRateAt(leak.rate, leak.under, pressure);
}

/** The installation while what was done to it is gone through. */
export class GasWorld implements World<GasAction, GasView> {
  private hides: GasTruth;
  private supply: GasView['supply'];
  private bleeding = false;
  private connected = false;
  private metered = 0;
  private readonly said: string[] = [];
  private time: number;
  /** Gauge pressure of each cell, Pa. */
  private p: number[];
  private readonly shut = new Set<string>();
  /** Shut without anybody having seen it. */
  private readonly unseen = new Set<string>();
  /** Cells that stand open to each other. */
  private groups: number[][] = [];
  private zeroed = 0;
  private needle = 0;
  private readonly scale: number;

  constructor(private readonly s: SimulatedGas) {
    this.hides = s.truth;
    this.time = s.began;
    this.supply = s.supply > 0 ? 'open' : 'shut';
    this.p = s.cells.map(() => s.supply);
    for (const key of s.truth.shut) {
      this.shut.add(key);
      this.unseen.add(key);
    }
    this.scale = s.cells.reduce((sum, c) => sum + (c.fed ? 0 : c.volume), 0) / MODEL_VOLUME;
    this.zeroed = s.truth.gauge.zero;
    this.regroup();
  }
  private flowValve = (key: string) => key === 'supply';
  /** Joins what stands open to each other; gas evens out at once. */
  private regroup(): void {
    const { cells, valves } = this.s;
    const of = cells.map((_, i) => i);
    const root = (i: number): number => (of[i] === i ? i : root(of[i]!));
    for (const v of valves) {
      if (this.flowValve(v.key) || this.shut.has(v.key)) continue;
      for (const j of v.joins) of[root(j)] = root(v.joins[0]!);
    }
    const groups = new Map<number, number[]>();
    cells.forEach((_, i) => groups.set(root(i), [...(groups.get(root(i)) ?? []), i]));
    this.groups = [...groups.values()];
    for (const g of this.groups) {
      const whole = this.volume(g);
      const mean = g.reduce((sum, i) => sum + this.p[i]! * cells[i]!.volume, 0) / whole;
      const fed = g.some((i) => cells[i]!.fed);
      for (const i of g) this.p[i] = fed ? this.source(this.time) : mean;
    }
  }
  private volume = (g: readonly number[]) => g.reduce((sum, i) => sum + this.s.cells[i]!.volume, 0);
  /** What the source gives, Pa: a regulator that creeps climbs while nothing is drawn. */
  private source(at: number): number {
    const { perMinute, most } = this.hides.creep;
    return this.s.supply + Math.min(most, (perMinute * (at - this.s.began)) / 60_000);
  }
  private warmthAt(at: number): number {
    const { kelvin, tau, from } = this.hides.warmth;
    const since = (at - this.s.began) / 1000 - from;
    return since <= 0 ? 0 : kelvin * (1 - Math.exp(-since / tau));
  }
  /** K/s. @param during a moment of the step that is taken: at its ends it is as within it */
  private warming(at: number, during: number): number {
    const { kelvin, tau, from } = this.hides.warmth;
    const since = (at - this.s.began) / 1000 - from;
    return (during - this.s.began) / 1000 <= from ? 0 : (kelvin / tau) * Math.exp(-since / tau);
  }
  private drawn(at: number): number {
    const since = (at - this.s.began) / 1000;
    return this.hides.draws.reduce((sum, d) => sum + (since >= d.from && since < d.to ? d.k : 0), 0);
  }
  private leaksIn(group: readonly number[]): GasLeak[] {
    return this.hides.leaks.filter((l) => {
      if (l.at === 'kit') return this.connected && group.includes(this.s.point);
      const at = this.s.cells.findIndex((c) => c.holds.includes(l.at));
      return group.includes(at < 0 ? this.s.point : at);
    });
  }
  private conductance(key: string): number {
    if (key === 'supply' && this.supply !== 'shut')
      return (this.supply === 'open' ? OPEN : CRACK) * this.scale;
    return this.flowValve(key) || this.shut.has(key) ? (this.hides.passes[key] ?? 0) : 0;
  }
  /** Pa/s of each group, and m3/s that comes from sources. @param during a moment of the step that is taken */
  private slopes(p: readonly number[], at: number, during: number): { dp: number[]; fed: number } {
    const { cells, valves } = this.s;
    const of = new Map(this.groups.flatMap((g, n) => g.map((i) => [i, n] as const)));
    const flow = this.groups.map((g, n) => {
      const lost = this.leaksIn(g).reduce((sum, l) => sum + leakAt(l, p[n]!), 0);
      const own = g.includes(this.s.point)
        ? ((this.bleeding ? BLEED * this.scale : 0) + this.drawn(during)) * Math.max(0, p[n]!)
        : 0;
      return -lost - own;
    });
    let fed = 0;
    for (const v of valves) {
      const k = this.conductance(v.key);
      const [a, b] = [of.get(v.joins[0]!), of.get(v.joins[1] ?? v.joins[0]!)];
      if (!k || a === undefined || b === undefined || a === b) continue;
      const passed = k * (p[a]! - p[b]!);
      flow[a] = flow[a]! - passed;
      flow[b] = flow[b]! + passed;
      if (this.groups[a]!.some((i) => cells[i]!.fed)) fed += passed;
      else if (this.groups[b]!.some((i) => cells[i]!.fed)) fed -= passed;
    }
    const heats = this.warming(at, during) / KELVIN;
    return {
      fed,
      dp: this.groups.map((g, n) =>
        g.some((i) => cells[i]!.fed)
          ? 0
          : (STANDARD_ATMOSPHERE / this.volume(g)) * flow[n]! + (STANDARD_ATMOSPHERE + p[n]!) * heats,
      ),
    };
  }
  /** The fastest of what moves now, 1/s. */
  private fastest(): number {
    let most = 1e-3;
    this.groups.forEach((g) => {
      if (g.some((i) => this.s.cells[i]!.fed)) return;
      const p = Math.max(100, this.p[g[0]!]!);
      let k = this.leaksIn(g).reduce((sum, l) => sum + leakAt(l, p) / p, 0);
      if (g.includes(this.s.point))
        k += (this.bleeding ? BLEED * this.scale : 0) + this.drawn(this.time + JUST_AFTER);
      for (const v of this.s.valves)
        if (v.joins.some((j) => g.includes(j)) && !v.joins.every((j) => g.includes(j)))
          k += this.conductance(v.key);
      most = Math.max(most, (STANDARD_ATMOSPHERE / this.volume(g)) * k);
    });
    return most;
  }
  /** When something begins or ends by itself: no step goes over it. */
  private nextEdge(at: number): number {
    const { warmth, draws } = this.hides;
    const edges = [warmth.from, ...draws.flatMap((d) => [d.from, d.to])].map((t) => this.s.began + t * 1000);
    return Math.min(...edges.filter((t) => t > at), Infinity);
  }
  /** By Runge-Kutta, with steps that the fastest flow allows. */
  advance(to: number): void {
    while (this.time < to) {
      for (const g of this.groups)
        if (g.some((i) => this.s.cells[i]!.fed)) for (const i of g) this.p[i] = this.source(this.time);
      const p = this.groups.map((g) => this.p[g[0]!]!);
      const at = this.time;
      // no step goes over an edge: just after its beginning it is as it is all along
      const during = at + JUST_AFTER;
      const add = (k: readonly number[], h: number) => p.map((v, i) => v + h * k[i]!);
      const a = this.slopes(p, at, during);
      // where everything stands nearly still only stability bounds the step
      const still = a.dp.every((slope) => Math.abs(slope) < STILL);
      const most = (still ? STABLE : PART) / this.fastest();
      const left = (Math.min(to, this.nextEdge(at)) - at) / 1000;
      // moments are whole milliseconds: nothing is gained below one
      const dt = Math.max(SHORTEST, Math.min(LONGEST, most, left));
      const b = this.slopes(add(a.dp, dt / 2), at + 500 * dt, during);
      const c = this.slopes(add(b.dp, dt / 2), at + 500 * dt, during);
      const d = this.slopes(add(c.dp, dt), at + 1000 * dt, during);
      const mean = (x: number, y: number, z: number, w: number) => (x + 2 * y + 2 * z + w) / 6;
      this.groups.forEach((g, n) => {
        const next = p[n]! + dt * mean(a.dp[n]!, b.dp[n]!, c.dp[n]!, d.dp[n]!);
        for (const i of g) this.p[i] = Math.max(0, next);
      });
      this.metered += dt * mean(a.fed, b.fed, c.fed, d.fed);
      this.time = Math.min(to, this.time + dt * 1000);
      this.follow();
    }
  }
  private get pressure(): number {
    return this.p[this.s.point]!;
  }
  /** A needle that sticks moves only once it is so far behind. */
  private follow(): void {
    const now = this.connected ? this.pressure : 0;
    const { sticks } = this.hides.gauge;
    if (Math.abs(now - this.needle) > sticks) this.needle = now - Math.sign(now - this.needle) * sticks;
  }
  private get shows(): number {
    const drifted = (this.hides.gauge.drift * (this.time - this.s.began)) / 3.6e6;
    return this.needle * this.lengthens + this.zeroed + drifted;
  }
  /** Along a column that leans the same height is a longer way: 1 / cos of its angle. */
  private get lengthens(): number {
    return 1 / Math.cos(((this.hides.gauge.tilt ?? 0) * Math.PI) / 180);
  }
  private get leaking(): number {
    const group = this.groups.find((g) => g.includes(this.s.point))!;
    return this.leaksIn(group).reduce((sum, l) => sum + leakAt(l, this.pressure), 0);
  }
  private get closed(): string[] {
    return [...this.shut].filter((key) => !this.unseen.has(key));
  }
  private name = (id: string): string =>
    id === 'kit'
      ? 'Own kit'
      : ([...this.s.places, ...this.s.pipes].find((p) => p.id === id)?.name ??
        this.s.valves.find((v) => v.key === id)?.name ??
        id);
  act(action: GasAction): void {
    switch (action.act) {
      case 'supply':
        this.supply = action.open;
        break;
      case 'bleed':
        this.bleeding = action.open;
        break;
      case 'pump': {
        const group = this.groups.find((g) => g.includes(this.s.point))!;
        const rise = (action.strokes * this.s.stroke * STANDARD_ATMOSPHERE) / this.volume(group);
        for (const i of group) this.p[i] = this.p[i]! + rise;
        break;
      }
      case 'valve':
      case 'appliance':
        this.unseen.delete(action.id);
        if (action.open) this.shut.delete(action.id);
        else this.shut.add(action.id);
        this.regroup();
        break;
      case 'gauge':
        this.connected = action.connected;
        break;
      case 'zero':
        // takes away what the gauge shows now: under pressure it hides the pressure
        this.zeroed -= this.shows;
        break;
      case 'tap-gauge':
        this.needle = this.connected ? this.pressure : 0;
        break;
      case 'level-gauge':
        this.said.push(
          this.hides.gauge.tilt ? 'The gauge leaned: it hangs plumb now.' : 'The gauge hangs plumb.',
        );
        this.hides = { ...this.hides, gauge: { ...this.hides.gauge, tilt: 0 } };
        break;
      case 'truth':
        this.hides = { ...this.hides, ...action.change };
        break;
      case 'mend':
        this.hides = { ...this.hides, leaks: this.hides.leaks.filter((l) => !this.isAt(l, action.place)) };
        this.said.push(`${this.name(action.place)}: made again.`);
        break;
      case 'detector':
        this.said.push(
          this.hides.voltage
            ? 'The detector lights on the metalwork: it is live. Touch nothing.'
            : 'The detector stays dark on the metalwork.',
        );
        break;
      default:
        this.said.push(`${this.name(action.place)}: ${this.sensed(action.act, action.place)}`);
    }
    this.follow();
  }
  /** Whether a leak is at a place; the joints of the pipe are gone over together. */
  private isAt(l: GasLeak, place: string): boolean {
    return (
      l.at === place || (place === 'pipework' && l.at !== 'kit' && !this.s.places.some((p) => p.id === l.at))
    );
  }
  private sensed(act: 'fluid' | 'smell' | 'look', place: string): string {
    const here = this.hides.leaks.filter((l) => this.isAt(l, place));
    const rate = here
      .filter((l) => act === 'smell' || !l.buried)
      .reduce((sum, l) => {
        const cell = this.s.cells.findIndex((c) => c.holds.includes(l.at));
        if (l.at === 'kit' && !this.connected) return sum;
        const p = this.p[cell < 0 ? this.s.point : cell]!;
        return sum + (p > DRIVES ? leakAt(l, p) : 0);
      }, 0);
    switch (act) {
      case 'smell':
        return rate > SMELT || this.hides.smells.includes(place) ? 'smells of gas.' : 'no smell.';
      case 'look': {
        const valve = this.s.valves.find((v) => v.key === place);
        const jet = this.hides.jets?.includes(place) ? 'its jet is for another gas.' : '';
        if (!valve) return jet || 'nothing to see.';
        this.unseen.delete(place);
        const open = place === 'supply' ? this.supply !== 'shut' : !this.shut.has(place);
        return [open ? 'stands open.' : 'stands shut.', jet].filter(Boolean).join(' ');
      }
      case 'fluid': {
        const valve = this.s.valves.find((v) => v.key === place || (place === 'valve' && v.key === 'supply'));
        if (valve && place !== 'kit') {
          const [a, b] = [this.p[valve.joins[0]!]!, this.p[valve.joins[1] ?? valve.joins[0]!]!];
          const closed = valve.key === 'supply' ? this.supply === 'shut' : this.shut.has(valve.key);
          const passed = closed ? (this.hides.passes[valve.key] ?? 0) * Math.abs(a - b) : 0;
          return passed > BUBBLES || rate > BUBBLES ? 'large growing bubbles' : 'no bubbles';
        }
        return rate > BUBBLES ? 'large growing bubbles' : 'no bubbles';
      }
    }
  }
  display(): number {
    return Math.round(
      (this.shows + this.s.noise * normal(this.s.seed, Math.floor(this.time / 500))) / this.s.step,
    );
  }
  flow(): undefined {
    return undefined;
  }
  /** The pipe follows the gas with a lag, where it has one. */
  probe(): number {
    return Math.round(BEGINS + 10 * this.warmthAt(this.time - 1000 * this.hides.lag));
  }
  view(): GasView {
    const { supply, bleeding, connected, closed, said } = this;
    const pump = this.s.stroke > 0;
    return {
      kind: 'gas',
      supply,
      bleeding,
      connected,
      closed,
      metered: this.metered * 1000,
      pump,
      said: [...said],
    };
  }
  truth(): TruthNow {
    return { steps: this.pressure / this.s.step, warmth: this.warmthAt(this.time), leaking: this.leaking };
  }
}
