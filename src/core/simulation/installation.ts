import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';

/** Hidden faults of a simulated installation. */
export const FAULTS = {
  none: 'Sound installation',
  leak: 'A leak',
  'appliance-leak': 'A leak inside one appliance',
  'let-by': 'The supply valve passes',
  both: 'The supply valve passes and a leak, in balance',
  warming: 'The room warms up',
  'off-zero': 'The gauge is off zero',
} as const;
export type Fault = keyof typeof FAULTS;

/** What a simulated installation is made of. Conductances in m3/s of atmospheric gas per Pa of gauge pressure. */
export interface SimulatedInstallation {
  readonly seed: number;
  readonly fault: Fault;
  /** m3 */ readonly volume: number;
  /** lock-up pressure of the supply regulator, Pa gauge */ readonly supply: number;
  /** Appliances that can be shut off, by id. */ readonly appliances: readonly string[];
  /** gauge display step, Pa */ readonly step: number;
  /** standard deviation of the gauge's noise, Pa */ readonly noise: number;
  /** moment the installation comes to be, ms */ readonly began: number;
}
export type SimulatedAction =
  | { readonly at: number; readonly act: 'supply'; readonly open: 'shut' | 'crack' | 'open' }
  | { readonly at: number; readonly act: 'bleed'; readonly open: boolean }
  | { readonly at: number; readonly act: 'appliance'; readonly id: string; readonly open: boolean }
  | { readonly at: number; readonly act: 'gauge'; readonly connected: boolean }
  | { readonly at: number; readonly act: 'zero' }
  | { readonly at: number; readonly act: 'fluid'; readonly place: string };
export interface SimulatedState {
  readonly at: number;
  /** true section pressure, Pa gauge */ readonly pressure: number;
  /** kelvin above the start */ readonly warmth: number;
  readonly supply: 'shut' | 'crack' | 'open';
  readonly bleeding: boolean;
  readonly connected: boolean;
  readonly closedAppliances: readonly string[];
  /** zero error of the gauge, Pa */ readonly zeroError: number;
  /** What leak fluid showed, newest last. */ readonly fluid: readonly {
    readonly at: number;
    readonly place: string;
    readonly bubbles: boolean;
  }[];
}

/** l/h at 20 mbar, laminar, as m3/s per Pa. */
const litresPerHourAt20 = (rate: number) => rate / 1000 / 3600 / 2000;
const KELVIN = 293.15;
/** Flow conductance of the opened supply valve and of the bleed. */
const CRACK = litresPerHourAt20(60);
const OPEN = litresPerHourAt20(600);
const BLEED = litresPerHourAt20(90);

/** The hidden truth of a fault: leak of pipework and of one appliance, let-by conductance, warming and zero error. */
export function truthOf(s: SimulatedInstallation): {
  pipe: number;
  appliance: number;
  faulty: string | null;
  letBy: number;
  warmth: number;
  tau: number;
  zeroError: number;
} {
  const sound = {
    pipe: 0,
    appliance: 0,
    faulty: null as string | null,
    letBy: 0,
    warmth: 0,
    tau: 900,
    zeroError: 0,
  };
  const faulty = s.appliances[Math.floor(uniform(s.seed, 11) * s.appliances.length)] ?? null;
  // sized by volume so that each fault shows in the rule's minutes whatever the pipe
  const scale = s.volume / 0.02;
  const size = (least: number, most: number, n: number) =>
    litresPerHourAt20((least + (most - least) * uniform(s.seed, n)) * scale);
  switch (s.fault) {
    case 'none':
      return sound;
    case 'leak':
      return { ...sound, pipe: size(4, 7, 1) };
    case 'appliance-leak':
      return { ...sound, appliance: size(0.8, 1.6, 2), faulty };
    case 'let-by':
      return { ...sound, letBy: size(2.5, 5, 3) };
    case 'both': {
      // at the let-by pressure (85 mbar/10) inflow k_in (ps - p) equals outflow k_out p: nothing moves
      const p = 850;
      const letBy = size(2.5, 4, 4);
      return { ...sound, letBy, pipe: (letBy * (s.supply - p)) / p };
    }
    case 'warming':
      return { ...sound, warmth: 1.2, tau: 600 };
    case 'off-zero':
      return { ...sound, zeroError: 60 + 60 * uniform(s.seed, 5) };
  }
}

/**
 * State of the simulated installation at a moment: a pure function of what it is, what was done, and the time. One
 * section of volume V obeys (V/P_atm) dp/dt = Σ k_in (p_s - p) - Σ k_out p + (V/P_atm) (P/T) dT/dt; between two
 * actions the coefficients are constant, so each piece is solved in closed form (the temperature term by its
 * exponential). Source: laws of small leaks
 * @param at ms; actions later than it are ignored
 */
