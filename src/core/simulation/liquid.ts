/**
 * A simulated section full of water, or a drain by its level: stiffness, trapped air, stretch, warmth, leak, mains and
 * somebody who draws water act together. Source: elastic water and wall
 */
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { normal } from './noise';
import { poolSays } from './pool-line';
import type { TruthNow, World } from './world';
import { conductance, type LiquidTruth, type SimulatedLiquid } from './liquid-truth';
import { cellOf, type Parted, reachedFrom, shareOf, WHOLE } from './parted';

export type LiquidAction =
  | { readonly at: number; readonly act: 'pump'; readonly strokes: number }
  | { readonly at: number; readonly act: 'bleed'; readonly open: boolean }
  | { readonly at: number; readonly act: 'air-out' }
  | { readonly at: number; readonly act: 'supply'; readonly open: 'shut' | 'open' }
  | { readonly at: number; readonly act: 'tap'; readonly open: boolean }
  | { readonly at: number; readonly act: 'fill'; readonly millimetres: number }
  | { readonly at: number; readonly act: 'gauge'; readonly connected: boolean }
  | { readonly at: number; readonly act: 'zero' }
  | { readonly at: number; readonly act: 'look' | 'mend'; readonly place: string }
  | { readonly at: number; readonly act: 'valve'; readonly id: string; readonly open: boolean }
  | { readonly at: number; readonly act: 'tap-gauge' }
  | { readonly at: number; readonly act: 'truth'; readonly change: Partial<LiquidTruth> }
  | { readonly at: number; readonly act: 'reseat'; readonly end: string }
  | { readonly at: number; readonly act: 'dye' }
  | { readonly at: number; readonly act: 'listen'; readonly along: number };
/** What a person at a section of water can see. */
export interface LiquidView {
  readonly kind: 'liquid';
  readonly supply: 'shut' | 'open';
  readonly bleeding: boolean;
  readonly tap: boolean;
  readonly connected: boolean;
  /** Valves that are seen to be shut, by their key. */ readonly closed: readonly string[];
  /** strokes so far */ readonly strokes: number;
  /** What one stroke of the pump delivers, ml. */ readonly stroke: number;
  /** height of the level over the slab, whole mm */ readonly level: number;
  readonly drain: boolean;
  /** It is the line of a pool: its ends, ground and dye can be looked at. */ readonly pool: boolean;
  /** What was seen and heard, newest last. */ readonly said: readonly string[];
}
/** Relaxation times of stretching wall, s: one element a decade, from seconds to a day. */
const TIMES = [10, 100, 1_000, 10_000, 100_000];
/** Conductances of opened mains, bleed and tap, m3/s per Pa: litres a minute, but a hand lets no section down in less than some seconds. */
const MAINS = conductance(600, 300_000);
const BLEED = conductance(60, 300_000);
const TAP = conductance(300, 300_000);
/** A section is let down by its bleed in no less than so many seconds. House figure for the model. */
const LET_DOWN_S = 5;
/** An end without its plug. */
const PLUG_OFF = conductance(3000, 100_000);
/** Tenths of a degree C at which it begins. */
const BEGINS = 150;
/** Step of the integration, s: fine after every action, coarser while nothing is done. */
const FINE_S = 1;
const COARSE_S = 5;
const FINE_FOR_S = 120;
/** So often a pressure is guessed anew, at most: straight guesses settle in a few turns, halving in some dozens. */
const TURNS = 60;
/** Part of the air that one bleeding at the high point lets out. */
const AIR_OUT = 0.8;
/** A filled drain bounces while air leaves its vents: mm at first, and s until a third is left. */
const BOUNCE = 9;
const BOUNCE_S = 90;

/** What a part holds that no valve lets out: m3 of water and air, what its walls took, and since when, ms. */
interface Kept {
  readonly water: number;
  readonly air: number;
  readonly elements: readonly number[];
  readonly since: number;
}
/** s after it was filled */
const bounceAt = (since: number): number => BOUNCE * Math.exp(-since / BOUNCE_S) * Math.cos(since / 7);

/**
 * Water balance of the closed section: C (p − dp/dT ΔT) + V_air (1 − P_atm/P) + Σ stretch_i = water put in, with each stretch element
 * following the pressure by its own time. A pure function of the section, what was done, and the time.
 */
