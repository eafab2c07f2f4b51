/**
 * A simulated refrigerant circuit: nitrogen let in and out, warmth of room and sun, a leak; or pumped empty, with moisture and a leak
 * that come back each in its own way. A pure function of what it is, what was done, and the time. Source: laws of small leaks; second
 * virial coefficient of nitrogen
 */
import { nitrogenAt } from '@/core/medium/refrigerant';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { normal, pickOf, uniform } from './noise';
import { behind, type Parted, reachedFrom, shareOf, WHOLE } from './parted';
import type { TruthNow, World } from './world';

export const CIRCUIT_FAULTS = {
  none: 'Sound circuit',
  leak: 'A brazed joint leaks',
  moisture: 'Water inside',
  solenoid: 'A solenoid valve stays shut, a leak behind it',
  sun: 'Sun on the pipe',
  'wrong-gas': 'Another gas in the cylinder',
} as const;
export type CircuitFault = keyof typeof CIRCUIT_FAULTS;
export interface SimulatedCircuit {
  readonly kind: 'circuit';
  readonly seed: number;
  readonly truth: CircuitTruth;
  /** Read absolutely: it is evacuated here. */
  readonly vacuum: boolean;
  /** What the regulator gives, Pa gauge. */
  readonly set: number;
  /** Nitrogen that the test before left in, Pa gauge. */
  readonly left: number;
  /** Solenoid valves, by their id, and joints that can be looked at, by theirs. */
  readonly solenoids: readonly string[];
  readonly places: readonly string[];
  /** What its valves part; absent: nothing inside parts it. */
  readonly parted?: Parted;
  /** The part of it in which each place lies. */
  readonly lies?: Readonly<Record<string, number>>;
  /** Valves inside that stand shut at the beginning, by their key. */
  readonly shut?: readonly string[];
  /** gauge display step, Pa */ readonly step: number;
  /** standard deviation of the gauge's noise, Pa */ readonly noise: number;
  readonly began: number;
}
export type CircuitAction =
  | { readonly at: number; readonly act: 'label' }
  | { readonly at: number; readonly act: 'cylinder'; readonly open: boolean }
  | { readonly at: number; readonly act: 'vent'; readonly open: boolean }
  | { readonly at: number; readonly act: 'vacuum-pump'; readonly on: boolean }
  | { readonly at: number; readonly act: 'solenoid'; readonly id: string }
  | { readonly at: number; readonly act: 'valve'; readonly id: string; readonly open: boolean }
  | { readonly at: number; readonly act: 'fluid'; readonly place: string }
  | { readonly at: number; readonly act: 'thermometer'; readonly place: 'pipe' | 'room' }
  | { readonly at: number; readonly act: 'gauge'; readonly connected: boolean }
  | { readonly at: number; readonly act: 'zero' }
  | { readonly at: number; readonly act: 'truth'; readonly change: Partial<CircuitTruth> };
/** What a person at a circuit can see. */
export interface CircuitView {
  readonly kind: 'circuit';
  readonly vacuum: boolean;
  readonly places: readonly string[];
  readonly cylinder: boolean;
  readonly venting: boolean;
  readonly pumping: boolean;
  readonly connected: boolean;
  /** Solenoid valves that stand open, and other valves inside that stand shut, by their key. */
  readonly open: readonly string[];
  readonly closed: readonly string[];
  /** What was read, seen and heard, newest last. */ readonly said: readonly string[];
}
/** Steps up to which the stand-in's own gauge shows: 60 bar, and 2500 Pa of a vacuum. */
const MOST = { pressed: 6000, vacuum: 2500 } as const;

