/**
 * A pressure that will not stand. A section that will not settle, a band that cannot be reached or held, a supply that stays
 * low: each is a finding that leads on, never a stage that refuses for ever. Source: general rules of judging
 */
import { wanted } from '@/core/formula';
import { movesOf } from '@/core/fillings/moves';
import type { Gauge } from '@/core/instrument/gauge';
import type { Stage } from '@/core/kinds';
import { kindOf } from '@/core/kinds';
import { endCycle } from '@/core/kinds/isolate-and-repeat/fold';
import { fillingOf } from '@/core/plan/filling';
import { type ResolvedBand } from '@/core/plan/limits';
import { type Plan } from '@/core/plan/plan';
import {
  add,
  breaks,
  compare,
  type Exact,
  type Limit,
  magnitude,
  parseWithUnit,
  showExact,
  subtract,
  toNumber,
} from '@/core/quantity/exact';
import { gaugePascal } from '@/core/quantity/pascal';
import { convert } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { fifthOfKelvin } from '@/core/roles/tightness/judge';
import type { EventOf } from '@/core/run/events';
import { readingFrom } from '@/core/run/readings';
import { aloneIn } from '@/core/verdict/correction';
import { judgeUnheld } from '@/core/verdict/judge';
import { clockPoint, elapsedBetween } from './clock';
import type { UnheldWay } from './events';
import { heldAfter, stageBand, steadyWindow } from './hold-spec';
import { gaugeOf, perceptibleOf, runningHold } from './read';
import type { Hold, Reading, RunState, Visit } from './state';
import { follow, no, type Refusal } from './transition';

/** How long a fall in this stage could be explained by warmth or stretch at most, and by whose figure. */
export function explainedFor(
  plan: Plan,
  stage: Stage,
): { readonly minutes: number; readonly source: string } {
  if (stage.kind === 'hold' && stage.explained) return stage.explained;
  const { explained, of } = fillingOf(plan, stage.part);
  return {
    minutes: explained,
    source: `House figure: warmth or stretch of a section full of ${of} fades within ${explained} min`,
  };
}

/** Whether this stage, as it stands, can be ended by saying that the pressure will not stand, and in which ways. */
export const unheldWays = (state: RunState, stage: Stage): readonly UnheldWay[] =>
  kindOf(stage).unheld?.(stage, runningHold(state) !== null) ?? [];

/** The last figure the section was brought to, and when: a start or a re-adjustment. */
const broughtTo = (hold: Hold): Exact => hold.topUps[hold.topUps.length - 1]?.after ?? hold.start.figure;

export function unheld(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'unheld'>,
  at: number,
): Refusal | null {
  const gauge = gaugeOf(plan, state);
  if (!gauge) return no('no-gauge', 'Choose and zero the gauge first.');
  if (!unheldWays(state, stage).includes(event.way))
    return no('wrong-step', 'That does not end this step. Look at what it asks for.');
  const reading = readingFrom(event, at);
  if (reading.late) return no('late', 'That reading is too old. Read the gauge now.');
  const found =
    stage.kind === 'fill' || stage.kind === 'hold' || stage.kind === 'isolate-and-repeat'
      ? stageBand(plan, state, stage)
      : { value: null };
  const band = 'missing' in found ? null : found.value;
  const hold = runningHold(state);
  if (!hold) return notHeld(plan, state, visit, stage, event.way, reading, band, at);
  const { ms } = elapsedBetween(hold.startClock, clockPoint(event, event.readAt));
  const refused =
    tooLow(stage, gauge, reading) ?? moves(plan, state, stage, hold, event.way, reading, band, gauge, ms);
  if (refused) return refused;
  if (stage.kind === 'isolate-and-repeat') {
    endHeld(plan, state, stage, hold, reading, 'falls', gauge, ms, at);
    endCycle(plan, state, visit, stage, 'beyond', at);
    return null;
  }
  if (stage.kind === 'hold' && stage.judge && !beyondWarmth(plan, stage, hold, reading.figure))
    return no(
      'explained',
      `Warmth alone can move this so far: log the temperatures and read at the end. Only a fall that ${MOST_WARMTH} K could not make is said before.`,
    );
  const explained = explainedFor(plan, stage).minutes;
  const early = event.way === 'falls' && (ms < explained * 60_000 || slight(plan, stage, hold, reading));
  visit.unheld = {
    way: event.way,
    reading,
    low: band?.low ?? null,
    high: band?.high ?? null,
    minutes: ms / 60_000,
    explained,
  };
  if (hold.role !== 'settle') {
    if (early)
      return no(
        'explained',
        `Warmth or stretch could still explain this fall for ${Math.ceil(explained - ms / 60_000)} min. Wait, or read at the end of the hold.`,
      );
    const outcome = roleOf(hold.role).endsEarly!;
    endHeld(plan, state, stage, hold, reading, 'falls', gauge, ms, at);
    hold.judgement = { ...hold.judgement!, outcome };
    if (hold.role === 'tightness') fails(state);
    follow(plan, state, outcome, at);
    return null;
  }
  const outcome = event.way === 'falls' ? (early ? 'falls-early' : 'falls') : event.way;
  endHeld(plan, state, stage, hold, reading, outcome, gauge, ms, at);
  if (outcome === 'falls') fails(state);
  if (outcome === 'rises') state.rises += 1;
  follow(plan, state, outcome, at);
  return null;
}