export class LiquidWorld implements World<LiquidAction, LiquidView> {
  private hides: LiquidTruth;
  /** m3/Pa of what stands open to the gauge: behind a valve that is shut lies a part that does not take part. */
  private c: number;
  private readonly parted: Parted;
  private reached: ReadonlySet<number>;
  /** What is kept behind shut valves, by its cell. */
  private readonly kept = new Map<number, Kept>();
  /** Shut, by hand or unseen, by their key. */
  private readonly shut: Set<string>;
  private readonly elements = TIMES.map(() => 0);
  private p: number;
  /** m3 of gas in the section at atmospheric pressure */
  private air: number;
  private water: number;
  private time: number;
  private last: number;
  private filled: number;
  private level = 0;
  private strokes = 0;
  private supply: LiquidView['supply'];
  private bleeding = false;
  private tap = false;
  private connected = false;
  private readonly closed = new Set<string>();
  private zeroed: number;
  private needle = 0;
  private plug: 'holds' | 'weeps' | 'off';
  private slips: number;
  private readonly said: string[] = [];
  private listened = 0;
  constructor(private readonly s: SimulatedLiquid) {
    const { truth } = s;
    this.hides = truth;
    this.parted = s.parted ?? WHOLE;
    this.shut = new Set(truth.shut);
    this.reached = reachedFrom(this.parted, this.shut);
    // what lies behind a valve that stood shut was never raised
    this.parted.cells.forEach(({ share }, i) => {
      if (!this.reached.has(i))
        this.kept.set(i, { water: 0, air: share * truth.air, elements: TIMES.map(() => 0), since: s.began });
    });
    this.c = s.stiffness * this.share;
    this.p = s.supply;
    this.air = truth.air * this.share;
    this.time = this.last = this.filled = s.began;
    this.supply = s.supply > 0 ? 'open' : 'shut';
    this.zeroed = truth.gauge.zero;
    this.plug = truth.weep > 0 ? 'weeps' : 'holds';
    this.slips = truth.slips;
    this.water = this.held(this.p, 0);
  }
  private warmthAt = (t: number) =>
    this.hides.warmth * (1 - Math.exp(-(t - this.s.began) / 1000 / this.hides.tau));
  private airVolume = (pressure: number) =>
    this.air * (1 - STANDARD_ATMOSPHERE / (pressure + STANDARD_ATMOSPHERE)) + this.vesselTakes(pressure);
  /** m3 of water that a vessel takes: what its gas gives way, by Boyle, once the pressure is over what it was filled to. */
  private vesselTakes(pressure: number): number {
    const { vessel } = this.hides;
    if (!vessel || pressure <= vessel.filled) return 0;
    const at = vessel.filled + STANDARD_ATMOSPHERE;
    return vessel.gas * (1 - at / (pressure + STANDARD_ATMOSPHERE));
  }
  /** m3/Pa by which gas gives way at a pressure. */
  private gasGives(pressure: number): number {
    const { vessel } = this.hides;
    const over = vessel && pressure > vessel.filled ? vessel.gas * (vessel.filled + STANDARD_ATMOSPHERE) : 0;
    return (this.air * STANDARD_ATMOSPHERE + over) / (pressure + STANDARD_ATMOSPHERE) ** 2;
  }
  private held = (pressure: number, warm: number) =>
    this.c * (pressure - this.s.perKelvin * warm) +
    this.airVolume(pressure) +
    this.elements.reduce((a, e) => a + e, 0);
  private drawing(t: number): boolean {
    const since = (t - this.s.began) / 1000;
    return this.hides.draws.some((d) => since >= d.from && since < d.to);
  }
  /** m3/s per Pa over what opens it. A leak that opens under pressure is there while the pressure before the step is over that. */
  private get leak(): number {
    return this.p > this.hides.opens && this.reached.has(this.leaksIn) ? this.hides.leak : 0;
  }
  /** The cell in which it leaks. */
  private get leaksIn(): number {
    return cellOf(this.parted, this.hides.at) ?? this.parted.point;
  }
  /** Which part of the whole stands open to the gauge. */
  private get share(): number {
    return shareOf(this.parted, this.reached);
  }
  /** m3/Pa with what air there is at the pressure that stands. */
  private get soft(): number {
    return this.c + this.gasGives(this.p);
  }
  private get kit(): number {
    return this.connected ? this.hides.kit : 0;
  }
  /** A needle that sticks moves only once it is so far behind. */
  private follow(): void {
    const now = this.connected ? this.p : 0;
    const { sticks } = this.hides.gauge;
    if (Math.abs(now - this.needle) > sticks) this.needle = now - Math.sign(now - this.needle) * sticks;
  }
  private step(dt: number, to: number): void {
    const { s, hides, elements } = this;
    if (this.slips > 0 && this.p > this.slips) this.plug = 'off';
    const kIn = this.supply === 'open' ? MAINS : hides.letBy;
    const draws = (this.tap || this.drawing(to)) && s.surface === 0;
    const kPlug = this.plug === 'off' ? PLUG_OFF : this.plug === 'weeps' ? hides.weep : 0;
    const kOut =
      kPlug + this.kit + (this.bleeding ? Math.min(BLEED, this.soft / LET_DOWN_S) : 0) + (draws ? TAP : 0);
    const { leak } = this;
    const lost = (pressure: number) => kOut * pressure + leak * Math.max(0, pressure - hides.opens);
    const warm = this.warmthAt(to);
    const share = hides.stretch * this.c;
    const decay = TIMES.map((tau) => dt / tau);
    const rest = elements.reduce((sum, e, i) => sum + e / (1 + decay[i]!), 0);
    const soft = decay.reduce((sum, d) => sum + (share * d) / (1 + d), 0);
    // everything but the air is straight in p: Newton on the air alone settles in a few turns
    let next = this.p;
    // between these it lies: a vessel bends the course so that a straight guess may jump over it and back
    let [low, high] = [-0.5 * STANDARD_ATMOSPHERE, Infinity];
    for (let turn = 0; turn < TURNS; turn++) {
      const value =
        this.c * (next - s.perKelvin * warm) +
        this.airVolume(next) +
        rest +
        soft * next -
        this.water -
        dt * (kIn * (s.supply - next) - lost(next));
      if (value > 0) high = next;
      else low = next;
      const out = kOut + (next > hides.opens ? leak : 0);
      const slope = this.c + this.gasGives(next) + soft + dt * (kIn + out);
      const straight = next - value / slope;
      const inside = straight > low && straight < high;
      const move = inside || high === Infinity ? Math.max(low, straight) - next : (low + high) / 2 - next;
      next += move;
      if (Math.abs(move) < 0.01) break;
    }
    next = Math.max(0, next);
    TIMES.forEach((_, i) => {
      elements[i] = (elements[i]! + decay[i]! * share * next) / (1 + decay[i]!);
    });
    this.water = next > 0 ? this.water + dt * (kIn * (s.supply - next) - lost(next)) : this.held(0, warm);
    this.p = next;
    this.follow();
    if (s.surface > 0)
      this.level += ((this.drawing(to) ? 0.0002 : 0) - hides.drain) * (dt / s.surface) * 1000;
  }
  advance(to: number): void {
    while (this.time < to) {
      const fine =
        (this.time - this.last) / 1000 < FINE_FOR_S ||
        this.drawing(this.time) ||
        this.drawing(this.time + COARSE_S * 1000);
      const dt = Math.min(fine ? FINE_S : COARSE_S, (to - this.time) / 1000);
      this.step(dt, this.time + dt * 1000);
      this.time = Math.min(to, this.time + dt * 1000);
    }
  }
  act(action: LiquidAction): void {
    this.last = this.time;
    this.does(action);
    this.follow();
  }
  private does(action: LiquidAction): void {
    switch (action.act) {
      case 'pump':
        this.strokes += action.strokes;
        this.water += action.strokes * this.s.stroke;
        break;
      case 'bleed':
        this.bleeding = action.open;
        break;
      case 'air-out':
        this.airOf(this.air * (1 - AIR_OUT));
        break;
      case 'supply':
        this.supply = action.open;
        break;
      case 'tap':
        this.tap = action.open;
        break;
      case 'fill':
        this.level = action.millimetres;
        this.filled = this.time;
        break;
      case 'gauge':
        this.connected = action.connected;
        break;
      case 'zero':
        // takes away what the gauge shows now: under pressure it hides the pressure
        this.zeroed = -this.needle;
        break;
      case 'tap-gauge':
        this.needle = this.connected ? this.p : 0;
        break;
      case 'truth':
        this.changed(action.change);
        break;
      case 'valve':
        this.turned(action.id, action.open);
        break;
      case 'reseat':
        this.reseated(action.end);
        break;
      case 'mend':
        this.mended(action.place);
        break;
      default:
        this.said.push(
          poolSays(
            this.s,
            this.hides,
            { pressure: this.p, plug: this.plug, connected: this.connected },
            action,
            this.listened++,
          ),
        );
    }
  }
  /** What goes out, or comes in, is air; water takes its place at the pressure that stands. */
  private airOf(next: number): void {
    this.water -= this.airVolume(this.p);
    this.air = next;
    this.water += this.airVolume(this.p);
  }
  private changed(change: Partial<LiquidTruth>): void {
    this.hides = { ...this.hides, ...change };
    if (change.air !== undefined) this.airOf(change.air);
    if (change.slips !== undefined) this.slips = change.slips;
    if (change.weep && this.plug === 'holds') this.plug = 'weeps';
  }
  /** A valve is turned: what it parts keeps what is in it, what it joins shares what both hold. */
  private turned(key: string, open: boolean): void {
    if (open) this.closed.delete(key);
    else this.closed.add(key);
    if (open) this.shut.delete(key);
    else this.shut.add(key);
    const next = reachedFrom(this.parted, this.shut);
    const { cells } = this.parted;
    const whole = this.share;
    cells.forEach(({ share }, i) => {
      if (next.has(i) || !this.reached.has(i)) return;
      const part = share / whole;
      this.kept.set(i, {
        water: this.water * part,
        air: this.air * part,
        elements: this.elements.map((e) => e * part),
        since: this.time,
      });
    });
    const left =
      cells.reduce((sum, c, i) => sum + (next.has(i) && this.reached.has(i) ? c.share : 0), 0) / whole;
    this.water *= left;
    this.air *= left;
    this.elements.forEach((e, i) => (this.elements[i] = e * left));
    for (const i of next) {
      const had = this.kept.get(i);
      if (!had) continue;
      this.water += had.water - this.lostBehind(i, had);
      this.air += had.air;
      had.elements.forEach((e, k) => (this.elements[k]! += e));
      this.kept.delete(i);
    }
    this.reached = next;
    this.c = this.s.stiffness * this.share;
    // both sides come to one pressure at once
    this.step(1e-3, this.time);
  }
  /** m3 that a part lost through its leak while it was kept; its air is left out of it. */
  private lostBehind(cell: number, { water, air, elements, since }: Kept): number {
    if (cell !== this.leaksIn || !(this.hides.leak > 0)) return 0;
    const c = this.s.stiffness * this.parted.cells[cell]!.share;
    const over = Math.max(0, (water - air - elements.reduce((a, e) => a + e, 0)) / c - this.hides.opens);
    return c * over * -Math.expm1((-this.hides.leak * (this.time - since)) / 1000 / c);
  }
  /** Own kit is coupled anew; what else leaks is cut and made again. */
  private mended(place: string): void {
    const own = place === 'kit';
    // whoever makes again what does not leak mends nothing
    const there = !this.hides.at || place === 'pipework' || place === this.hides.at;
    this.hides = { ...this.hides, ...(own ? { kit: 0 } : there ? { leak: 0 } : {}) };
    this.said.push(`${own ? 'Own kit' : (this.s.places?.[place] ?? place)}: made again.`);
  }
  private reseated(end: string): void {
    const name = this.s.pool?.ends.find((e) => e.id === end)?.name ?? end;
    const pressed = this.p >= this.s.step * 5;
    this.said.push(
      pressed ? `${name}: it cannot be seated under pressure. Release first.` : `${name}: plug seated anew.`,
    );
    // seated anew without pressure, by its right hand: it holds from then on
    if (pressed || end !== this.s.pool?.bad) return;
    this.plug = 'holds';
    this.slips = 0;
  }
  display(): number {
    const noise = this.s.noise * normal(this.s.seed, Math.floor(this.time / 500));
    return Math.round((this.needle + this.zeroed + noise) / this.s.step);
  }
  flow(): undefined {
    return undefined;
  }
  probe(): number {
    return Math.round(BEGINS + 10 * this.warmthAt(this.time));
  }
  /** A filled drain bounces while air leaves its vents. */
  private get mark(): number {
    return this.s.surface > 0 ? this.level + bounceAt((this.time - this.filled) / 1000) : this.level;
  }
  view(): LiquidView {
    const { s, supply, bleeding, tap, connected, strokes, closed, said } = this;
    return {
      kind: 'liquid',
      supply,
      bleeding,
      tap,
      connected,
      closed: [...closed],
      strokes,
      stroke: Math.round(s.stroke * 1e6),
      level: Math.round(this.mark),
      drain: s.surface > 0,
      pool: s.pool !== undefined,
      said: [...said],
    };
  }
  truth(): TruthNow {
    const drain = this.s.surface > 0;
    return {
      steps: drain ? this.level : this.p / this.s.step,
      warmth: this.warmthAt(this.time),
      leaking: drain
        ? this.hides.drain
        : Math.max(0, this.p - this.hides.opens) * this.leak + this.p * this.kit,
    };
  }
}
