/** Events of filling and holding: fill, start, end, reading, top-up, skip. */
import { PIPE_LIST_UNCERTAINTY } from '@/core/adequacy/rate';
import { entryStep, type Gauge } from '@/core/instrument/gauge';
import { pressurePerKelvin } from '@/core/medium/gas';
import type { HoldStage, IsolateStage, Stage } from '@/core/kinds';
import { acceptOf, inBand, ruleOf, type Plan } from '@/core/plan/plan';
import { known, wanted } from '@/core/formula';
import { enteredCaps } from '@/core/plan/weakest';
import {
  breaks,
  compare,
  magnitude,
  parseWithUnit,
  showExact,
  subtract,
  toNumber,
  exact,
  inUnit,
  type Exact,
  type Limit,
} from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import {
  judgeDecay,
  judgeFloor,
  judgeLetBy,
  judgeLockUp,
  judgeMakeUp,
  judgeRate,
  judgeSettle,
  judgeStrength,
  judgeStretch,
  judgeTightness,
  type HoldFacts,
  type Judgement,
} from '@/core/verdict/judge';
import { aloneIn } from '@/core/verdict/correction';
import { barometerNeeded, barometerShare } from './barometer';
import { holdLimits } from './hold-limits';
import { fallLimit, lowestOf, madeUp, makeUpLimit } from './water-limits';
import { volumeOf } from './hold-setting';
import { heldAfter, holdSpec, stageBand, steadyWindow } from './hold-spec';
import { clockPoint, clockWords, elapsedBetween } from './clock';
import type { RunEvent } from './events';
import type { Cycle, Hold, Reading, RunState, Visit } from './state';
import {
  contextOf,
  currentCycle,
  gaugeOf,
  letByLimit,
  perceptibleOf,
  permittedDrop,
  runningHold,
  stageOf,
  stepOf,
  temperatureNeeded,
} from './read';
import { breakHold, enter, follow, no, returnToFill, type Refusal } from './transition';

/** An entry older than this when saved is late: kept, marked, never the start or end of a judged hold. House figure. */
export const LATE_AFTER_MS = 60_000;

export const mark = (state: RunState, text: string) => {
  if (!state.clockMarks.includes(text)) state.clockMarks.push(text);
};

/** Remembers a reading by name: later bands and holds refer to it. */
export function keep(state: RunState, name: string | undefined, reading: Reading): void {
  if (!name) return;
  state.kept[name] = reading.figure;
  state.keptReadings[name] = reading;
}

export const readingFrom = (
  event: Extract<
    RunEvent,
    {
      kind:
        'fill' | 'hold-start' | 'hold-end' | 'unheld' | 'reading' | 'pump-step' | 'pump-look' | 'draw-down';
    }
  >,
  at: number,
): Reading => ({
  id: event.id,
  at,
  readMoment: event.readAt + event.offset,
  figure: event.figure,
  byName: event.byName,
  late: (event.kind === 'reading' && event.late === true) || event.at - event.readAt > LATE_AFTER_MS,
  same: event.same === true,
  streamed: event.streamed === true,
  clock: clockPoint(event, event.readAt),
});

/** What a reading above the weakest part in scope says; '' while it is not above it. */
export function passedCap(plan: Plan, figure: Exact): string {
  const [weakest] = enteredCaps(plan);
  if (!weakest || UNITS[weakest.most.unit].dimension !== UNITS[figure.unit].dimension) return '';
  const most = wanted(weakest.most, figure.unit, 'down');
  return compare(figure, most) > 0
    ? `${showExact(figure)} is above what ${weakest.name} permits (${showExact(weakest.most)}). Release now, slowly; look at it before you raise again.`
    : '';
}