export function simulate(
  s: SimulatedInstallation,
  actions: readonly SimulatedAction[],
  at: number,
): SimulatedState {
  const truth = truthOf(s);
  let pressure = s.supply;
  let time = s.began;
  let supply: SimulatedState['supply'] = 'open';
  let bleeding = false;
  let connected = false;
  let zeroError = truth.zeroError;
  const closed = new Set<string>();
  const fluid: { at: number; place: string; bubbles: boolean }[] = [];
  const warmthAt = (t: number) => truth.warmth * (1 - Math.exp(-(t - s.began) / 1000 / truth.tau));
  const advance = (to: number) => {
    const dt = (to - time) / 1000;
    if (dt <= 0) return;
    const kIn = supply === 'open' ? OPEN : supply === 'crack' ? CRACK : truth.letBy;
    const kOut =
      truth.pipe + (bleeding ? BLEED : 0) + (truth.faulty && !closed.has(truth.faulty) ? truth.appliance : 0);
    const c = STANDARD_ATMOSPHERE / s.volume;
    const b = c * (kIn + kOut);
    const a = c * kIn * s.supply;
    // heating term h e^(-t/tau), absolute pressure taken at the atmosphere (p << P_atm)
    const h =
      ((STANDARD_ATMOSPHERE + pressure) / KELVIN) *
      (truth.warmth / truth.tau) *
      Math.exp(-(time - s.began) / 1000 / truth.tau);
    const lambda = 1 / truth.tau;
    if (b < 1e-12) pressure += (h / lambda) * (1 - Math.exp(-lambda * dt));
    else {
      const rest = a / b;
      const driven =
        Math.abs(b - lambda) < 1e-9
          ? h * dt * Math.exp(-b * dt)
          : (h / (b - lambda)) * (Math.exp(-lambda * dt) - Math.exp(-b * dt));
      pressure = rest + (pressure - rest) * Math.exp(-b * dt) + driven;
    }
    pressure = Math.max(0, pressure);
    time = to;
  };
  for (const action of [...actions].sort((x, y) => x.at - y.at)) {
    if (action.at > at) break;
    advance(Math.max(action.at, time));
    switch (action.act) {
      case 'supply':
        supply = action.open;
        break;
      case 'bleed':
        bleeding = action.open;
        break;
      case 'appliance':
        if (action.open) closed.delete(action.id);
        else closed.add(action.id);
        break;
      case 'gauge':
        connected = action.connected;
        break;
      case 'zero':
        // zeroing takes away what the gauge shows now: under pressure it hides the pressure
        zeroError = connected ? -pressure : 0;
        break;
      case 'fluid':
        fluid.push({
          at: action.at,
          place: action.place,
          bubbles: bubbles(truth, action.place, closed, supply, pressure),
        });
        break;
    }
  }
  advance(at);
  return {
    at,
    pressure,
    warmth: warmthAt(at),
    supply,
    bleeding,
    connected,
    closedAppliances: [...closed],
    zeroError,
    fluid,
  };
}

/** Leak fluid shows bubbles only where gas passes and pressure drives it: 0.3 l/h at 20 mbar is what an eye finds. */
function bubbles(
  truth: ReturnType<typeof truthOf>,
  place: string,
  closed: ReadonlySet<string>,
  supply: string,
  pressure: number,
): boolean {
  const visible = litresPerHourAt20(0.3);
  if (place === 'valve') return supply === 'shut' && truth.letBy > visible;
  if (place === 'pipework') return truth.pipe > visible && pressure > 200;
  if (place === truth.faulty) return !closed.has(place) && truth.appliance > visible && pressure > 200;
  return false;
}

/** What the gauge displays at a moment, as digits of its step: true pressure or air, zero error, noise, rounding. */
export function display(s: SimulatedInstallation, state: SimulatedState): number {
  const seen =
    (state.connected ? state.pressure : 0) +
    state.zeroError +
    s.noise * normal(s.seed, Math.floor(state.at / 500));
  return Math.round(seen / s.step);
}

/** A uniform number in [0, 1) from a seed and a counter (a 32-bit integer hash): no stream to keep, so it resumes anywhere. */
export function uniform(seed: number, n: number): number {
  let x = (seed ^ Math.imul(n + 1, 0x9e3779b1)) >>> 0;
  x = Math.imul(x ^ (x >>> 16), 0x21f0aaad);
  x = Math.imul(x ^ (x >>> 15), 0x735a2d97);
  return ((x ^ (x >>> 15)) >>> 0) / 4294967296;
}
/** A standard normal number from seed and counter (Box-Muller). */
export function normal(seed: number, n: number): number {
  const u = Math.max(uniform(seed, 2 * n), 1e-12);
  return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * uniform(seed, 2 * n + 1));
}
