/**
 * A simulated duct system: a fan with rings blows into what is masked, and the pressure is where what the fan gives is what the openings
 * let through. A pure function of what it is, what was done, and the time. Source: power law of openings; ring flow = k × (fan pressure)^m
 */
import type { FanRange } from '@/core/instrument/kit';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { normal, pickOf, uniform } from './noise';
import { behind, type Parted, parting, reachedFrom, shareOf, WHOLE } from './parted';
import type { TruthNow, World } from './world';

export const DUCT_FAULTS = {
  none: 'Sound ducts',
  boot: 'A boot at a register leaks',
  unmasked: 'A register that nobody masked',
  hose: 'A hole in the hose of the fan',
  ring: 'Another ring on the fan than the gauge is set to',
  damper: 'A damper stands shut though its lever looks open, and a boot behind it leaks',
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
  readonly truth: DuctTruth;
  /** m3/s at the reference pressure */ readonly limit: number;
  /** Pa */ readonly reference: number;
  /** Registers by the ids they have on the drawing. */
  readonly registers: readonly { readonly id: string; readonly name: string }[];
  /** What its dampers part; absent: nothing inside parts it. */
  readonly parted?: Parted;
  /** The part of it in which each register lies, by its id. */
  readonly lies?: Readonly<Record<string, number>>;
  /** Dampers that stand shut at the beginning, by their key. */
  readonly shut?: readonly string[];
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
  | { readonly at: number; readonly act: 'valve'; readonly id: string; readonly open: boolean }
  | { readonly at: number; readonly act: 'gauge'; readonly connected: boolean }
  | { readonly at: number; readonly act: 'zero' }
  | { readonly at: number; readonly act: 'truth'; readonly change: Partial<DuctTruth> };
/** What a person at a duct system can see. */
export interface DuctView {
  readonly kind: 'duct';
  readonly registers: SimulatedDuct['registers'];
  /** The rings that lie there. */ readonly rings: readonly string[];
  readonly speed: number;
  readonly set: string;
  /** The hose is closed on itself. */ readonly looped: boolean;
  /** Dampers that look shut, by their key. */ readonly closed: readonly string[];
  readonly connected: boolean;
  /** What was seen, newest last. */ readonly said: readonly string[];
}

/** Exponents: of what seams leave, of holes. */
const SEAMS = 0.6;
const HOLE = 0.5;
/** Shares of the limit that pass at the reference pressure. */
const SHARE = { seams: 0.62, hose: 0.06, holedHose: 0.55, boot: 0.75, unseen: 2.6 } as const;
/** A register that is open, m3/s per sqrt(Pa): a hole of some 0.01 m2. */
const OPEN_REGISTER = 0.012;
/** Pa from which a mask and smoke tell of it. House figure for the model. */
const FELT = 5;
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
  /** Dampers that stand shut though they look open, by their key. */ readonly shut: readonly string[];
  readonly gauge: { /** Pa by which it is off zero */ readonly zero: number };
}
/** The hidden truth: openings as m3/s per Pa^n. */
export function ductTruth(
  fault: DuctFault,
  s: Pick<SimulatedDuct, 'seed' | 'limit' | 'reference' | 'registers' | 'parted' | 'lies'>,
): DuctTruth {
  const spread = 0.85 + 0.3 * uniform(s.seed, 5);
  const at = (share: number, n: number) => (share * s.limit) / s.reference ** n;
  const damper = fault === 'damper' && s.parted ? pickOf(parting(s.parted), uniform(s.seed, 8)) : undefined;
  const there = damper && s.registers.filter((r) => s.lies?.[r.id] === behind(s.parted!, damper));
  const place = pickOf(there?.length ? there : s.registers, uniform(s.seed, 6))?.id ?? null;
  const boot = fault === 'boot' || fault === 'damper' ? place : null;
  return {
    boot,
    open: fault === 'unmasked' ? place : null,
    hose: at(fault === 'hose' ? SHARE.holedHose : SHARE.hose, HOLE),
    boots: boot ? at(SHARE.boot * spread, HOLE) : 0,
    // what the wrong ring hides is more than the limit: the gauge shows a third of it
    seams: at((fault === 'ring' ? SHARE.unseen : SHARE.seams) * spread, SEAMS),
    mounted: fault === 'ring' ? 'ring 1' : 'ring 2',
    shut: damper ? [damper.key] : [],
    gauge: { zero: 0 },
  };
}
const ringNamed = (name: string) => SIMULATED_RINGS.find((r) => r.name === name)!;
const conductance = (ring: FanRange) => convert(Number(ring.k), 'CFM', 'm3/s');
const offAt = (s: SimulatedDuct, at: number): number =>
  WIND.pascal * Math.sin((at - s.began) / 1000 / WIND.seconds + 6.28 * uniform(s.seed, 7));

