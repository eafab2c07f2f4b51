/**
 * Sections whose truth is known, in another physics than the product's own simulation: gas by moles with a power-law leak
 * between laminar and orifice, water by a balance of volumes with an exact gas bubble and creeping walls, a level by its
 * surface. Weather, room and barometer wander by themselves.
 */
import type { Section } from '@/core/conduct/conduct';

export type Random = () => number;
/** Mulberry32: one number gives the whole world. */
export function seeded(seed: number): Random {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
export const normal = (r: Random): number => Math.sqrt(-2 * Math.log(1 - r())) * Math.cos(2 * Math.PI * r());
export const between = (r: Random, a: number, b: number): number => a + (b - a) * r();
/** Log-uniform. */
export const spread = (r: Random, a: number, b: number): number => a * (b / a) ** r();

const ATMOSPHERE = 101_325;
const LITRE_HOUR = 1e-3 / 3600;

/** Room, weather and barometer: each drifts back to its mean. */
class Air {
  private room = 0;
  private drift: number;
  private weather: number;
  private slope: number;
  constructor(
    private readonly r: Random,
    /** K a minute by which the wall usually drifts */ private readonly perMinute: number,
    readonly base = 15,
  ) {
    this.weather = 1000 + 20 * (r() - 0.5);
    this.slope = (0.7 * normal(r)) / 3600;
    this.drift = perMinute * normal(r);
  }
  pass(seconds: number): void {
    // a room does not jitter: its drift wanders, and the room comes back to its mean over hours
    const keep = Math.exp(-seconds / 900);
    this.drift = this.drift * keep + this.perMinute * Math.sqrt(1 - keep * keep) * normal(this.r);
    this.room += (this.drift / 60 - this.room / 7200) * seconds;
    this.weather += this.slope * seconds + 0.02 * Math.sqrt(seconds / 60) * normal(this.r);
  }
  get wall(): number {
    return this.base + this.room;
  }
  get pascal(): number {
    return this.weather * 100;
  }
}

export interface GasTruth {
  /** m3 */ volume: number;
  /** l/h at `at` Pa gauge, atmospheric conditions */ leak: number;
  at: number;
  /** 0.5 orifice to 1 laminar */ exponent: number;
  /** l/h through appliances at the same pressure */ appliances: number;
  /** l/h through the closed valve at full difference */ letBy: number;
  supply: number;
  /** what the source can give, l/h */ source: number;
  /** K by which gas just put in differs from the wall */ warm: number;
  /** K a minute by which the wall usually drifts */ perMinute: number;
}
/** A closed gas section. */
export class GasSection implements Section {
  private moles: number; // P V / T
  private gasOff = 0;
  private open = false;
  private isolated = false;
  private readonly air: Air;
  private readonly tau: number;
  constructor(
    private readonly t: GasTruth,
    private readonly r: Random,
  ) {
    this.air = new Air(r, t.perMinute);
    this.tau = between(r, 5, 40);
    this.moles = (this.air.pascal * t.volume) / this.kelvin;
  }
  private get kelvin(): number {
    return this.air.wall + 273.15 + this.gasOff;
  }
  private flow(gauge: number): number {
    if (gauge <= 0) return 0;
    const a = this.air.pascal;
    const squares = (p: number) => (p + a) ** 2 - a ** 2;
    const share = (squares(gauge) / squares(this.t.at)) ** this.t.exponent;
    return (this.t.leak + (this.isolated ? 0 : this.t.appliances)) * LITRE_HOUR * share;
  }
  now(): number {
    return (this.moles * this.kelvin) / this.t.volume - this.air.pascal;
  }
  private set(gauge: number): void {
    this.moles = ((gauge + this.air.pascal) * this.t.volume) / this.kelvin;
  }
  pass(seconds: number): void {
    let left = seconds;
    while (left > 1e-9) {
      const p = this.now();
      const out = this.flow(p);
      const inflow = this.open
        ? 0
        : this.t.letBy * LITRE_HOUR * Math.max(0, (this.t.supply - p) / this.t.supply);
      const change = (Math.abs(out - inflow) * this.air.pascal) / this.t.volume;
      const dt = Math.min(left, 5, change > 0 ? Math.max(0.02, (0.02 * (Math.abs(p) + 20)) / change) : 5);
      this.air.pass(dt);
      this.gasOff *= Math.exp(-dt / this.tau);
      this.moles -= ((out - inflow) * this.air.pascal * dt) / this.kelvin;
      if (this.open) this.set(this.sourced(this.t.supply));
      if (this.now() < 0) this.set(0);
      left -= dt;
    }
  }
  /** As much of a target as the source can hold against the leak. */
  private sourced(target: number): number {
    if (this.flow(target) <= this.t.source * LITRE_HOUR) return target;
    let [low, high] = [0, target];
    for (let i = 0; i < 50; i++) {
      const mid = (low + high) / 2;
      if (this.flow(mid) > this.t.source * LITRE_HOUR) high = mid;
      else low = mid;
    }
    return low;
  }
  bring(target: number): number {
    const before = this.now();
    const reached = target <= before ? target : this.sourced(target);
    const moved = Math.abs(reached - before) / (Math.abs(reached) + 1);
    this.gasOff += (target > before ? 1 : -0.5) * this.t.warm * Math.min(1, moved) * Math.abs(normal(this.r));
    this.set(reached);
    return 0;
  }
  drainTo(target: number): number {
    this.bring(target);
    return 0;
  }
  source(open: boolean): void {
    this.open = open;
    if (open) this.set(this.sourced(this.t.supply));
  }
  isolate(isolated: boolean): void {
    this.isolated = isolated;
  }
  celsius(): number {
    return this.air.wall + 0.04 * normal(this.r);
  }
  hectopascals(): number {
    return this.air.pascal / 100 + 0.01 * normal(this.r);
  }
  valvePasses(): boolean {
    return this.t.letBy > 0.5;
  }
}

export interface WaterTruth {
  /** m3 of water */ volume: number;
  /** m3/Pa of water and elastic wall */ stiffness: number;
  /** linear expansion of the wall, 1/K */ alpha: number;
  /** parts of the elastic wall that creep, with their times, s */ creep: readonly (readonly [
    number,
    number,
  ])[];
  /** m3 at atmospheric pressure */ air: number;
  leak: number;
  at: number;
  exponent: number;
  letBy: number;
  supply: number;
  source: number;
  /** K a minute by which the wall usually drifts */ perMinute: number;
}
/** Density of water by a ratio of polynomials, another fit than the product's. */
const density = (c: number): number =>
  1000 * (1 - ((c + 288.9414) * (c - 3.9863) ** 2) / (508929.2 * (c + 68.12963)));
/** A section full of water. */
export class WaterSection implements Section {
  private put = 0;
  private readonly crept: number[];
  private readonly air: Air;
  private readonly zero: number;
  private water: number;
  private open = false;
  private p = 0;
  constructor(
    private readonly t: WaterTruth,
    private readonly r: Random,
  ) {
    this.air = new Air(r, t.perMinute);
    this.crept = t.creep.map(() => 0);
    this.water = this.air.wall;
    this.zero = this.water;
  }
  /** Room that warmth takes or gives, m3. */
  private get warmth(): number {
    const water = this.t.volume * (density(this.zero) / density(this.water) - 1);
    return water - 3 * this.t.alpha * this.t.volume * (this.water - this.zero);
  }
  private held(p: number): number {
    return this.t.stiffness * p + this.t.air * (1 - ATMOSPHERE / (ATMOSPHERE + p));
  }
  private solve(): void {
    const room = this.put + this.warmth - this.crept.reduce((s, x) => s + x, 0);
    if (room <= 0) {
      this.p = 0;
      return;
    }
    let [low, high] = [0, room / this.t.stiffness];
    for (let i = 0; i < 60; i++) {
      const mid = (low + high) / 2;
      if (this.held(mid) > room) high = mid;
      else low = mid;
    }
    this.p = low;
  }
  private flow(p: number): number {
    return p <= 0 ? 0 : this.t.leak * LITRE_HOUR * (p / this.t.at) ** this.t.exponent;
  }
  pass(seconds: number): void {
    let left = seconds;
    while (left > 1e-9) {
      const out = this.flow(this.p);
      const inflow =
        this.t.letBy * LITRE_HOUR * Math.max(0, (this.t.supply - this.p) / Math.max(1, this.t.supply));
      const soft = this.t.stiffness + this.t.air / (ATMOSPHERE + this.p);
      const dt = Math.min(left, 10, out > 0 ? Math.max(0.05, (0.02 * soft * (this.p + 1000)) / out) : 10);
      this.air.pass(dt);
      this.water += (this.air.wall - this.water) * (1 - Math.exp(-dt / 900));
      this.t.creep.forEach(([share, tau], i) => {
        this.crept[i]! += (share * this.t.stiffness * this.p - this.crept[i]!) * (1 - Math.exp(-dt / tau));
      });
      this.put += (inflow - out) * dt;
      this.solve();
      if (this.open) this.level(this.t.supply);
      left -= dt;
    }
  }
  private level(target: number): number {
    const before = this.put;
    this.put = this.held(target) - this.warmth + this.crept.reduce((s, x) => s + x, 0);
    this.solve();
    return this.put - before;
  }
  now(): number {
    return this.p;
  }
  bring(target: number): number {
    let reach = target;
    while (reach > 100 && this.flow(reach) > this.t.source * LITRE_HOUR) reach *= 0.9;
    const added = this.level(Math.max(0, reach < target ? Math.min(reach, target) : target));
    return Math.max(0, added) * (1 + 0.005 * normal(this.r));
  }
  drainTo(target: number): number {
    return Math.abs(this.level(target)) * (1 + 0.005 * normal(this.r));
  }
  source(open: boolean): void {
    this.open = open;
    if (open) this.level(this.t.supply);
  }
  isolate(): void {}
  celsius(): number {
    return this.water + 0.04 * normal(this.r);
  }
  hectopascals(): number {
    return this.air.pascal / 100;
  }
  valvePasses(): boolean {
    return false;
  }
}

export interface LevelTruth {
  /** m2 of all free surfaces */ surface: number;
  /** l/h at the level */ leak: number;
  /** m from the level down to the leak */ head: number;
  /** m by which the level still bounces */ bounce: number;
}
/** A drain filled to a level. */
export class LevelSection implements Section {
  private h = -1;
  private bounced = 0;
  constructor(
    private readonly t: LevelTruth,
    private readonly r: Random,
  ) {}
  pass(seconds: number): void {
    let left = seconds;
    while (left > 1e-9) {
      const dt = Math.min(left, 5);
      const head = Math.max(0, this.h + this.t.head);
      this.h -= (this.t.leak * LITRE_HOUR * Math.sqrt(head / this.t.head) * dt) / this.t.surface;
      if (this.bounced > 0) {
        const gone = this.bounced * (1 - Math.exp(-dt / 90));
        this.h -= gone;
        this.bounced -= gone;
      }
      this.h = Math.max(this.h, -this.t.head);
      left -= dt;
    }
  }
  now(): number {
    return this.h;
  }
  bring(target: number): number {
    const added = (target - this.h) * this.t.surface;
    if (target > this.h + 0.05) this.bounced = this.t.bounce;
    this.h = target;
    return Math.max(0, added);
  }
  drainTo(target: number): number {
    return this.bring(target);
  }
  source(): void {}
  isolate(): void {}
  celsius(): number {
    return 12 + normal(this.r);
  }
  hectopascals(): number {
    return 1013;
  }
  valvePasses(): boolean {
    return false;
  }
}
