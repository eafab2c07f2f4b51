/** What a tester has in hand: a gauge, a source, a watch, and the bench to say it to. */
import { entryStep, type Gauge } from '@/core/instrument/gauge';
import type { Plan } from '@/core/plan/plan';
import { exact, type Exact, toNumber } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import type { Payload, RunEvent } from '@/core/run/events';
import { currentVisit, expectation, gaugeOf } from '@/core/run/read';
import { begin, step } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import type { Refusal } from '@/core/run/transition';

/** The real section, of which the tester sees only what a gauge shows. Pressures gauge Pa; a level is a height in m. */
export interface Section {
  /** Time passes, s. */
  pass(seconds: number): void;
  /** What stands in it now. */
  now(): number;
  /** Brings it to a figure by the source or the bleed, then closes it. @returns m3 of liquid put in, as measured */
  bring(target: number): number;
  /** Lets it down to a figure into a vessel. @returns m3 */
  drainTo(target: number): number;
  /** The source is open to it, or shut. */
  source(open: boolean): void;
  /** Appliances are shut off from it, or inside. */
  isolate(isolated: boolean): void;
  celsius(): number;
  hectopascals(): number;
  /** Leak fluid in the barrel of the closed valve shows growing bubbles. */
  valvePasses(): boolean;
  /** Its own time, ms, where what is done to it takes some. */
  time?(): number;
  /** What its own gauge shows; absent: the tester's is right but for its scatter. */
  shows?(): Exact;
  /** The gauge is connected, or open to air; its zero is set. */
  connect?(connected: boolean): void;
  setZero?(): void;
  /** A fan is set so that the reference pressure stands, Pa. @returns what pressure and flow display show; null: below its range */
  blows?(
    reference: number,
    range: string,
    closed: boolean,
  ): { readonly figure: Exact; readonly flow: Exact | null };
  /** What its meter counted so far, l. */
  metered?(): number;
  /** How loud it is along a run, 0 to 10. */
  hears?(along: number): number;
}
export interface Ended {
  readonly state: RunState;
  /** The run reached an end by following the bench; otherwise where it stood still, and why. */
  readonly stuck: string | null;
  /** Every entry made, refused ones too, in order. */
  readonly log: readonly RunEvent[];
}
export interface Manner {
  readonly gauges: readonly string[];
  /** Uniform in [0, 1). */
  readonly random: () => number;
  /** Scatter of one display beyond its step, in steps. */
  readonly noise?: number;
  /** Answers to observe stages by their stage key, before the usual ones. */
  readonly says?: Readonly<Record<string, string>>;
  /** Answers to check lines that are asked, by their key. */
  readonly answers?: Readonly<Record<string, 'yes' | 'no'>>;
  readonly most?: number;
  /** What is done besides, before a turn at a stage; true: that was the turn. */
  readonly first?: (hand: Hand, stage: string, tried: number) => boolean;
  /** Something is done before a reading that counts. */
  readonly reads?: (hand: Hand) => void;
  /** What it is raised to at a stage, instead of the middle of its band: Pa, or m of a level. */
  readonly raises?: (stage: string) => number | undefined;
}

const uuid = (n: number) => `00000000-0000-4000-8000-${n.toString(16).padStart(12, '0')}`;

/** The bench gives no way on from here: a finding of the test, not a fault of the tester. */
export class Stuck extends Error {}

export class Hand {
  readonly state: RunState;
  readonly began: number;
  at: number;
  readonly log: RunEvent[] = [];

  constructor(
    readonly plan: Plan,
    readonly section: Section,
    readonly manner: Manner,
  ) {
    this.state = begin(plan);
    this.began = Date.parse(plan.made.at);
    this.at = this.began + 5_000;
  }
  pass(seconds: number): void {
    this.section.pass(seconds);
    this.at = this.section.time?.() ?? this.at + Math.round(seconds * 1000);
  }
  say(payload: Payload): Refusal | null {
    this.at = Math.max(this.at, this.section.time?.() ?? 0);
    const seq = this.log.length + 1;
    const event: RunEvent = {
      ...payload,
      id: uuid(seq),
      run: this.plan.run,
      device: uuid(1),
      deviceSeq: seq,
      at: this.at,
      zone: this.plan.made.zone,
      offset: 0,
      mono: this.at - this.began,
      pageLoad: uuid(2),
      by: uuid(3),
      byName: 'T',
      expects: expectation(this.state),
    };
    this.log.push(event);
    return step(this.plan, this.state, event);
  }
  /** @throws Stuck */
  stuck(why: string): never {
    throw new Stuck(`${currentVisit(this.state)?.stage ?? this.state.phase}: ${why}`);
  }
  get gauge(): Gauge {
    return gaugeOf(this.plan, this.state)!;
  }
  private normal(): number {
    const { random } = this.manner;
    return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  }
  /** What the gauge shows: scatter, its own steps, its range. */
  read(gauge = this.gauge): Exact {
    const shows = this.section.shows?.();
    if (shows) return shows;
    const own = entryStep(gauge);
    const size = toNumber(own);
    const shown = convert(this.section.now(), ownUnit(own.unit), own.unit);
    const value = shown + (this.manner.noise ?? 0.3) * toNumber(gauge.resolution) * this.normal();
    const digits = Math.round(value / size) * own.digits;
    const clamp = (e: Exact) => e.digits * 10 ** (own.scale - e.scale);
    return exact(Math.max(clamp(gauge.least), Math.min(clamp(gauge.greatest), digits)), own.scale, own.unit);
  }
  figure(): { figure: Exact; readAt: number } {
    this.manner.reads?.(this);
    const figure = this.read();
    return { figure, readAt: Math.max(this.at, this.section.time?.() ?? 0) };
  }
  /** Puts it back to a figure and says so; with what it took, where that is measured. */
  topUp(before: Exact, target: number, seconds: number, measured: boolean): Refusal | null {
    const added = this.section.bring(target);
    this.pass(seconds);
    return this.say({
      kind: 'top-up',
      before,
      after: this.read(),
      ...(measured ? { added: litres(added) } : {}),
    });
  }
  /** Says that it will not stand, the way it moves; refused where the bench does not take it yet. */
  unheld(way: 'falls' | 'rises' | 'low', shown = this.figure()): Refusal | null {
    return this.say({ kind: 'unheld', way, ...shown });
  }
}
/** What a unit is worked in: Pa of a pressure, Pa from nothing of a vacuum, m of a level. */
const OWN = { length: 'm', absolute: 'Pa(abs)' } as const;
const ownUnit = (unit: Exact['unit']) => OWN[UNITS[unit].dimension as keyof typeof OWN] ?? ('Pa' as const);
/** A figure as the section has it. */
export const native = (e: Exact): number => convert(toNumber(e), e.unit, ownUnit(e.unit));
export const middle = (low: Exact, high: Exact, part = 0.5): number =>
  native(low) + (native(high) - native(low)) * part;
export const litres = (m3: number): Exact => exact(Math.max(0, Math.round(m3 * 1e6)), 3, 'l');