export class DuctWorld implements World<DuctAction, DuctView> {
  private speed = 0;
  private set = 'ring 2';
  private looped = false;
  private connected = false;
  private zeroError: number;
  private readonly said: string[] = [];
  private hides: DuctTruth;
  private time: number;
  private mounted: string;
  private hose: number;
  private open: string | null;
  private sealed = false;
  private readonly parted: Parted;
  /** Dampers that look shut, and those that are. */
  private readonly closed: Set<string>;
  private readonly shut: Set<string>;
  private reached: ReadonlySet<number>;
  constructor(private readonly s: SimulatedDuct) {
    this.hides = s.truth;
    this.time = s.began;
    this.zeroError = s.truth.gauge.zero;
    this.mounted = this.hides.mounted;
    this.hose = this.hides.hose;
    this.open = this.hides.open;
    this.parted = s.parted ?? WHOLE;
    this.closed = new Set(s.shut);
    this.shut = new Set([...(s.shut ?? []), ...this.hides.shut]);
    this.reached = reachedFrom(this.parted, this.shut);
  }
  /** Whether what the fan makes comes to a register: no damper that is shut parts it. */
  private comesTo = (id: string | null): boolean =>
    id !== null && this.reached.has(this.s.lies?.[id] ?? this.parted.point);
  /** m3/s that the openings let through at a pressure. */
  private passes(p: number): number {
    const hose = this.hose * p ** HOLE;
    if (this.looped) return hose;
    const { boot, boots, seams } = this.hides;
    const holes =
      (this.sealed || !this.comesTo(boot) ? 0 : boots) + (this.comesTo(this.open) ? OPEN_REGISTER : 0);
    return hose + seams * shareOf(this.parted, this.reached) * p ** SEAMS + holes * p ** HOLE;
  }
  advance(to: number): void {
    this.time = Math.max(this.time, to);
  }
  /** Where the fan and the openings meet: what the fan makes is lost at the ring and in the ducts. */
  private meets(): { pressure: number; fan: number; flow: number } {
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
        this.looped = action.closed;
        break;
      case 'new-hose':
        this.hose = (SHARE.hose * this.s.limit) / this.s.reference ** HOLE;
        this.said.push('Another hose is on');
        break;
      case 'truth': {
        this.hides = { ...this.hides, ...action.change };
        const { hose, open, mounted, shut } = action.change;
        for (const key of shut ?? []) this.shut.add(key);
        this.reached = reachedFrom(this.parted, this.shut);
        if (hose !== undefined) this.hose = hose;
        if (open !== undefined) this.open = open;
        if (mounted !== undefined) this.mounted = mounted;
        break;
      }
      case 'valve':
        this.turned(action.id, action.open);
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
  /** A damper turned stands as it looks from then on. */
  private turned(key: string, open: boolean): void {
    const name = this.parted.valves.find((v) => v.key === key)?.name ?? key;
    const gives = open && this.shut.has(key) && !this.closed.has(key);
    for (const set of [this.closed, this.shut])
      if (open) set.delete(key);
      else set.add(key);
    this.reached = reachedFrom(this.parted, this.shut);
    this.said.push(
      `${name}: ${gives ? 'the lever stood open, the blade did not. It is turned open now' : open ? 'open' : 'shut'}`,
    );
  }
  private seenAt(
    action: Extract<DuctAction, { act: 'look-fan' | 'look-at' | 'mask' | 'smoke' | 'seal' }>,
  ): string {
    if (action.act === 'look-fan') return `On the fan: ${this.mounted}. The gauge is set to ${this.set}.`;
    const { id } = action;
    const name = this.s.registers.find((r) => r.id === id)?.name ?? id;
    const leaks = id === this.hides.boot && !this.sealed;
    switch (action.act) {
      case 'look-at':
        return `${name}: ${id === this.open ? 'not masked' : `masked, tape sits all round${this.mask(id)}`}`;
      case 'mask':
        if (id === this.open) this.open = null;
        return `${name}: masked`;
      case 'smoke':
        if (this.meets().pressure < FELT || this.looped || !this.comesTo(id))
          return `${name}: nothing, no pressure comes here`;
        return `${name}: ${leaks ? 'a jet at the boot' : id === this.open ? 'smoke out of the open register' : 'a wisp at most'}`;
      case 'seal':
        if (leaks) this.sealed = true;
        return `${name}: boot sealed with mastic`;
    }
  }
  /** How a mask stands while the fan runs. */
  private mask(id: string): string {
    if (this.meets().pressure < FELT || this.looped) return '';
    return this.comesTo(id) ? (this.s.pushed ? ', it bulges' : ', it is drawn in') : ', it hangs slack';
  }
  /** Pa as the gauge stands towards it. */
  private signed(at: number): number {
    const { pressure } = this.meets();
    if (this.looped) return pressure;
    return (this.s.pushed ? pressure : -pressure) + offAt(this.s, at);
  }
  display(): number {
    const noise = this.s.noise * normal(this.s.seed, Math.floor(this.time / 500));
    const stands = this.connected ? this.signed(this.time) : 0;
    return Math.round((stands + this.zeroError + noise) / this.s.step);
  }
  /** Tenths of CFM by the ring it is set to; null: below that range, it shows dashes. */
  flow(): number | null {
    const ring = ringNamed(this.set);
    const flow = Number(ring.k) * this.meets().fan ** Number(ring.m);
    return flow < Number(ring.least.digits) ? null : Math.round(flow * 10);
  }
  probe(): undefined {
    return undefined;
  }
  view(): DuctView {
    const rings = SIMULATED_RINGS.map((r) => r.name);
    const { speed, set, looped, closed, connected, said } = this;
    const { registers } = this.s;
    return {
      kind: 'duct',
      registers,
      rings,
      speed,
      set,
      looped,
      closed: [...closed],
      connected,
      said: [...said],
    };
  }
  truth(): TruthNow {
    return { steps: this.signed(this.time) / this.s.step, warmth: 0, leaking: this.meets().flow };
  }
}
