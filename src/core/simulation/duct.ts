/**
 * A simulated duct system: a fan with rings blows into what is masked, and the pressure is where what the fan gives is what the openings
 * let through. A pure function of what it is, what was done, and the time. Source: power law of openings; ring flow = k × (fan pressure)^m
 */
import type { FanRange } from '@/core/instrument/kit';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { normal, uniform } from './installation';

export const DUCT_FAULTS = {
  none: 'Sound ducts',
  boot: 'A boot at a register leaks',
  unmasked: 'A register that nobody masked',
  hose: 'A hole in the hose of the fan',
  ring: 'Another ring on the fan than the gauge is set to',
} as const;
export type DuctFault = keyof typeof DUCT_FAULTS;

/** Rings of the simulated fan, in CFM: what each reads, and its k and m. A sheet of our own. */
export const SIMULATED_RINGS: readonly FanRange[] = [
  { name: 'open', least: q('280 CFM'), greatest: q('1450 CFM'), k: '82', m: '0.5' },
  { name: 'ring 1', least: q('90 CFM'), greatest: q('460 CFM'), k: '27', m: '0.5' },
  { name: 'ring 2', least: q('30 CFM'), greatest: q('150 CFM'), k: '8.8', m: '0.5' },
  { name: 'ring 3', least: q('9 CFM'), greatest: q('48 CFM'), k: '2.8', m: '0.5' },
];
export interface SimulatedDuct {
  readonly kind: 'duct';
  readonly seed: number;
  readonly fault: DuctFault;
  /** m3/s at the reference pressure */ readonly limit: number;
  /** Pa */ readonly reference: number;
  /** Registers by the ids they have on the drawing. */
  readonly registers: readonly { readonly id: string; readonly name: string }[];
  /** Air is pushed in; otherwise drawn out. */
  readonly pushed: boolean;
  /** gauge display step, Pa */ readonly step: number;
  /** standard deviation of the gauge's noise, Pa */ readonly noise: number;
  readonly began: number;
}
export type DuctAction =
  | { readonly at: number; readonly act: 'speed'; readonly percent: number }
  | { readonly at: number; readonly act: 'mount' | 'set'; readonly ring: string }
  | { readonly at: number; readonly act: 'hose'; readonly closed: boolean }
  | { readonly at: number; readonly act: 'look-fan' }
  | { readonly at: number; readonly act: 'look-at' | 'mask' | 'smoke' | 'seal'; readonly id: string }
  | { readonly at: number; readonly act: 'new-hose' }
  | { readonly at: number; readonly act: 'gauge'; readonly connected: boolean }
  | { readonly at: number; readonly act: 'zero' };
export interface DuctState {
  readonly at: number;
  /** Pa between the ducts, or the closed hose, and still air; the size of it */ readonly pressure: number;
  /** Pa at the ring */ readonly fan: number;
  /** m3/s that truly passes the fan */ readonly flow: number;
  readonly speed: number;
  readonly mounted: string;
  readonly set: string;
  /** The hose is closed on itself. */
  readonly closed: boolean;
  readonly connected: boolean;
  readonly zeroError: number;
  /** Pa that wind and stack make. */ readonly off: number;
  /** What was seen, newest last. */ readonly said: readonly string[];
}

/** Exponents: of what seams leave, of holes. */
const SEAMS = 0.6;
const HOLE = 0.5;
/** Shares of the limit that pass at the reference pressure. */
const SHARE = { seams: 0.62, hose: 0.06, holedHose: 0.55, boot: 0.75, unseen: 2.6 } as const;
/** A register that is open, m3/s per sqrt(Pa): a hole of some 0.01 m2. */
const OPEN_REGISTER = 0.012;
/** What the fan can do at full speed, Pa, with nothing passing. */
const STALL = 700;
/** Wind: how far it pushes, and in how long it comes and goes. */
const WIND = { pascal: 0.8, seconds: 70 } as const;

export interface DuctTruth {
  /** Place that leaks, of the registers. */ readonly boot: string | null;
  readonly open: string | null;
  readonly hose: number;
  readonly boots: number;
  readonly seams: number;
  readonly mounted: string;
}
/** The hidden truth: openings as m3/s per Pa^n. */
export function ductTruth(s: SimulatedDuct): DuctTruth {
  const spread = 0.85 + 0.3 * uniform(s.seed, 5);
  const at = (share: number, n: number) => (share * s.limit) / s.reference ** n;
  const place = s.registers[Math.floor(uniform(s.seed, 6) * s.registers.length)]?.id ?? null;
  const boot = s.fault === 'boot' ? place : null;
  return {
    boot,
    open: s.fault === 'unmasked' ? place : null,
    hose: at(s.fault === 'hose' ? SHARE.holedHose : SHARE.hose, HOLE),
    boots: boot ? at(SHARE.boot * spread, HOLE) : 0,
    // what the wrong ring hides is more than the limit: the gauge shows a third of it
    seams: at((s.fault === 'ring' ? SHARE.unseen : SHARE.seams) * spread, SEAMS),
    mounted: s.fault === 'ring' ? 'ring 1' : 'ring 2',
  };
}
const ringNamed = (name: string) => SIMULATED_RINGS.find((r) => r.name === name)!;
const conductance = (ring: FanRange) => convert(Number(ring.k), 'CFM', 'm3/s');
const offAt = (s: SimulatedDuct, at: number): number =>
  WIND.pascal * Math.sin((at - s.began) / 1000 / WIND.seconds + 6.28 * uniform(s.seed, 7));