export function fill(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Extract<RunEvent, { kind: 'fill' }>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'fill' && stage.kind !== 'isolate-and-repeat')
    return no('wrong-step', 'This stage raises nothing.');
  const found = stageBand(plan, state, stage);
  if ('missing' in found) return no('missing', found.missing);
  const band = found.value;
  const reading = readingFrom(event, at);
  visit.fills.push(reading);
  if (event.figure.unit !== band.low.unit) return no('unit', 'The gauge and the rule use different units.');
  if (!inBand(event.figure, band)) {
    const over = compare(event.figure, band.high) > 0;
    const advice =
      (stage.kind === 'fill' && (over ? stage.over : stage.under)) ||
      (over ? 'Bleed down and raise again.' : 'Raise a little more.');
    return no(
      over ? 'over-band' : 'under-band',
      `${showExact(event.figure)} is ${over ? 'above' : 'below'} the band ${showExact(band.low)} to ${showExact(band.high)}. ${advice}`,
    );
  }
  const cap = passedCap(plan, event.figure);
  if (cap) return no('above-weakest', cap);
  if (stage.kind === 'fill') {
    const late =
      stage.within !== undefined && reading.readMoment > visit.entered + stage.within.minutes * 60_000;
    keep(state, stage.keeps, reading);
    if (
      stage.finding &&
      compare(event.figure, wanted(parseWithUnit(stage.finding.above), event.figure.unit, 'up')) > 0
    )
      state.findings.push(`${showExact(event.figure)}: ${stage.finding.text}`);
    if (stage.leaves && state.gauge)
      state.watch = { figure: event.figure, gauge: state.gauge, at: reading.readMoment };
    follow(plan, state, late ? 'late' : 'in-band', at);
  } else currentCycle(visit)!.fill = reading;
  return null;
}

export function startHold(
  plan: Plan,
  state: RunState,
  visit: Visit,
  event: Extract<RunEvent, { kind: 'hold-start' }>,
  at: number,
): Refusal | null {
  const found = known(() => holdSpec(plan, state));
  if ('missing' in found) return no('missing', found.missing);
  const spec = found.value;
  if (!spec || stepOf(state) !== 'start') return no('wrong-step', 'There is no hold to start here.');
  const judging = gaugeOf(plan, state);
  if (!judging) return no('no-gauge', 'Choose and zero the gauge first.');
  const start = readingFrom(event, at);
  if (start.late) return no('late-start', 'The start reading is too old. Read the gauge now and start.');
  if (spec.missing) return no('missing', spec.missing);
  if (spec.band && !inBand(event.figure, spec.band))
    return no(
      'out-of-band',
      `${showExact(event.figure)} is outside the band ${showExact(spec.band.low)} to ${showExact(spec.band.high)}. A hold starts only inside it: re-adjust first.`,
    );
  state.tapped = null;
  const hold: Hold = {
    role: spec.role,
    minutes: spec.minutes,
    rule: spec.times.rule,
    gauge: judging.id,
    start,
    startedAt: at,
    startClock: clockPoint(event),
    topUps: [],
    temperature: {},
    barometer: {},
    witness: {},
  };
  const held = stageOf(plan, visit);
  if (held.kind === 'hold') keep(state, held.keepsStart, start);
  if (visit.kind === 'hold') visit.holds.push(hold);
  else if (spec.role === 'settle') currentCycle(visit)!.settle = hold;
  else currentCycle(visit)!.hold = hold;
  return null;
}