/** More than any room or pipe cools by in a hold, K. House figure. */
const MOST_WARMTH = 15;
/** Whether a hold that is judged without warmth has fallen further than any warmth could make it: only then it is ended early. */
export function beyondWarmth(plan: Plan, stage: Stage, hold: Hold, now: Exact): boolean {
  const fall = subtract(hold.start.figure, now);
  const start = gaugePascal(hold.start.figure);
  const weather = start === null ? null : movesOf(plan, stage.part).weather(plan.system, start);
  if (!weather || fall.digits <= 0) return false;
  return convert(toNumber(fall), fall.unit, 'Pa') > Math.abs(weather.perKelvin) * MOST_WARMTH;
}

/** A fall of gas so small that 0.2 K would do it, whenever it came: warmth can always explain that. */
const slight = (plan: Plan, stage: Stage, hold: Hold, reading: Reading): boolean =>
  fillingOf(plan, stage.part).warmth &&
  compare(lostInAll(hold, reading.figure), fifthOfKelvin(hold.start.figure)) < 0;

/** What was lost since the start, everything that was put back included. */
const lostInAll = (hold: Hold, now: Exact): Exact =>
  hold.topUps.reduce((sum, t) => add(sum, subtract(t.after, t.before)), subtract(hold.start.figure, now));

const fails = (state: RunState): void => {
  state.fails += 1;
  state.passes = 0;
};

function endHeld(
  plan: Plan,
  state: RunState,
  stage: Stage,
  hold: Hold,
  reading: Reading,
  way: 'falls' | 'falls-early' | 'rises' | 'low',
  gauge: Gauge,
  ms: number,
  at: number,
): void {
  hold.end = reading;
  hold.endedAt = at;
  hold.judgement = judgeUnheld(
    { start: hold.start.figure, end: reading.figure, elapsedMs: ms, alone: aloneIn(plan, state, stage.part) },
    perceptibleOf(plan, gauge, stage.part),
    way,
  );
}

/** Why the figures do not say what is claimed; null when they do. */
function moves(
  plan: Plan,
  state: RunState,
  stage: Stage,
  hold: Hold,
  way: UnheldWay,
  reading: Reading,
  band: ResolvedBand | null,
  gauge: Gauge,
  ms: number,
): Refusal | null {
  const perceptible = perceptibleOf(plan, gauge, stage.part);
  const from = broughtTo(hold);
  const change = subtract(reading.figure, from);
  const falls = way === 'falls';
  const outside = band !== null && compare(reading.figure, falls ? band.low : band.high) === (falls ? -1 : 1);
  const moved = breaks(magnitude(change), perceptible) && change.digits < 0 === falls;
  if (!moved)
    return no(
      'not-moved',
      `${showExact(reading.figure)} is not a perceptible ${falls ? 'fall' : 'rise'} from ${showExact(from)}. Read again later.`,
    );
  if (
    hold.role === 'settle' &&
    !outside &&
    !movesStill(plan, stage, state, hold, reading, falls, perceptible)
  )
    return no(
      'stands',
      `It has not ${falls ? 'fallen' : 'risen'} perceptibly of late: read it as the end of the settling.`,
    );
  const least = hold.role === 'settle' ? hold.rule * 60_000 : 0;
  if (!outside && ms < least)
    return no(
      'too-early',
      `The period's own ${hold.rule} min have not passed: movement in it is normal. Wait ${Math.ceil((least - ms) / 1000)} s, re-adjust, or read when it leaves the band.`,
    );
  return null;
}

/** A vacuum that came back is ended early only once it stands above its bound: below it its shape is still to be seen. */
function tooLow(stage: Stage, gauge: Gauge, reading: Reading): Refusal | null {
  if (stage.kind !== 'hold' || !stage.vacuum) return null;
  const most = wanted(parseWithUnit(stage.vacuum.most), gauge.resolution.unit, 'down');
  return compare(reading.figure, most) > 0
    ? null
    : no(
        'stands',
        `${showExact(reading.figure)} is not above ${showExact(most)}: read on, its shape is what tells.`,
      );
}

/** Whether it still moved this way over the last window: what moved long ago and stands now has settled. */
function movesStill(
  plan: Plan,
  stage: Stage,
  state: RunState,
  hold: Hold,
  reading: Reading,
  falls: boolean,
  perceptible: Limit,
): boolean {
  if (stage.kind !== 'hold') return true;
  const window = steadyWindow(heldAfter(plan, state, stage, hold.minutes));
  const from = hold.topUps[hold.topUps.length - 1]?.at ?? hold.start.readMoment;
  const before = state.visits
    .flatMap((v) => v.readings)
    .filter((r) => !r.late && r.readMoment >= from && r.readMoment <= reading.readMoment - window)
    .sort((a, b) => a.readMoment - b.readMoment)
    .pop()?.figure;
  const earlier = before && before.unit === reading.figure.unit ? before : broughtTo(hold);
  const change = subtract(reading.figure, earlier);
  return change.digits < 0 === falls && breaks(magnitude(change), perceptible);
}

/** A band that is not reached, not held until the clock starts, or not given by the supply. */
function notHeld(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  way: UnheldWay,
  reading: Reading,
  band: ResolvedBand | null,
  at: number,
): Refusal | null {
  if (way === 'rises') {
    if (!band || compare(reading.figure, band.high) <= 0)
      return no('in-band', `${showExact(reading.figure)} is in the band: go on from here.`);
  } else if (!band || compare(reading.figure, band.low) >= 0)
    return no(
      'in-band',
      `${showExact(reading.figure)} is not below the band: go on from here. Say that it will not stand when it has fallen out of it.`,
    );
  visit.unheld = { way, reading, low: band.low, high: band.high, minutes: 0, explained: 0 };
  if (stage.kind === 'isolate-and-repeat') {
    endCycle(plan, state, visit, stage, 'beyond', at);
    return null;
  }
  if (way === 'falls') fails(state);
  follow(plan, state, way, at);
  return null;
}