/** °C of the room when it begins; how far it sinks towards night, and in how long. */
const ROOM = 19;
const SINKS = 2.5;
const SINKS_S = 6 * 3600;
/** What the sun adds to a pipe it reaches, and in how long. */
const SUN = 7;
const SUN_S = 1500;
/** Fast enough to raise a stage in seconds, slow enough to stop in time. Pa/s and s */
const INFLOW = 40_000;
const VENT_S = 15;
const PUMP_S = 45;
/** The pump's own end, and what water keeps it up at, Pa. */
const PUMP_END = 18;
/** A vacuum is broken to so much above the atmosphere, Pa; what the nitrogen leaves of the water; how slowly pumping dries, s. */
const BREAK_MOST = 30_000;
const TAKEN_UP = 0.35;
const DRIES_S = 14_400;
/** A fill is warmer than the pipe for a while, K at most and s. */
const FILL_WARMTH = 4;
const FILL_S = 150;
const FILL_SHARE = 6;
/** Pa gauge from which a leak shows in leak fluid. */
const BUBBLES_FROM = 40_000;

export interface CircuitTruth {
  /** Part of the gauge pressure that is lost in a second. */ readonly leak: number;
  /** Air that comes into the vacuum, Pa/s. */ readonly letsIn: number;
  /** Joint at which it leaks, by its name; null where nobody would find it. */ readonly place: string | null;
  /** A solenoid valve that stays shut until it is knocked, by its id. */
  readonly stuck: string | null;
  /** What the water inside would bring the vacuum up by, Pa, and in what time, s. */
  readonly moisture: number;
  readonly moistureS: number;
  /** K that the sun adds to the pipe it reaches. */ readonly sun: number;
  /** What stands on the cylinder. */ readonly gas: string;
  /** What is in it is no gas to be let in. */ readonly wrongGas: boolean;
  readonly gauge: { /** Pa by which it is off zero */ readonly zero: number };
  /** Own hose or port, part of the gauge pressure in a second. */ readonly kit: number;
}
/** Sizes a named fault: behind a solenoid valve that stays shut lies what leaks, where something lies behind one. */
export function circuitTruth(
  fault: CircuitFault,
  s: Pick<SimulatedCircuit, 'seed' | 'solenoids' | 'places' | 'parted' | 'lies'>,
): CircuitTruth {
  const size = (least: number, most: number, n: number) => least + (most - least) * uniform(s.seed, n);
  const { parted = WHOLE, lies = {} } = s;
  const hiding = parted.valves.flatMap((v) => {
    const there = s.places.filter((p) => lies[p] !== undefined && lies[p] === behind(parted, v));
    return s.solenoids.includes(v.key) && there.length ? [{ key: v.key, there }] : [];
  });
  const stuck = fault === 'solenoid' ? hiding[0] : undefined;
  const place = pickOf(stuck?.there ?? s.places, uniform(s.seed, 7)) ?? null;
  const leaks = fault === 'leak' || fault === 'solenoid';
  return {
    leak: leaks ? size(1.5e-5, 4e-5, 1) : 0,
    letsIn: leaks ? size(0.15, 0.4, 2) : 0,
    place: leaks ? place : null,
    stuck: fault === 'solenoid' ? (stuck?.key ?? s.solenoids[0] ?? null) : null,
    moisture: fault === 'moisture' ? size(160, 380, 3) : size(6, 14, 3),
    moistureS: size(120, 260, 4),
    sun: fault === 'sun' ? SUN : 0,
    gas: fault === 'wrong-gas' ? 'OXYGEN, medical' : 'NITROGEN 5.0, oxygen-free, dry',
    wrongGas: fault === 'wrong-gas',
    gauge: { zero: 0 },
    kit: 0,
  };
}
const roomAt = (s: SimulatedCircuit, at: number): number =>
  ROOM - SINKS * (1 - Math.exp(-(at - s.began) / 1000 / SINKS_S));
const sunAt = (s: SimulatedCircuit, sun: number, at: number): number =>
  sun * (1 - Math.exp(-Math.max(0, at - s.began) / 1000 / SUN_S));