export function endHold(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Extract<RunEvent, { kind: 'hold-end' }>,
  at: number,
): Refusal | null {
  const hold = runningHold(state);
  const gauge = gaugeOf(plan, state);
  if (!hold || !gauge) return no('no-hold', 'No hold is running.');
  const end = readingFrom(event, at);
  if (end.late) return no('late-end', 'An earlier reading cannot end a hold. Read the gauge now.');
  const elapsed = elapsedBetween(hold.startClock, end.clock);
  const toGo = hold.rule * 60000 - elapsed.ms;
  const decided =
    (hold.role === 'leak-rate' && worstClassCertain(plan, state, stage, hold, end, elapsed.ms)) ||
    makeUpDecided(plan, state, stage, hold, end.figure);
  if (toGo > 0 && !decided)
    return no(
      'too-early',
      `${Math.ceil(toGo / 1000)} s too early. Read the gauge when the time has run out.`,
    );
  const early = !decided && elapsed.ms < hold.minutes * 60000;
  if (hold.role === 'settle') {
    const refused = unsettled(plan, state, visit, stage, hold, end, gauge);
    if (refused) return refused;
  }
  if (temperatureNeeded(plan, state, hold))
    return no(
      'temperature-needed',
      'This hold repeats a movement that warmth could explain: log the pipe temperature at its start and end first, then read the gauge.',
    );
  if (barometerNeeded(plan, state, stage, hold, plan.format < 2 ? hold.minutes : elapsed.ms / 60_000))
    return no(
      'barometer-needed',
      'A hold this long needs the barometer at its start and end: log both, or say that there is none at hand. Then read the gauge.',
    );
  if (stage.kind === 'hold' && stage.witness && hold.role === 'tightness' && !hold.witness.end)
    return no(
      'witness-needed',
      `Look at the second place too (${stage.witness}) and say what its level did. Then read the mark.`,
    );
  if (
    !decided &&
    hold.role === 'make-up' &&
    breaks(subtract(hold.start.figure, end.figure), perceptibleOf(plan, gauge, stage.part))
  )
    return no(
      'not-restored',
      `Bring it back to ${showExact(hold.start.figure)} first and log the water that takes: the make-up counts up to the starting pressure.`,
    );
  if (elapsed.apart) {
    hold.clockMark = clockWords(elapsed.apart);
    mark(state, hold.clockMark);
  }
  const unknown = boundMissing(plan, state, stage, hold);
  if (unknown) return no('missing', unknown);
  const read = tappedEnd(plan, state, visit, stage, hold, end, gauge);
  if ('code' in read) return read;
  if (early && event.short) hold.short = event.short;
  hold.end = read;
  hold.endedAt = at;
  hold.judgement = judged(
    plan,
    state,
    stage,
    hold,
    factsOf(plan, state, stage, hold, read.figure, elapsed.ms),
  );
  if (hold.judgement.outcome === 'small-fall') {
    state.smallFalls += 1;
    state.fails += 1;
    state.passes = 0;
  }
  if (stage.kind === 'hold') keep(state, stage.keeps, end);
  if (hold.judgement.outcome === 'rose') state.rises += 1;
  if (stage.kind === 'hold') {
    follow(plan, state, confirmed(state, hold.judgement.outcome, stage.confirmPasses), at);
    return null;
  }
  if (hold.role === 'tightness')
    endCycle(plan, state, visit, stage as IsolateStage, hold.judgement.outcome, at);
  return null;
}

/**
 * Whether a fall already puts the whole 95 % interval into the worst class: waiting for a finer figure would only let
 * more gas out.
 */
function worstClassCertain(
  plan: Plan,
  state: RunState,
  stage: Stage,
  hold: Hold,
  end: Reading,
  elapsedMs: number,
): boolean {
  const classes = ruleOf(plan, stage.part).classes ?? [];
  const bound = classes[classes.length - 2]?.below;
  if (!bound || elapsedMs <= 0) return false;
  const {
    temperature: _t,
    barometer: _b,
    ...facts
  } = factsOf(plan, state, stage, hold, end.figure, elapsedMs);
  const rate = judged(plan, state, stage, hold, facts).rate;
  const figure = parseWithUnit(bound);
  return rate !== undefined && rate.low >= convert(toNumber(figure), figure.unit, 'l/h');
}

/** Which fact a floor or a make-up still lacks to be judged; '' when none. */
function boundMissing(plan: Plan, state: RunState, stage: Stage, hold: Hold): string {
  if ((hold.role !== 'floor' && hold.role !== 'make-up') || stage.kind !== 'hold') return '';
  const low = acceptOf(stage.accept?.low, 'low', contextOf(plan, state, stage.part), plan, stage.part);
  return low
    ? ''
    : 'What it may not fall below is not known yet. End with STOP, enter what is missing on the system page, and begin again.';
}

/** Whether more water was added already than the rule permits over the whole hold: nothing that follows takes it back. */
export function makeUpDecided(plan: Plan, state: RunState, stage: Stage, hold: Hold, end: Exact): boolean {
  if (hold.role !== 'make-up' || stage.kind !== 'hold' || plan.format < 2) return false;
  const found = known(() =>
    makeUpLimit(plan, state, stage, {
      start: hold.start.figure,
      end,
      elapsedMs: Math.max(hold.minutes, hold.rule) * 60_000,
    }),
  );
  return 'value' in found && found.value !== null && compare(madeUp(hold), found.value.value) > 0;
}

