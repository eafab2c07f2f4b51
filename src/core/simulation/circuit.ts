/**
 * A simulated refrigerant circuit: nitrogen let in and out, warmth of room and sun, a leak; or pumped empty, with moisture and a leak
 * that come back each in its own way. A pure function of what it is, what was done, and the time. Source: laws of small leaks; second
 * virial coefficient of nitrogen
 */
import { nitrogenAt } from '@/core/medium/refrigerant';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { normal, uniform } from './installation';

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
  readonly fault: CircuitFault;
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
  | { readonly at: number; readonly act: 'zero' };
export interface CircuitState {
  readonly at: number;
  /** absolute, Pa */ readonly pressure: number;
  readonly room: number;
  readonly pipe: number;
  readonly cylinder: boolean;
  readonly venting: boolean;
  readonly pumping: boolean;
  readonly connected: boolean;
  readonly zeroError: number;
  readonly open: readonly string[];
  /** What was read, seen and heard, newest last. */ readonly said: readonly string[];
}

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

/** The hidden truth. */
export function circuitTruth(s: SimulatedCircuit) {
  const size = (least: number, most: number, n: number) => least + (most - least) * uniform(s.seed, n);
  const place = s.places[Math.floor(uniform(s.seed, 7) * s.places.length)] ?? null;
  const leaks = s.fault === 'leak' || s.fault === 'solenoid';
  return {
    /** Part of the gauge pressure that is lost in a second. */
    leak: leaks ? size(1.5e-5, 4e-5, 1) : 0,
    /** Air that comes into the vacuum, Pa/s. */
    letsIn: leaks ? size(0.15, 0.4, 2) : 0,
    place: leaks ? place : null,
    stuck: s.fault === 'solenoid' ? (s.solenoids[0] ?? null) : null,
    /** What the water inside would bring the vacuum up by, Pa, and in what time. */
    moisture: s.fault === 'moisture' ? size(160, 380, 3) : size(6, 14, 3),
    moistureS: size(120, 260, 4),
    sun: s.fault === 'sun' ? SUN : 0,
    gas: s.fault === 'wrong-gas' ? 'OXYGEN, medical' : 'NITROGEN 5.0, oxygen-free, dry',
  };
}
const roomAt = (s: SimulatedCircuit, at: number): number =>
  ROOM - SINKS * (1 - Math.exp(-(at - s.began) / 1000 / SINKS_S));
const sunAt = (s: SimulatedCircuit, sun: number, at: number): number =>
  sun * (1 - Math.exp(-Math.max(0, at - s.began) / 1000 / SUN_S));

/** A circuit while what was done to it is gone through. */
class Circuit {
  private readonly truth;
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
  cylinder = false;
  venting = false;
  pumping = false;
  connected = false;
  zeroError = 0;
  readonly open = new Set<string>();
  readonly said: string[] = [];
  constructor(private readonly s: SimulatedCircuit) {
    this.truth = circuitTruth(s);
    this.nitrogen = (s.vacuum ? 0 : s.left) + STANDARD_ATMOSPHERE;
    this.water = this.truth.moisture;
    this.shutAt = s.began;
    this.time = s.began;
    this.warm = { k: 0, at: s.began };
    this.reference = this.kelvin(s.began);
  }
  private kelvin(t: number): number {
    return roomAt(this.s, t) + sunAt(this.s, this.truth.sun, t) / 2 + this.warmAt(t) + 273.15;
  }
  private warmAt = (t: number) => this.warm.k * Math.exp(-(t - this.warm.at) / 1000 / FILL_S);
  /** What leaks lies behind a solenoid valve that is still shut. */
  private get hidden(): boolean {
    return this.truth.stuck !== null && !this.open.has(this.truth.stuck);
  }
  pressureAt(t: number): number {
    if (this.vacuum === null) return nitrogenAt(this.nitrogen, this.reference, this.kelvin(t));
    const seconds = (t - this.shutAt) / 1000;
    const air = (this.hidden ? 0 : this.truth.letsIn) * seconds;
    const vapour = this.water * (1 - Math.exp(-seconds / this.truth.moistureS));
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
    const end = PUMP_END + (this.hidden ? 0 : this.truth.letsIn) * 60 + Math.min(45, this.water / 12);
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
    let next = gauge * Math.exp(-(this.hidden ? 0 : this.truth.leak) * dt);
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
        this.said.push(`The label says: ${this.truth.gas}`);
        break;
      case 'cylinder':
        this.cylinder = action.open;
        if (action.open && this.s.fault === 'wrong-gas')
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
        const bubbles = action.place === this.truth.place && pressed && !this.hidden;
        this.said.push(`${action.place}: ${bubbles ? 'large growing bubbles' : 'no bubbles'}`);
        break;
      }
      case 'thermometer': {
        const celsius = roomAt(this.s, t) + (action.place === 'pipe' ? sunAt(this.s, this.truth.sun, t) : 0);
        this.said.push(`${action.place}: ${celsius.toFixed(1)} °C`);
        break;
      }
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
    if (id === this.truth.stuck && this.knocks++ === 0)
      return 'The magnet hums, nothing moves. Knock, and try once more.';
    this.open.add(id);
    return 'A click: it is open';
  }
}
/** The state at a moment. @param at ms; actions later than it are ignored */
export function simulateCircuit(
  s: SimulatedCircuit,
  actions: readonly CircuitAction[],
  at: number,
): CircuitState {
  const circuit = new Circuit(s);
  for (const action of [...actions].sort((x, y) => x.at - y.at)) {
    if (action.at > at) break;
    circuit.advance(action.at);
    circuit.act(action);
  }
  circuit.advance(at);
  const { cylinder, venting, pumping, connected, zeroError, said } = circuit;
  const room = roomAt(s, at);
  return {
    at,
    pressure: circuit.pressureAt(at),
    room,
    pipe: room + sunAt(s, circuitTruth(s).sun, at),
    cylinder,
    venting,
    pumping,
    connected,
    zeroError,
    open: [...circuit.open],
    said,
  };
}
/** Digits of the display: nitrogen above the atmosphere, a vacuum from nothing; open to air the vacuum gauge is over its range. */
export function displayCircuit(s: SimulatedCircuit, state: CircuitState, most: number): number {
  const noise = s.noise * normal(s.seed, Math.floor(state.at / 500));
  const seen = s.vacuum
    ? state.connected
      ? state.pressure
      : STANDARD_ATMOSPHERE
    : (state.connected ? state.pressure - STANDARD_ATMOSPHERE : 0) + state.zeroError;
  return Math.min(most, Math.max(0, Math.round((seen + noise) / s.step)));
}