/** What a part holds that no valve lets out. */
interface Kept {
  /** Absolute, at the temperature of the beginning, Pa. */ readonly pressure: number;
  readonly water: number;
  /** ms */ readonly since: number;
}
/** A circuit while what was done to it is gone through. */
export class CircuitWorld implements World<CircuitAction, CircuitView> {
  private hides: CircuitTruth;
  private readonly reference;
  /** Nitrogen, as the pressure it would have at the temperature of the beginning; absolute, Pa. */
  private nitrogen;
  private vacuum: number | null = null;
  private water;
  private shutAt;
  private base = 0;
  private time;
  private warm;
  private knocks = 0;
  private cylinder = false;
  private venting = false;
  private pumping = false;
  private connected = false;
  private zeroError = 0;
  /** Solenoid valves that stand open, and every valve that stands shut. */
  private readonly open = new Set<string>();
  private readonly shut: Set<string>;
  private readonly parted: Parted;
  private reached: ReadonlySet<number>;
  private readonly kept = new Map<number, Kept>();
  private readonly said: string[] = [];
  constructor(private readonly s: SimulatedCircuit) {
    this.hides = s.truth;
    this.zeroError = s.truth.gauge.zero;
    this.nitrogen = (s.vacuum ? 0 : s.left) + STANDARD_ATMOSPHERE;
    this.water = this.hides.moisture;
    this.shutAt = s.began;
    this.time = s.began;
    this.warm = { k: 0, at: s.began };
    this.reference = this.kelvin(s.began);
    this.parted = s.parted ?? WHOLE;
    this.shut = new Set([...s.solenoids, ...(s.shut ?? [])]);
    this.reached = reachedFrom(this.parted, this.shut);
    const { nitrogen: pressure, water } = this;
    this.parted.cells.forEach((_, i) => {
      if (!this.reached.has(i)) this.kept.set(i, { pressure, water, since: s.began });
    });
  }
  private kelvin(t: number): number {
    return roomAt(this.s, t) + sunAt(this.s, this.hides.sun, t) / 2 + this.warmAt(t) + 273.15;
  }
  private warmAt = (t: number) => this.warm.k * Math.exp(-(t - this.warm.at) / 1000 / FILL_S);
  /** Which part of the whole stands open to the gauge: what comes in or goes out shows by so much more in it. */
  private get share(): number {
    return shareOf(this.parted, this.reached);
  }
  /** The cell in which a place lies. */
  private cellOf(place: string | null): number {
    return this.s.lies?.[place ?? ''] ?? this.parted.point;
  }
  /** Of what leaks: what shows of it in a part of so much of the whole, where it lies in it. */
  private leaking(cells: ReadonlySet<number>, share: number): { out: number; in: number } {
    const { leak, letsIn, place } = this.hides;
    const there = cells.has(this.cellOf(place)) ? 1 / share : 0;
    return { out: leak * there, in: letsIn * there };
  }
  private pressureAt(t: number): number {
    if (this.vacuum === null) return nitrogenAt(this.nitrogen, this.reference, this.kelvin(t));
    const seconds = (t - this.shutAt) / 1000;
    const air = this.leaking(this.reached, this.share).in * seconds;
    const vapour = this.water * (1 - Math.exp(-seconds / this.hides.moistureS));
    return Math.min(STANDARD_ATMOSPHERE, this.base + air + vapour);
  }
  advance(to: number): void {
    const dt = (to - this.time) / 1000;
    if (dt <= 0) return;
    if (this.pumping) this.pumped(dt, to);
    else if (this.vacuum !== null && this.cylinder) this.broken(dt);
    else if (this.vacuum === null) this.pressed(dt, to);
    this.time = to;
  }
  /** While it is pumped leak and water keep it up by what they give in a pump's own time. */
  private pumped(dt: number, to: number): void {
    const end =
      PUMP_END +
      this.hides.letsIn * (this.reached.has(this.cellOf(this.hides.place)) ? 60 : 0) +
      Math.min(45, this.water / 12);
    this.vacuum = end + ((this.vacuum ?? this.nitrogen) - end) * Math.exp(-dt / PUMP_S / this.share);
    this.water *= Math.exp(-dt / DRIES_S);
    this.shutAt = to;
    this.base = this.vacuum;
  }
  /** Broken with nitrogen, which takes up most of the water. */
  private broken(dt: number): void {
    this.vacuum = null;
    this.nitrogen = STANDARD_ATMOSPHERE + Math.min((INFLOW * dt) / this.share, BREAK_MOST);
    this.water *= TAKEN_UP;
  }
  private pressed(dt: number, to: number): void {
    const gauge = Math.max(0, this.nitrogen - STANDARD_ATMOSPHERE);
    const { share } = this;
    const lost = this.leaking(this.reached, share).out + (this.connected ? this.hides.kit : 0) / share;
    let next = gauge * Math.exp(-lost * dt);
    if (this.venting) next *= Math.exp(-dt / VENT_S / share);
    const most = this.s.vacuum ? BREAK_MOST : this.s.set;
    if (this.cylinder && next < most) {
      const raised = Math.min(most, next + (INFLOW * dt) / share);
      const warmer = ((raised - next) / (raised + STANDARD_ATMOSPHERE)) * FILL_SHARE;
      this.warm = { k: Math.min(FILL_WARMTH, this.warmAt(to) + warmer), at: to };
      next = raised;
    }
    this.nitrogen = next + STANDARD_ATMOSPHERE;
  }
  act(action: CircuitAction): void {
    const t = action.at;
    switch (action.act) {
      case 'label':
        this.said.push(`The label says: ${this.hides.gas}`);
        break;
      case 'cylinder':
        this.cylinder = action.open;
        if (action.open && this.hides.wrongGas)
          this.said.push(
            'You have opened a cylinder that is not nitrogen. In a real circuit with oil it could have exploded.',
          );
        break;
      case 'vent':
        this.venting = action.open;
        break;
      case 'vacuum-pump':
        if (action.on && this.pressureAt(t) > STANDARD_ATMOSPHERE + 5_000)
          this.said.push('There is still pressure in it: vent first.');
        else this.pumping = action.on;
        break;
      case 'solenoid':
        this.said.push(this.magnet(action.id));
        this.joins();
        break;
      case 'valve':
        if (action.open) this.shut.delete(action.id);
        else this.shut.add(action.id);
        this.joins();
        break;
      case 'fluid': {
        const bubbles =
          action.place === this.hides.place && this.standsIn(this.cellOf(action.place)) > BUBBLES_FROM;
        this.said.push(`${action.place}: ${bubbles ? 'large growing bubbles' : 'no bubbles'}`);
        break;
      }
      case 'thermometer': {
        const celsius = roomAt(this.s, t) + (action.place === 'pipe' ? sunAt(this.s, this.hides.sun, t) : 0);
        this.said.push(`${action.place}: ${celsius.toFixed(1)} °C`);
        break;
      }
      case 'truth':
        // what came before, behind a valve too, was by what was so until now
        for (const cell of [...this.kept.keys()]) this.kept.set(cell, this.aged(cell));
        this.hides = { ...this.hides, ...action.change };
        break;
      case 'gauge':
        this.connected = action.connected;
        break;
      case 'zero':
        // zeroed under pressure it hides the pressure it was zeroed on
        this.zeroError = this.connected && !this.s.vacuum ? -(this.pressureAt(t) - STANDARD_ATMOSPHERE) : 0;
        break;
    }
  }
  /** Valves as they stand now: what they part keeps what is in it, what they join comes to one pressure. */
  private joins(): void {
    const next = reachedFrom(this.parted, this.shut);
    const { cells } = this.parted;
    const now: Kept = { pressure: this.gasNow(), water: this.waterNow(), since: this.time };
    const same = next.size === this.reached.size && [...next].every((i) => this.reached.has(i));
    if (same) return;
    for (const i of this.reached) if (!next.has(i)) this.kept.set(i, now);
    let [pressure, water] = [0, 0];
    const whole = shareOf(this.parted, next);
    for (const i of next) {
      const had = this.reached.has(i) ? now : this.aged(i);
      const part = cells[i]!.share / whole;
      pressure += had.pressure * part;
      water += had.water * part;
      this.kept.delete(i);
    }
    this.reached = next;
    this.water = water;
    this.vacuum = null;
    this.nitrogen = pressure;
    if (pressure >= STANDARD_ATMOSPHERE - 1) return;
    this.vacuum = this.base = pressure;
    this.shutAt = this.time;
  }
  /** Of the gas in what stands open, Pa absolute at the temperature of the beginning. */
  private gasNow(): number {
    return this.vacuum === null ? this.nitrogen : this.pressureAt(this.time);
  }
  private waterNow(): number {
    if (this.vacuum === null) return this.water;
    return this.water * Math.exp(-(this.time - this.shutAt) / 1000 / this.hides.moistureS);
  }
  /** What was kept, by now. */
  private aged(cell: number): Kept {
    const { pressure, water, since } = this.kept.get(cell)!;
    const seconds = (this.time - since) / 1000;
    const leaks = this.leaking(new Set([cell]), this.parted.cells[cell]!.share);
    const gauge = pressure - STANDARD_ATMOSPHERE;
    if (gauge >= 0)
      return {
        pressure: STANDARD_ATMOSPHERE + gauge * Math.exp(-leaks.out * seconds),
        water,
        since: this.time,
      };
    const dry = Math.exp(-seconds / this.hides.moistureS);
    const risen = pressure + leaks.in * seconds + water * (1 - dry);
    return { pressure: Math.min(STANDARD_ATMOSPHERE, risen), water: water * dry, since: this.time };
  }
  /** Pa gauge in a part, open to the gauge or not. */
  private standsIn(cell: number): number {
    const here = this.reached.has(cell);
    const pressure = here ? this.pressureAt(this.time) : this.aged(cell).pressure;
    return pressure - STANDARD_ATMOSPHERE;
  }
  private magnet(id: string): string {
    if (this.open.delete(id)) {
      this.shut.add(id);
      return 'A click: it is shut';
    }
    if (id === this.hides.stuck && this.knocks++ === 0)
      return 'The magnet hums, nothing moves. Knock, and try once more.';
    this.open.add(id);
    this.shut.delete(id);
    return 'A click: it is open';
  }
  private steps(): number {
    const pressure = this.pressureAt(this.time);
    return (this.s.vacuum ? pressure : pressure - STANDARD_ATMOSPHERE) / this.s.step;
  }
  /** Nitrogen above the atmosphere, a vacuum from nothing; open to air the vacuum gauge is over its range. */
  display(): number {
    const { vacuum, step, noise, seed } = this.s;
    const open = vacuum ? STANDARD_ATMOSPHERE / step : 0;
    const shown = (this.connected ? this.steps() : open) + (vacuum ? 0 : this.zeroError / step);
    const scatter = (noise * normal(seed, Math.floor(this.time / 500))) / step;
    return Math.min(vacuum ? MOST.vacuum : MOST.pressed, Math.max(0, Math.round(shown + scatter)));
  }
  flow(): undefined {
    return undefined;
  }
  /** Its thermometer is put on by hand. */
  probe(): undefined {
    return undefined;
  }
  view(): CircuitView {
    const { cylinder, venting, pumping, connected, open, said } = this;
    const { vacuum, places } = this.s;
    return {
      kind: 'circuit',
      vacuum,
      places,
      cylinder,
      venting,
      pumping,
      connected,
      open: [...open],
      closed: [...this.shut].filter((key) => !this.s.solenoids.includes(key)),
      said: [...said],
    };
  }
  truth(): TruthNow {
    const pipe = roomAt(this.s, this.time) + sunAt(this.s, this.hides.sun, this.time);
    return { steps: this.steps(), warmth: pipe - ROOM, leaking: null };
  }
}