/** What keeps a settling period from ending: outside the band, or (where it must be steady) still moving. */
function unsettled(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  hold: Hold,
  end: Reading,
  gauge: Gauge,
): Refusal | null {
  if (stage.kind !== 'hold' && stage.kind !== 'isolate-and-repeat') return null;
  const found = stageBand(plan, state, stage);
  const band = 'missing' in found ? null : found.value;
  if (band && !inBand(end.figure, band)) {
    visit.readings.push(end);
    return no(
      'out-of-band',
      `${showExact(end.figure)} is outside the band ${showExact(band.low)} to ${showExact(band.high)}. Re-adjust into it (it is logged), then read again; or say that it will not stand.`,
    );
  }
  if (stage.kind !== 'hold' || stage.until !== 'steady') return null;
  const window = steadyWindow(heldAfter(plan, state, stage, hold.minutes));
  const lastTopUp = hold.topUps[hold.topUps.length - 1];
  const since = lastTopUp?.at ?? 0;
  const unit = end.figure.unit;
  // each refused end reading stays as a reading, so that the next one can be compared with it
  const read = [
    ...(lastTopUp
      ? [{ figure: lastTopUp.after, at: lastTopUp.at }]
      : [{ figure: hold.start.figure, at: hold.start.readMoment }]),
    ...visit.readings
      .filter((r) => !r.late && r.readMoment >= Math.max(since, hold.start.readMoment))
      .map((r) => ({ figure: (r.corrected ?? r).figure, at: r.readMoment })),
  ]
    .filter((r) => r.at <= end.readMoment && r.figure.unit === unit)
    .sort((a, b) => a.at - b.at);
  const covers = [...read].reverse().find((r) => end.readMoment - r.at >= window);
  visit.readings.push(end);
  if (!covers)
    return no(
      'not-steady-yet',
      `Steady is shown by readings ${window / 1000} s apart with no re-adjustment between them. This one is kept; read again in ${window / 1000} s.`,
    );
  // everything read since then counts: a fall and a rise in one window are movement too
  const inside = [...read.filter((r) => r.at >= covers.at).map((r) => r.figure), end.figure];
  const least = inside.reduce((x, y) => (compare(y, x) < 0 ? y : x));
  const most = inside.reduce((x, y) => (compare(y, x) > 0 ? y : x));
  const moved = subtract(most, least);
  if (breaks(moved, perceptibleOf(plan, gauge, stage.part)))
    return no(
      'not-steady',
      `It still moves: ${showExact(moved)} in the last ${Math.round((end.readMoment - covers.at) / 1000)} s. This reading is kept; wait and read again, or say that it will not stand.`,
    );
  return null;
}

/** A dial this close to its limit is tapped and read again: one step of its entries. */
function nearLimit(gauge: Gauge, change: Exact, limit: Limit): boolean {
  const step = entryStep(gauge);
  return compare(magnitude(subtract(magnitude(change), limit.value)), step) <= 0;
}
/**
 * The end reading that judges. A dial within one step of its limit is tapped and read again within 10 s; both are kept and
 * the larger fall judges (where a rise is looked for, the larger rise). Source: general rules of judging
 */
function tappedEnd(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  hold: Hold,
  end: Reading,
  gauge: Gauge,
): Reading | Refusal {
  const first = state.tapped;
  if (first) {
    state.tapped = null;
    const looksForRise = hold.role === 'let-by';
    const order = compare(first.figure, end.figure);
    visit.readings.push(end);
    return order !== 0 && order > 0 === looksForRise ? first : end;
  }
  if (plan.format < 2 || gauge.kind !== 'dial' || !TAPPED.has(hold.role)) return end;
  const limits = holdLimits(plan, state, stage, gauge, hold);
  const change = subtract(end.figure, hold.start.figure);
  const limit = change.digits > 0 ? limits.rise : limits.fall;
  if (change.digits === 0 || !nearLimit(gauge, change, limit)) return end;
  state.tapped = end;
  visit.readings.push(end);
  return no(
    'tap',
    `${showExact(end.figure)} is within one step of the limit. Tap the dial and read it again within 10 s: both readings are kept, the larger movement judges.`,
  );
}
const TAPPED = new Set<Hold['role']>(['tightness', 'strength', 'let-by', 'stretch']);

/** What is known of a hold when it is judged. */
function factsOf(
  plan: Plan,
  state: RunState,
  stage: Stage,
  hold: Hold,
  end: Exact,
  elapsedMs: number,
): HoldFacts {
  const { start: t0, end: t1 } = hold.temperature;
  const { start: b0, end: b1 } = hold.barometer;
  const gauge = gaugeOf(plan, state)!;
  return {
    start: hold.start.figure,
    end,
    elapsedMs,
    alone: aloneIn(plan, state, stage.part),
    share: barometerShare(plan, stage.part, gauge, hold.role, elapsedMs / 60_000),
    ...(t0 && t1 ? { temperature: [t0, t1] as const } : {}),
    ...(b0 && b1 ? { barometer: [b0, b1] as const } : {}),
  };
}

