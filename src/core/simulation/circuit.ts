/**
 * A simulated refrigerant circuit: nitrogen let in and out, warmth of room and sun, a leak; or pumped empty, with moisture and a leak
 * that come back each in its own way. A pure function of what it is, what was done, and the time. Source: laws of small leaks; second
 * virial coefficient of nitrogen
 */
import { nitrogenAt } from '@/core/medium/refrigerant';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { normal, uniform } from './noise';
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
  readonly open: readonly string[];
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

export interface CircuitTruth {
  /** Part of the gauge pressure that is lost in a second. */ readonly leak: number;
  /** Air that comes into the vacuum, Pa/s. */ readonly letsIn: number;
  /** Joint at which it leaks, by its name; null where nobody would find it. */ readonly place: string | null;
  /** A solenoid valve that stays shut until it is knocked, by its id: what leaks lies behind it. */
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
/** Sizes a named fault. @param s seed, solenoid valves and joints of the circuit */
export function circuitTruth(
  fault: CircuitFault,
  s: Pick<SimulatedCircuit, 'seed' | 'solenoids' | 'places'>,
): CircuitTruth {
  const size = (least: number, most: number, n: number) => least + (most - least) * uniform(s.seed, n);
  const place = s.places[Math.floor(uniform(s.seed, 7) * s.places.length)] ?? null;
  const leaks = fault === 'leak' || fault === 'solenoid';
  return {
    leak: leaks ? size(1.5e-5, 4e-5, 1) : 0,
    letsIn: leaks ? size(0.15, 0.4, 2) : 0,
    place: leaks ? place : null,
    stuck: fault === 'solenoid' ? (s.solenoids[0] ?? null) : null,
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
  private readonly open = new Set<string>();
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
  }
  private kelvin(t: number): number {
    return roomAt(this.s, t) + sunAt(this.s, this.hides.sun, t) / 2 + this.warmAt(t) + 273.15;
  }
  private warmAt = (t: number) => this.warm.k * Math.exp(-(t - this.warm.at) / 1000 / FILL_S);
  /** What leaks lies behind a solenoid valve that is still shut. */
  private get hidden(): boolean {
    return this.hides.stuck !== null && !this.open.has(this.hides.stuck);
  }
  private pressureAt(t: number): number {
    if (this.vacuum === null) return nitrogenAt(this.nitrogen, this.reference, this.kelvin(t));
    const seconds = (t - this.shutAt) / 1000;
    const air = (this.hidden ? 0 : this.hides.letsIn) * seconds;
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
    const end = PUMP_END + (this.hidden ? 0 : this.hides.letsIn) * 60 + Math.min(45, this.water / 12);
    this.vacuum = end + ((this.vacuum ?? this.nitrogen) - end) * Math.exp(-dt / PUMP_S);
    this.water *= Math.exp(-dt / DRIES_S);
    this.shutAt = to;
    this.base = this.vacuum;
  }
  /** Broken with nitrogen, which takes up most of the water. */
  private broken(dt: number): void {
    this.vacuum = null;
    this.nitrogen = STANDARD_ATMOSPHERE + Math.min(INFLOW * dt, BREAK_MOST);
    this.water *= TAKEN_UP;
  }
  private pressed(dt: number, to: number): void {
    const gauge = Math.max(0, this.nitrogen - STANDARD_ATMOSPHERE);
    let next =
      gauge * Math.exp(-((this.hidden ? 0 : this.hides.leak) + (this.connected ? this.hides.kit : 0)) * dt);
    if (this.venting) next *= Math.exp(-dt / VENT_S);
    const most = this.s.vacuum ? BREAK_MOST : this.s.set;
    if (this.cylinder && next < most) {
      const raised = Math.min(most, next + INFLOW * dt);
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
        break;
      case 'fluid': {
        const pressed = this.vacuum === null && this.pressureAt(t) - STANDARD_ATMOSPHERE > 40_000;
        const bubbles = action.place === this.hides.place && pressed && !this.hidden;
        this.said.push(`${action.place}: ${bubbles ? 'large growing bubbles' : 'no bubbles'}`);
        break;
      }
      case 'thermometer': {
        const celsius = roomAt(this.s, t) + (action.place === 'pipe' ? sunAt(this.s, this.hides.sun, t) : 0);
        this.said.push(`${action.place}: ${celsius.toFixed(1)} °C`);
        break;
      }
      case 'truth':
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
  private magnet(id: string): string {
    if (this.open.delete(id)) return 'A click: it is shut';
    if (id === this.hides.stuck && this.knocks++ === 0)
      return 'The magnet hums, nothing moves. Knock, and try once more.';
    this.open.add(id);
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
      said: [...said],
    };
  }
  truth(): TruthNow {
    const pipe = roomAt(this.s, this.time) + sunAt(this.s, this.hides.sun, this.time);
    return { steps: this.steps(), warmth: pipe - ROOM, leaking: null };
  }
}
