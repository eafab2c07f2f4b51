/**
 * A tester who follows the bench: answers every line, raises, waits, reads and says what will not stand, whatever the section
 * does. Conducts whole runs for tests of the judgement; what the section really does comes from outside.
 */
import { edgesOf } from '@/core/grammar/edges';
import { entryStep, type Gauge } from '@/core/instrument/gauge';
import type { Stage } from '@/core/kinds';
import { pumpBand } from '@/core/kinds/pump/fold';
import type { Plan } from '@/core/plan/plan';
import { exact, type Exact, toNumber } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import { barometerNeeded } from '@/core/run/barometer';
import type { Payload } from '@/core/run/events';
import { holdSpec, stageBand } from '@/core/run/hold-spec';
import { expectedItems } from '@/core/run/inventory';
import {
  checkLines,
  currentCycle,
  currentVisit,
  expectation,
  gaugeOf,
  openJoints,
  openLines,
  positionLines,
  runningHold,
  stageOf,
  stepOf,
  temperatureNeeded,
} from '@/core/run/read';
import { begin, step } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import type { Refusal } from '@/core/run/transition';
import { explainedFor, unheldWays } from '@/core/run/unheld';

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
}
export interface Ended {
  readonly state: RunState;
  /** The run reached an end by following the bench; otherwise where it stood still, and why. */
  readonly stuck: string | null;
  readonly events: number;
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
}

/** What a tester who suspects the section says where the bench asks; the first that is offered. */
const USUAL = [
  'still',
  'quiet',
  'isolate',
  'go-on',
  'no-bubbles',
  'dry',
  'sound',
  'nothing',
  'relax',
  'none',
  'unexplained',
  'accept',
  'no',
  'dry-storage',
  'end',
];

const uuid = (n: number) => `00000000-0000-4000-8000-${n.toString(16).padStart(12, '0')}`;