class Ducts {
  speed = 0;
  set = 'ring 2';
  closed = false;
  connected = false;
  zeroError = 0;
  readonly said: string[] = [];
  private readonly truth: DuctTruth;
  mounted: string;
  private hose: number;
  private open: string | null;
  private sealed = false;
  constructor(private readonly s: SimulatedDuct) {
    this.truth = ductTruth(s);
    this.mounted = this.truth.mounted;
    this.hose = this.truth.hose;
    this.open = this.truth.open;
  }
  /** m3/s that the openings let through at a pressure. */
  private passes(p: number): number {
    const hose = this.hose * p ** HOLE;
    if (this.closed) return hose;
    const { boots, seams } = this.truth;
    return (
      hose +
      seams * p ** SEAMS +
      (this.sealed ? 0 : boots) * p ** HOLE +
      (this.open ? OPEN_REGISTER : 0) * p ** HOLE
    );
  }
  /** Where the fan and the openings meet: what the fan makes is lost at the ring and in the ducts. */
  meets(): { pressure: number; fan: number; flow: number } {
    const made = STALL * (this.speed / 100) ** 2;
    const k = conductance(ringNamed(this.mounted));
    let [low, high] = [0, made];
    for (let i = 0; i < 60; i += 1) {
      const p = (low + high) / 2;
      if (p + (this.passes(p) / k) ** 2 > made) high = p;
      else low = p;
    }
    const flow = this.passes(low);
    return { pressure: low, fan: (flow / k) ** 2, flow };
  }
  act(action: DuctAction): void {
    switch (action.act) {
      case 'speed':
        this.speed = Math.min(100, Math.max(0, action.percent));
        break;
      case 'mount':
        this.mounted = action.ring;
        this.said.push(`${action.ring} is on the fan`);
        break;
      case 'set':
        this.set = action.ring;
        break;
      case 'hose':
        this.closed = action.closed;
        break;
      case 'new-hose':
        this.hose = (SHARE.hose * this.s.limit) / this.s.reference ** HOLE;
        this.said.push('Another hose is on');
        break;
      case 'gauge':
        this.connected = action.connected;
        break;
      case 'zero':
        this.zeroError = this.connected ? -this.signed(action.at) : 0;
        break;
      default:
        this.said.push(this.seenAt(action));
    }
  }
  private seenAt(
    action: Extract<DuctAction, { act: 'look-fan' | 'look-at' | 'mask' | 'smoke' | 'seal' }>,
  ): string {
    if (action.act === 'look-fan') return `On the fan: ${this.mounted}. The gauge is set to ${this.set}.`;
    const { id } = action;
    const name = this.s.registers.find((r) => r.id === id)?.name ?? id;
    const leaks = id === this.truth.boot && !this.sealed;
    switch (action.act) {
      case 'look-at':
        return `${name}: ${id === this.open ? 'not masked' : 'masked, tape sits all round'}`;
      case 'mask':
        if (id === this.open) this.open = null;
        return `${name}: masked`;
      case 'smoke':
        if (this.meets().pressure < 5 || this.closed) return `${name}: nothing, the ducts have no pressure`;
        return `${name}: ${leaks ? 'a jet at the boot' : id === this.open ? 'smoke out of the open register' : 'a wisp at most'}`;
      case 'seal':
        if (leaks) this.sealed = true;
        return `${name}: boot sealed with mastic`;
    }
  }
  /** Pa as the gauge stands towards it. */
  signed(at: number): number {
    const { pressure } = this.meets();
    if (this.closed) return pressure;
    return (this.s.pushed ? pressure : -pressure) + offAt(this.s, at);
  }
}
/** The state at a moment. @param at ms; actions later than it are ignored */
export function simulateDuct(s: SimulatedDuct, actions: readonly DuctAction[], at: number): DuctState {
  const ducts = new Ducts(s);
  for (const action of [...actions].sort((x, y) => x.at - y.at)) {
    if (action.at > at) break;
    ducts.act(action);
  }
  const { speed, mounted, set, closed, connected, zeroError, said } = ducts;
  return { at, ...ducts.meets(), speed, mounted, set, closed, connected, zeroError, off: offAt(s, at), said };
}
/** Digits of the pressure display. */
export function displayDuct(s: SimulatedDuct, state: DuctState): number {
  const pressure = state.closed ? state.pressure : (s.pushed ? state.pressure : -state.pressure) + state.off;
  const noise = s.noise * normal(s.seed, Math.floor(state.at / 500));
  return Math.round(((state.connected ? pressure : 0) + state.zeroError + noise) / s.step);
}
/** Tenths of CFM on the flow display, by the ring it is set to; null: below that range, it shows dashes. */
export function displayFlow(state: DuctState): number | null {
  const ring = ringNamed(state.set);
  const flow = Number(ring.k) * state.fan ** Number(ring.m);
  return flow < Number(ring.least.digits) ? null : Math.round(flow * 10);
}
