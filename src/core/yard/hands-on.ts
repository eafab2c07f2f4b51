/** A simulated installation as a tester's hands find it: raised, let down, listened to, read, each taking its time. */
import type { Section } from '@/core/conduct/hand';
import type { Gauge } from '@/core/instrument/gauge';
import { networkOf } from '@/core/network/enter';
import type { Plan } from '@/core/plan/plan';
import { exact, type Exact } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import { handWork, type HandWork } from '@/core/simulation/hands';
import {
  type Action,
  type AnyWorld,
  type Simulation,
  type SimulatedView,
  worldOf,
} from '@/core/simulation/simulation';
import { positionKey } from '@/core/network/network';

/** How long a hand goes on trying, s, and how often it looks meanwhile. */
const PATIENCE = 600;
const LOOK = 0.25;
/** Water is stiff: a hand at its valve looks all the time. */
const CLOSE_LOOK = 0.05;
const HAND = 0.5;
const PUMPING = 240;
const CRACKED = 45;
const OPENED = 60;

export class HandsOn implements Section {
  private readonly world: AnyWorld;
  private at: number;
  constructor(
    private readonly plan: Plan,
    private readonly simulation: Simulation,
    /** Is told each thing that is done. */
    private readonly done: (work: HandWork, action: Action) => void,
    /** Is asked at each moment whether something comes in between. */
    private readonly between: (at: number) => void,
    /** Rings are put on the fan as they are needed. */
    private readonly mounts = true,
  ) {
    this.world = worldOf(simulation);
    this.at = simulation.began;
  }
  time = (): number => Math.round(this.at);
  pass(seconds: number): void {
    const to = this.at + seconds * 1000;
    // what comes in between comes at its own moment
    while (this.at < to) {
      this.at = Math.min(to, this.at + 5_000);
      this.world.advance(this.at);
      this.between(this.at);
    }
  }
  view(): SimulatedView {
    return this.world.view();
  }
  /** What is done besides by hand. @throws RangeError where it cannot be done */
  does(work: HandWork, after = HAND): void {
    const action = handWork(this.plan.system, this.simulation.kind, work);
    if (typeof action === 'string') throw new RangeError(`${work.act}: ${action}`);
    // a hand takes its time
    this.pass(after);
    const whole = { ...action, at: this.time() } as Action;
    this.world.act(whole);
    this.done(work, whole);
  }
  /** Something that nobody here did. */
  changes(action: Action): void {
    this.world.advance(action.at);
    this.world.act(action);
  }
  private get gauge(): Gauge {
    return this.plan.gauges[0]!;
  }
  private get level(): boolean {
    return this.simulation.kind === 'liquid' && this.simulation.surface > 0;
  }
  /** Steps of its display. */
  steps(): number {
    return this.world.display();
  }
  shows(): Exact {
    const { resolution } = this.gauge;
    if (this.level) return exact(Math.round((this.world.view() as { level: number }).level), 0, 'mm');
    return exact(this.world.display(), resolution.scale, resolution.unit);
  }
  now(): number {
    const shown = this.shows();
    return convert(
      shown.digits / 10 ** shown.scale,
      shown.unit,
      UNITS[shown.unit].dimension === 'length' ? 'm' : this.si(shown),
    );
  }
  private si = (e: Exact) => (UNITS[e.unit].dimension === 'absolute' ? 'Pa(abs)' : 'Pa');
  connect(connected: boolean): void {
    const view = this.view() as { connected?: boolean };
    if (view.connected !== connected) this.does({ act: 'gauge', value: connected ? 'connected' : 'open' });
  }
  setZero(): void {
    this.does({ act: 'zero' });
  }
  /** Goes on with something until it shows what it should, or patience ends. */
  private until(there: () => boolean, patience = PATIENCE): void {
    const look = this.simulation.kind === 'liquid' ? CLOSE_LOOK : LOOK;
    for (let t = 0; t < patience && !there(); t += look) this.pass(look);
  }
  /** One valve opened until there, and shut. */
  private through(open: HandWork, shut: HandWork, there: () => boolean): void {
    if (there()) return;
    this.does(open);
    this.until(there);
    // the hand is on it
    this.does(shut, 0);
  }
  private strokes(target: number): number {
    let rise = 0;
    let count = 0;
    const until = this.at + PUMPING * 1000;
    while (this.at < until && this.now() < target) {
      const before = this.now();
      const n = rise > 0 ? Math.max(1, Math.min(200, Math.floor((0.8 * (target - before)) / rise))) : 1;
      this.does({ act: 'pump', value: String(n) });
      this.pass(Math.max(1, n * 0.5));
      count += n;
      rise = Math.max((this.now() - before) / n, 1e-9);
    }
    return count;
  }
  bring(target: number): number {
    const s = this.simulation;
    if (s.kind === 'liquid' && s.surface > 0) {
      this.does({ act: 'fill', value: String(Math.round(target * 1000)) });
      return 0;
    }
    if (s.kind === 'duct') return 0;
    if (s.kind === 'circuit') {
      if (s.vacuum)
        this.through(
          { act: 'vacuum-pump', value: 'on' },
          { act: 'vacuum-pump', value: 'off' },
          () => this.now() <= target,
        );
      else if (this.now() > target)
        this.through(
          { act: 'vent', value: 'open' },
          { act: 'vent', value: 'shut' },
          () => this.now() <= target,
        );
      else
        this.through(
          { act: 'cylinder', value: 'open' },
          { act: 'cylinder', value: 'shut' },
          () => this.now() >= target,
        );
      return 0;
    }
    if (this.now() > target) {
      this.through(
        { act: 'bleed', value: 'open' },
        { act: 'bleed', value: 'shut' },
        () => this.now() <= target,
      );
      return 0;
    }
    if (s.stroke > 0 && s.supply === 0) {
      const put = this.strokes(target) * s.stroke;
      // a stroke too much is let off again
      if (this.now() > target + 2 * s.step) this.bring(target);
      return put;
    }
    this.fed(s.kind === 'gas', () => this.now() >= target);
    return 0;
  }
  /** From its supply: cracked first, opened where that does not bring it. */
  private fed(cracks: boolean, there: () => boolean): void {
    if (there()) return;
    if (cracks) {
      this.does({ act: 'supply', value: 'crack' });
      this.until(there, CRACKED);
    }
    if (!there()) {
      this.does({ act: 'supply', value: 'open' });
      this.until(there, OPENED);
    }
    this.does({ act: 'supply', value: 'shut' });
  }
  drainTo(target: number): number {
    const before = this.now();
    this.through(
      { act: 'bleed', value: 'open' },
      { act: 'bleed', value: 'shut' },
      () => this.now() <= target,
    );
    return this.simulation.kind === 'liquid' ? this.simulation.stiffness * (before - this.now()) : 0;
  }
  source(open: boolean): void {
    const view = this.view();
    if (view.kind !== 'gas' && view.kind !== 'liquid') return;
    if ((view.supply !== 'shut') !== open) this.does({ act: 'supply', value: open ? 'open' : 'shut' });
    if (open) this.pass(10);
  }
  isolate(isolated: boolean): void {
    if (this.simulation.kind !== 'gas') return;
    const network = networkOf(this.plan.system);
    for (const part of network.parts) {
      const key = positionKey(network, part);
      if (!this.plan.system.appliances.some((a) => a.id === key) || part.kind !== 'valve') continue;
      const closed = (this.view() as { closed: readonly string[] }).closed.includes(key);
      if (closed !== isolated) this.does({ act: 'valve', id: key, value: isolated ? 'shut' : 'open' });
    }
  }
  celsius(): number {
    if (this.simulation.kind === 'circuit') {
      this.does({ act: 'thermometer', value: 'pipe' });
      return Number(/(-?[\d.]+) °C/.exec(this.last())?.[1] ?? 20);
    }
    return (this.world.probe() ?? 200) / 10;
  }
  hectopascals(): number {
    return 1013.25;
  }
  private last(): string {
    return (this.view() as { said?: readonly string[] }).said?.at(-1) ?? '';
  }
  valvePasses(): boolean {
    if (this.simulation.kind !== 'gas') return false;
    this.does({ act: 'fluid', value: 'valve' });
    return /growing bubbles/.test(this.last());
  }
  hears(along: number): number {
    this.does({ act: 'listen', value: String(along) });
    return Number(/loudness (\d+)/.exec(this.last())?.[1] ?? 0);
  }
  metered(): number {
    return (this.view() as { metered?: number }).metered ?? 0;
  }
  blows(reference: number, range: string, closed: boolean): { figure: Exact; flow: Exact | null } {
    if (this.simulation.kind !== 'duct') throw new RangeError('No fan is here.');
    if (this.mounts || closed) this.does({ act: 'mount', value: range });
    this.does({ act: 'set', value: range });
    this.does({ act: 'hose', value: closed ? 'closed' : 'open' });
    let [low, high] = [0, 100];
    for (let i = 0; i < 12; i += 1) {
      this.does({ act: 'speed', value: String(Math.round((low + high) / 2)) });
      this.pass(2);
      if (Math.abs(this.now()) < reference) low = (low + high) / 2;
      else high = (low + high) / 2;
    }
    const flow = this.world.flow();
    return { figure: this.shows(), flow: flow === null || flow === undefined ? null : exact(flow, 1, 'CFM') };
  }
}