export function conduct(plan: Plan, section: Section, manner: Manner): Ended {
  const state = begin(plan);
  const began = Date.parse(plan.made.at);
  let at = began + 5_000;
  let events = 0;
  const most = manner.most ?? 6000;
  const normal = () =>
    Math.sqrt(-2 * Math.log(1 - manner.random())) * Math.cos(2 * Math.PI * manner.random());
  const pass = (seconds: number) => {
    section.pass(seconds);
    at += Math.round(seconds * 1000);
  };
  const say = (payload: Payload): Refusal | null => {
    events += 1;
    return step(plan, state, {
      ...payload,
      id: uuid(events),
      run: plan.run,
      device: uuid(1),
      deviceSeq: events,
      at,
      zone: plan.made.zone,
      offset: 0,
      mono: at - began,
      pageLoad: uuid(2),
      by: uuid(3),
      byName: 'T',
      expects: expectation(state),
    });
  };
  const toShown = (value: number, unit: Exact['unit']) =>
    UNITS[unit].dimension === 'length' ? convert(value, 'm', unit) : convert(value, 'Pa', unit);
  /** What the gauge shows: scatter, its own steps, its range. */
  const read = (gauge: Gauge): Exact => {
    const own = entryStep(gauge);
    const size = toNumber(own);
    const value =
      toShown(section.now(), own.unit) + (manner.noise ?? 0.3) * toNumber(gauge.resolution) * normal();
    const digits = Math.round(value / size) * own.digits;
    const clamp = (e: Exact) => e.digits * 10 ** (own.scale - e.scale);
    return exact(Math.max(clamp(gauge.least), Math.min(clamp(gauge.greatest), digits)), own.scale, own.unit);
  };
  const figure = (gauge: Gauge) => ({ figure: read(gauge), readAt: at });
  const native = (e: Exact) =>
    UNITS[e.unit].dimension === 'length'
      ? convert(toNumber(e), e.unit, 'm')
      : convert(toNumber(e), e.unit, 'Pa');
  const middle = (low: Exact, high: Exact, part = 0.5) => native(low) + (native(high) - native(low)) * part;
  const litres = (m3: number): Exact => exact(Math.max(0, Math.round(m3 * 1e6)), 3, 'l');
  const gaugeNow = (): Gauge => gaugeOf(plan, state)!;

  const checks = (stage: Extract<Stage, { kind: 'checks' }>) => {
    for (const l of openLines(plan, currentVisit(state)!)) {
      const { item } = l;
      if (
        item.position &&
        l.subject &&
        item.valves?.some((v) => v === 'container' || v === 'supply' || v === 'meter')
      )
        section.source(item.position === 'open');
      if (item.opens?.includes('isolators')) section.isolate(true);
      if (item.settles?.includes('isolators')) section.isolate(false);
      const answer = item.ask ? (manner.answers?.[item.key] ?? item.must?.answer ?? 'no') : 'done';
      const refused = say({
        kind: 'check',
        item: item.key,
        ...(l.subject ? { subject: l.subject.id } : {}),
        answer,
      });
      if (refused && refused.code !== 'order') return refused;
      if (currentVisit(state)?.stage === undefined || stageOf(plan, currentVisit(state)!) !== stage)
        return null;
    }
    pass(20);
    return openLines(plan, currentVisit(state)!).length ? null : say({ kind: 'proceed' });
  };

  let stalls = 0;
  const tries = new Map<number, number>();
  const stuckAt = (why: string): Ended => ({
    state,
    stuck: `${currentVisit(state)?.stage ?? state.phase}: ${why}`,
    events,
  });
  /** Says that it will not stand, the way it moves; false where the bench does not take it yet. */
  const unheld = (way: 'falls' | 'rises' | 'low'): Refusal | null =>
    say({ kind: 'unheld', way, ...figure(gaugeNow()) });

  for (;;) {
    const visit = currentVisit(state);
    if (!visit) return { state, stuck: null, events };
    if (events > most) return stuckAt('too many entries');
    const before = expectation(state);
    const stage = stageOf(plan, visit);
    const tried = (tries.get(visit.ordinal) ?? 0) + 1;
    tries.set(visit.ordinal, tried);
    let refused: Refusal | null = null;
    switch (stage.kind) {
      case 'checks':
        refused = checks(stage);
        break;
      case 'zero': {
        if (stage.when === 'before') {
          const choice = plan.gauges.filter((g) => manner.gauges.includes(g.name));
          for (const g of choice) if (!say({ kind: 'gauge', gauge: g.id })) break;
        }
        const gauge = gaugeNow();
        pass(15);
        refused = say({
          kind: 'zero',
          figure: exact(0, gauge.resolution.scale, gauge.resolution.unit),
          openToAir: true,
        });
        break;
      }
      case 'fill': {
        const band = stageBand(plan, state, stage);
        if ('missing' in band) return stuckAt(band.missing);
        section.source(stage.live === true);
        const { low, high } = band.value;
        const target = middle(low, high, stage.falling ? 0.7 : 0.5);
        if (!stage.live) section.bring(target);
        pass(5);
        section.source(false);
        const shown = figure(gaugeNow());
        if (tried > 3 && unheldWays(state, stage).includes('falls') && native(shown.figure) < native(low))
          refused = say({ kind: 'unheld', way: stage.live && !section.now() ? 'low' : 'falls', ...shown });
        else refused = say({ kind: 'fill', confirmed: true, ...shown });
        break;
      }
      case 'pump': {
        const band = stageBand(plan, state, stage);
        if ('missing' in band) return stuckAt(band.missing);
        const last = visit.pumped[visit.pumped.length - 1];
        if (last && !last.look) {
          pass(stage.steps[visit.pumped.length - 1]!.minutes * 60 + 1);
          refused = say({ kind: 'pump-look', joints: 'dry', where: '', ...figure(gaugeNow()) });
          break;
        }
        const own = pumpBand(stage, band.value, visit.pumped.length);
        const added = section.bring(middle(own.low, own.high));
        pass(2);
        refused = say({ kind: 'pump-step', added: litres(added), ...figure(gaugeNow()) });
        if (refused && tried > 6) refused = say({ kind: 'pump-failed', text: 'It does not come up.' });
        break;
      }
      case 'volume':
        refused = say({ kind: 'volume' });
        break;
      case 'inventory': {
        for (const k of plan.procedure.inventory ?? [])
          for (const item of expectedItems(plan.system, k.kind))
            say({
              kind: 'inventory',
              item: { ...item, points: Object.fromEntries(k.points.map((p) => [p.key, 'good'])), note: '' },
            });
        refused = say({ kind: 'proceed' });
        break;
      }
      case 'joints':
        for (const j of openJoints(state)) say({ kind: 'joint-look', joint: j.id, found: 'none' });
        refused = say({ kind: 'proceed' });
        break;
      case 'observe': {
        pass(60);
        const told = manner.says?.[visit.stage];
        const valve =
          stage.results.some((r) => r.key === 'bubbles') && section.valvePasses() ? 'bubbles' : undefined;
        const pick =
          told ??
          valve ??
          USUAL.find((k) => stage.results.some((r) => r.key === k) && edgesOf(stage.on[k]).length > 0) ??
          stage.results[0]!.key;
        refused = say({ kind: 'observe', result: pick });
        if (refused?.code === 'reason') refused = say({ kind: 'observe', result: pick, text: 'as it is' });
        break;
      }
      case 'dial':
        return stuckAt('a dial is not watched here');
      case 'draw-down': {
        const to = state.keptReadings[stage.to]?.figure;
        if (!to) return stuckAt('nothing to drain to');
        const drained = section.drainTo(native(to));
        pass(2);
        refused = say({ kind: 'draw-down', volume: litres(drained), ...figure(gaugeNow()) });
        if (refused?.code === 'not-there' && tried < 8) {
          section.bring(native(state.keptReadings[stage.from]!.figure));
          refused = null;
        }
        if (tried >= 8) return stuckAt('the vessel never meets the figure');
        break;
      }
      case 'isolate-and-repeat':
      case 'hold':
        refused = timed(stage, tried);
        break;
    }
    if (expectation(state) === before) {
      stalls += 1;
      if (stalls > 60) return stuckAt(refused?.text ?? 'nothing moves');
    } else stalls = 0;
  }

  function timed(
    stage: Extract<Stage, { kind: 'hold' | 'isolate-and-repeat' }>,
    tried: number,
  ): Refusal | null {
    const visit = currentVisit(state)!;
    if (stage.kind === 'isolate-and-repeat') {
      const cycle = currentCycle(visit)!;
      section.isolate(true);
      if (!cycle.positions) {
        for (const l of positionLines(plan, stage, cycle)) {
          const [item = '', subject] = l.id.split('/');
          say({ kind: 'check', item, ...(subject ? { subject } : {}), answer: 'done' });
        }
        return null;
      }
      if (stepOf(state) === 'fill') {
        const band = stageBand(plan, state, stage);
        if ('missing' in band) return { code: 'missing', text: band.missing };
        section.bring(middle(band.value.low, band.value.high));
        pass(5);
        const shown = figure(gaugeNow());
        return tried > 4 && native(shown.figure) < native(band.value.low)
          ? say({ kind: 'unheld', way: 'falls', ...shown })
          : say({ kind: 'fill', confirmed: true, ...shown });
      }
      if (stage.optional && stage.subjects === 'each-appliance')
        return say({ kind: 'skip', reason: '', text: 'known' });
    }
    const spec = holdSpec(plan, state)!;
    const gauge = gaugeNow();
    const hold = runningHold(state);
    if (!hold) {
      pass(2);
      const shown = figure(gauge);
      const refused = say({ kind: 'hold-start', ...shown });
      if (refused?.code !== 'out-of-band' || !spec.band) return refused;
      const low = native(shown.figure) < native(spec.band.low);
      const readjusted = state.visits.filter((v) => v.split === 're-adjusted before the start').length;
      if (low && (tried > 2 || readjusted >= 3)) {
        const said = say({ kind: 'unheld', way: 'falls', ...shown });
        if (!said) return null;
      }
      section.bring(
        middle(spec.band.low, spec.band.high, stage.kind === 'hold' && stage.role === 'make-up' ? 0.2 : 0.5),
      );
      pass(1);
      const after = figure(gauge);
      return say({ kind: 'top-up', before: shown.figure, after: after.figure }) ?? null;
    }
    const temperature = () => exact(Math.round(section.celsius() * 10), 1, 'C');
    const barometer = () => exact(Math.round(section.hectopascals() * 100), 2, 'hPa');
    const logs = stage.kind === 'hold' && hold.role !== 'settle';
    if (logs && barometerNeeded(plan, state, stage, hold))
      say({ kind: 'barometer', when: 'start', figure: barometer() });
    if (temperatureNeeded(plan, state, hold))
      say({ kind: 'temperature', when: 'start', figure: temperature() });
    if (stage.kind === 'hold' && stage.witness)
      say({ kind: 'witness', when: 'start', seen: 'same', text: '' });
    const left = () => hold.startedAt + hold.minutes * 60_000 - at;
    const rhythm = Math.max(
      20,
      Math.min(
        (stage.kind === 'hold' && stage.rhythm ? stage.rhythm : Infinity) * 60,
        (hold.minutes * 60) / (hold.role === 'make-up' ? 12 : 3),
      ),
    );
    while (runningHold(state) === hold && left() > 0) {
      pass(Math.min(rhythm, left() / 1000));
      if (left() <= 0) break;
      const shown = figure(gauge);
      say({ kind: 'reading', ...shown });
      if (hold.role === 'make-up') {
        const added = section.bring(native(hold.start.figure));
        pass(0.5);
        say({ kind: 'top-up', before: shown.figure, after: read(gauge), added: litres(added) });
        const decided = say({ kind: 'hold-end', ...figure(gauge) });
        if (!decided) return null;
      }
      if (hold.role === 'settle' && spec.band && native(shown.figure) < native(spec.band.low)) {
        if (at - hold.startedAt < explainedFor(plan, stage).minutes * 60_000) {
          section.bring(middle(spec.band.low, spec.band.high));
          pass(1);
          say({ kind: 'top-up', before: shown.figure, after: read(gauge) });
        } else if (!unheld('falls')) return null;
      }
      // a fall far beyond the limit need not be watched to the end
      if (
        hold.role === 'tightness' &&
        native(shown.figure) < 0.5 * native(hold.start.figure) &&
        !unheld('falls')
      )
        return null;
      if (hold.role === 'decay' && native(shown.figure) < 0.7 * native(hold.start.figure)) {
        const ended = say({ kind: 'hold-end', ...figure(gauge) });
        if (!ended) return null;
      }
    }
    if (runningHold(state) !== hold) return null;
    pass(1);
    if (hold.barometer.start && logs) say({ kind: 'barometer', when: 'end', figure: barometer() });
    if (hold.temperature.start) say({ kind: 'temperature', when: 'end', figure: temperature() });
    if (stage.kind === 'hold' && stage.witness) say({ kind: 'witness', when: 'end', seen: 'same', text: '' });
    if (hold.role === 'make-up') {
      const shown = read(gauge);
      const added = section.bring(native(hold.start.figure));
      pass(0.5);
      say({ kind: 'top-up', before: shown, after: read(gauge), added: litres(added) });
    }
    for (let again = 0; again < 200 && runningHold(state) === hold; again += 1) {
      const shown = figure(gauge);
      const refused = say({ kind: 'hold-end', ...shown });
      if (!refused) return null;
      if (refused.code === 'tap') {
        pass(6);
        continue;
      }
      if (hold.role !== 'settle') {
        if (refused.code === 'not-restored') {
          const added = section.bring(native(hold.start.figure));
          pass(0.2);
          say({ kind: 'top-up', before: shown.figure, after: read(gauge), added: litres(added) });
          continue;
        }
        return refused;
      }
      // it does not settle: put back while that may help, wait as long as warmth could explain it, then say so
      const explained = explainedFor(plan, stage).minutes * 60_000;
      const waited = at - hold.startedAt;
      const change =
        native(shown.figure) - native(hold.topUps[hold.topUps.length - 1]?.after ?? hold.start.figure);
      // a fixed period is re-adjusted and goes on, unless it cannot be kept there
      const fixed = stage.kind === 'hold' && !stage.until;
      if (fixed ? hold.topUps.length >= 5 : waited >= explained) {
        const said = unheld(change < 0 ? 'falls' : 'rises');
        if (!said) return null;
      }
      const out =
        spec.band &&
        (native(shown.figure) < native(spec.band.low) || native(shown.figure) > native(spec.band.high));
      if (out) {
        section.bring(middle(spec.band.low, spec.band.high));
        pass(1);
        say({ kind: 'top-up', before: shown.figure, after: read(gauge) });
      }
      // a fixed period is read as soon as it stands in its band again; a steady one after its window
      pass(refused.code === 'too-early' ? 30 : out && stage.kind === 'hold' && !stage.until ? 1 : 61);
    }
    return runningHold(state) === hold ? { code: 'never', text: 'The hold never ended.' } : null;
  }
}

/** What the lines of a check list ask, for whoever wants to answer them otherwise. */
export const linesOf = (plan: Plan, stage: Extract<Stage, { kind: 'checks' }>) => checkLines(plan, stage);