/** Judges a finished hold by its role. */
function judged(plan: Plan, state: RunState, stage: Stage, hold: Hold, facts: HoldFacts): Judgement {
  const gauge = gaugeOf(plan, state)!;
  const part = stage.part;
  const perceptible = perceptibleOf(plan, gauge, part);
  const own = stage.kind === 'hold' ? stage : null;
  const context = contextOf(plan, state, part);
  switch (hold.role) {
    case 'settle':
      return judgeSettle(facts, perceptible);
    case 'let-by':
      return judgeLetBy(facts, perceptible, letByLimit(plan, own as HoldStage, gauge));
    case 'strength':
      return judgeStrength(facts, perceptible);
    case 'lock-up':
    case 'flow':
      return judgeLockUp(facts, perceptible, {
        low: acceptOf(own?.accept?.low, 'low', context, plan, part),
        high: acceptOf(own?.accept?.high, 'high', context, plan, part),
        vent: acceptOf(own?.accept?.vent, 'low', context, plan, part),
        creep: hold.role === 'lock-up',
        ...(own?.limit ? { creepLimit: letByLimit(plan, own, gauge) } : {}),
      });
    case 'leak-rate': {
      const rule = ruleOf(plan, part);
      return judgeRate(facts, perceptible, {
        classes: rule.classes ?? [],
        volume: volumeOf(plan, state, part),
        volumeUncertainty: state.volume?.uncertainty ?? PIPE_LIST_UNCERTAINTY,
        resolution: gauge.resolution,
        working: plan.system.workingPressure,
        temperature: (minutes) => context.temperature(minutes),
        ...(plan.format < 2
          ? {}
          : { points: decayPoints(state, hold, facts), ...flatteredBy(plan, state, facts) }),
      });
    }
    case 'floor':
      return judgeFloor(facts, perceptible, lowestOf(state, hold, facts.end), {
        low: acceptOf(own?.accept?.low, 'low', context, plan, part)!,
        high: acceptOf(own?.accept?.high, 'high', context, plan, part),
      });
    case 'stretch':
      return judgeStretch(
        facts,
        perceptible,
        fallLimit(own!, gauge),
        own!.slowing ? thirdsOf(state, hold, facts) : undefined,
      );
    case 'decay':
      return judgeDecay(facts, perceptible);
    case 'make-up':
      return judgeMakeUp(
        facts,
        perceptible,
        madeUp(hold),
        makeUpLimit(plan, state, own!, facts),
        lowestOf(state, hold, facts.end),
        acceptOf(own?.accept?.low, 'low', context, plan, part)!,
      );
    case 'tightness':
      if (own?.witness && hold.witness.end?.seen === 'fell')
        return {
          ...judgeTightness(facts, { perceptible, permitted: null, minutes: hold.minutes, lateAfter: 0 }),
          outcome: 'witness',
        };
      return judgeTightness(facts, {
        perceptible,
        permitted: own?.allowance ? permittedDrop(plan, state, part) : null,
        minutes: hold.minutes,
        lateAfter: own?.lateAfter ?? 0,
        small: own?.on['small-fall'] && !state.smallFalls ? fifthOfKelvin(hold.start.figure) : null,
        again: state.smallFalls > 0,
      });
  }
}

/**
 * By how much a valve that passes could flatter a measured rate, as a part of it. Where the let-by FELL, what comes in there is
 * less than what goes out: k_in (p_s - p_l) < k_out p_l. At the pressure of the measurement it then brings back at most
 * p_l / (p_s - p_l) x (p_s - p) / p of what leaks. Nothing is said where it was proved. Source: balance of what comes in and what goes out
 */
function flatteredBy(plan: Plan, state: RunState, facts: HoldFacts): { flattered?: number } {
  const letBys = state.visits.flatMap((v) => v.holds).filter((h) => h.role === 'let-by' && h.judgement);
  const last = letBys[letBys.length - 1];
  if (last?.judgement?.outcome !== 'fell') return {};
  const pascal = (e: Exact) => convert(toNumber(e), e.unit, 'Pa');
  const supply = pascal(plan.system.supplyPressure);
  // the highest pressure at which it was seen to fall says most
  const low = pascal(last.start.figure);
  const mean = (pascal(facts.start) + Math.max(0, pascal(facts.end))) / 2;
  if (!(supply > low) || !(mean > 0)) return { flattered: 1 };
  return { flattered: Math.min(1, (low / (supply - low)) * (Math.max(0, supply - mean) / mean)) };
}

/** How far from a third of the hold a reading may stand and still tell the thirds apart, as a part of the hold. House figure. */
const THIRD_WITHIN = 1 / 12;
/** Falls of the first and last third of a hold, from what was read between; null where nothing was read near a third. */
function thirdsOf(state: RunState, hold: Hold, facts: HoldFacts): { first: Exact; last: Exact } | null {
  const { start, end } = facts;
  const from = hold.start.readMoment;
  const scale = Math.max(start.scale, end.scale);
  const read = [
    ...state.visits.flatMap((v) => v.readings).filter((r) => !r.late && r.figure.unit === start.unit),
  ].map((r): [number, Exact] => [r.readMoment - from, (r.corrected ?? r).figure]);
  const streamed = state.visits
    .flatMap((v) => v.trace)
    .map(([t, digits]): [number, Exact] => [t - from, exact(digits, scale, start.unit)]);
  const near = (part: number): Exact | null => {
    const at = facts.elapsedMs * part;
    const off = ([t]: readonly [number, Exact]) => Math.abs(t - at);
    const best = [...read, ...streamed].sort((a, b) => off(a) - off(b))[0];
    return best && off(best) <= facts.elapsedMs * THIRD_WITHIN ? best[1] : null;
  };
  const [one, two] = [near(1 / 3), near(2 / 3)];
  return one && two ? { first: subtract(start, one), last: subtract(two, end) } : null;
}

/** What 0.2 K does to gas at this pressure, in the gauge's unit: P/T x 0.2 K at 20 C. Source: general rules of judging */
export function fifthOfKelvin(start: Exact): Exact {
  const pascal = pressurePerKelvin(convert(toNumber(start), start.unit, 'Pa'), 293.15) * 0.2;
  return inUnit(exact(Math.floor(pascal * 1000), 3, 'Pa'), start.unit, start.scale + 2, 'down');
}
/** What was read of a hold, as s since its start and gauge Pa: typed and streamed, start and end among them. */
function decayPoints(state: RunState, hold: Hold, facts: HoldFacts): [number, number][] {
  const unit = hold.start.figure.unit;
  const since = hold.start.readMoment;
  const until = since + facts.elapsedMs;
  const pascal = (e: Exact) => convert(toNumber(e), e.unit, 'Pa');
  const gaugeScale = hold.start.figure.scale;
  const typed = state.visits
    .flatMap((v) => v.readings)
    .filter((r) => !r.late && r.figure.unit === unit && r.readMoment > since && r.readMoment < until)
    .map((r): [number, number] => [(r.readMoment - since) / 1000, pascal((r.corrected ?? r).figure)]);
  const streamed = state.visits
    .flatMap((v) => v.trace)
    .filter(([t]) => t > since && t < until)
    .map(([t, digits]): [number, number] => [(t - since) / 1000, pascal(exact(digits, gaugeScale, unit))]);
  return [
    [0, pascal(facts.start)],
    ...(streamed.length > typed.length ? streamed : typed).sort((a, b) => a[0] - b[0]),
    [facts.elapsedMs / 1000, pascal(facts.end)],
  ];
}

/** Counts failing and passing holds: a pass after fails must be confirmed by as many passes in a row as the rule says. */
export function confirmed(state: RunState, outcome: string, needed = 1): string {
  if (outcome === 'beyond' || outcome === 'moved') {
    state.fails += 1;
    state.passes = 0;
    return outcome;
  }
  if (outcome !== 'nil' && outcome !== 'allowance') return outcome;
  if (!state.fails) return outcome;
  state.passes += 1;
  return state.passes < needed ? 'confirm' : outcome;
}

export function endCycle(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: IsolateStage,
  judged: string,
  at: number,
): void {
  const cycle = currentCycle(visit)!;
  const outcome = judged === 'beyond' || judged === 'allowance' ? 'moved' : judged;
  cycle.outcome = outcome;
  const again = (subject: Pick<Cycle, 'subject' | 'name' | 'positions'>) => visit.cycles.push({ ...subject });
  if (stage.subjects === 'pipework') {
    if (confirmed(state, outcome, 2) === 'confirm')
      again({ subject: cycle.subject, name: cycle.name, positions: true });
    else follow(plan, state, outcome, at);
    return;
  }
  const index = plan.system.appliances.findIndex((a) => a.id === cycle.subject);
  const next = plan.system.appliances[index + 1];
  if (next) again({ subject: next.id, name: next.name, positions: false });
  else follow(plan, state, 'done', at);
}

export function keepReading(
  state: RunState,
  visit: Visit,
  event: Extract<RunEvent, { kind: 'reading' }>,
  at: number,
): Refusal | null {
  const reading = readingFrom(event, at);
  if (!reading.late && !event.expects.startsWith(`${visit.ordinal}:`))
    return no(
      'wrong-stage',
      'This reading was meant for a stage that has ended. It is in the log; write it as a note if it matters.',
    );
  // a late entry belongs to the course that was standing when the gauge was read
  const home = reading.late
    ? ([...state.visits].reverse().find((v) => v.entered <= reading.readMoment) ?? visit)
    : visit;
  home.readings.push(reading);
  return null;
}

export function topUp(
  plan: Plan,
  state: RunState,
  visit: Visit,
  event: Extract<RunEvent, { kind: 'top-up' }>,
  at: number,
): Refusal | null {
  const hold = runningHold(state);
  const entry = {
    before: event.before,
    after: event.after,
    ...(event.added ? { added: event.added } : {}),
    at,
    byName: event.byName,
  };
  if (hold?.role === 'make-up' && !event.added)
    return no('added', 'Type how much water it took: the make-up is what this hold measures.');
  if (event.added && (UNITS[event.added.unit].dimension !== 'volume' || event.added.digits < 0))
    return no('added', 'The water added is a volume of zero or more.');
  if (hold?.role === 'settle' || hold?.role === 'make-up') {
    hold.topUps.push(entry);
    // a settling period that keeps its start keeps the figure it was last brought to
    const own = hold.role === 'settle' ? stageOf(plan, visit) : null;
    if (own?.kind === 'hold' && own.keepsStart)
      keep(state, own.keepsStart, {
        ...hold.start,
        id: event.id,
        at,
        readMoment: at,
        figure: event.after,
        clock: clockPoint(event),
      });
    return null;
  }
  if (hold) {
    hold.topUps.push(entry);
    breakHold(state, 'pressure was re-adjusted during the hold', at);
    returnToFill(plan, state, at);
    return null;
  }
  if (stepOf(state) === 'start' && visit.kind === 'hold') {
    // re-adjusting before the judged hold starts: settle again
    const settle = [...state.visits].reverse().find((v) => v.holds.some((h) => h.role === 'settle'));
    state.notes.push({
      at,
      byName: event.byName,
      text: `Re-adjusted from ${showExact(event.before)} to ${showExact(event.after)} before the hold`,
      kind: 'note',
    });
    const own = stageOf(plan, visit);
    // water put in before it is measured: a section that loses it all the time can be measured all the same
    const measures = own.kind === 'hold' && (own.role === 'make-up' || own.role === 'decay');
    if (settle && !(plan.format > 1 && measures)) {
      visit.left = at;
      visit.split = 're-adjusted before the start';
      enter(plan, state, settle.stage, at);
    }
    return null;
  }
  return no('no-hold', 'There is nothing to re-adjust in this step.');
}

export function skip(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: Extract<RunEvent, { kind: 'skip' }>,
  at: number,
): Refusal | null {
  if (stage.kind === 'hold' && stage.skip) {
    const reason = stage.skip.reasons.find((r) => r.key === event.reason);
    if (!reason) return no('reason', 'Choose why this stage is skipped.');
    if (!event.text.trim()) return no('reason', 'Describe it in a few words; it is printed.');
    breakHold(state, 'skipped', at);
    visit.skipped = { reason: reason.text, text: event.text, sound: reason.sound };
    follow(plan, state, 'skipped', at);
    return null;
  }
  if (stage.optional) {
    if (stage.kind !== 'isolate-and-repeat' && !event.text.trim())
      return no('reason', 'Say in a few words why it is left out; it is printed.');
    breakHold(state, 'skipped', at);
    visit.skipped = { reason: 'Not done', text: event.text, sound: true };
    follow(plan, state, 'skipped', at);
    return null;
  }
  return no('no-skip', 'This stage cannot be skipped.');
}
