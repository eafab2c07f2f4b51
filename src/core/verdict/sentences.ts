/** What readings said, in the sentences of a record. */
import { LEVEL_MARK } from '@/core/instrument/gauge';
import { allowanceOf } from '@/core/plan/limits';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { breachWords, type Limit, magnitude, showChange, showExact } from '@/core/quantity/exact';
import { figureNumber, showFigure } from '@/core/quantity/figure';
import { unitLabel } from '@/core/quantity/unit';
import type { DrawnDown, Hold, RunState, Unheld } from '@/core/run/state';
import { pipeworkHold, visitsOf } from './holds';
import type { Judgement } from './judge';

/** A pressure that would not stand, as the record says it. */
export function unheldSentence(u: Unheld): string {
  const band = u.low && u.high ? ` (band ${showExact(u.low)} to ${showExact(u.high)})` : '';
  const shown = `it stood at ${showExact(u.reading.figure)}${band}`;
  const time = u.minutes > 0 ? ` after ${duration(u.minutes * 60_000)}` : '';
  switch (u.way) {
    case 'falls':
      return u.minutes === 0
        ? `The band could not be reached or held with the source closed: ${shown}.`
        : `It kept falling with the source closed: ${shown}${time}${u.explained > 0 ? `; warmth or stretch could explain a fall here for ${u.explained} min at most` : ''}.`;
    case 'rises':
      return u.minutes === 0
        ? `It would not come down to the band: ${shown}.`
        : `It kept rising: ${shown}${time}.`;
    case 'low':
      return `It stayed low with the source open: ${shown}.`;
  }
}
/** Why readings that stood still, or moved, were not taken as they were. */
export function disagreement(j: Judgement): string | null {
  if (j.uncorrected) return `Temperatures were logged and differ, but ${j.uncorrected}.`;
  if (j.barometer && !j.barometer.read)
    return `The barometer was not read; over this hold it may have moved the gauge by ${showExact(j.barometer.share)}, as much as what counts.`;
  if (j.corrected === undefined) return null;
  const unit = unitLabel(j.change.unit);
  const text = j.corrected.toFixed(j.change.scale + 1).replace('-', '−');
  return `The gauge showed ${showChange(j.change)}; without what warmth and barometer alone do, ${text} ${unit}: the two disagree.`;
}
/** What was drawn off after a decay, against the limit of a school that compares it. */
export const drawnSentence = (d: DrawnDown): string =>
  `${showExact(d.volume)} drawn off between ${showExact(d.from)} and ${showExact(d.to)} after ${d.minutes.toFixed(0)} min; the limit is ${showExact(d.limit!.value)} (${d.limit!.source}: ${d.limit!.working.formula}).`;

/** What a failing hold of water showed against its own limit; null for holds judged by perceptible movement. */
export function lossSentence(hold: Hold): string | null {
  const j = hold.judgement!;
  const time = duration(j.elapsedMs);
  if (j.makeUp?.limit)
    return `${showExact(j.makeUp.added)} of make-up at test pressure in ${time}; the limit is ${showExact(j.makeUp.limit.value)} (${j.makeUp.limit.working.formula}).`;
  if (hold.role === 'floor' && j.accept?.low)
    return `A reading lay below ${showExact(j.accept.low.value)} within ${time}.`;
  if (hold.role === 'stretch' && j.limit)
    return `It fell by ${showExact(magnitude(j.change))} in ${time}; ${breachWords(j.limit)} is too much.`;
  if (hold.gauge === LEVEL_MARK.id && j.direction === 'fall')
    return `The level fell by ${showExact(magnitude(j.change))} in ${time}; ${breachWords(j.perceptible)} counts.`;
  return null;
}

/** How a hold of water that is not judged by perceptible movement, or not by a gauge, came out; null for the others. */
export function waterSentence(
  plan: Plan,
  state: RunState,
  hold: Hold,
  elapsed: string,
  part: string | null,
): string | null {
  const j = hold.judgement!;
  const from = `${showExact(hold.start.figure)} to ${showExact(hold.end!.figure)} in ${elapsed}`;
  if (hold.role === 'floor' && j.accept?.low)
    return `No reading below ${showExact(j.accept.low.value)}: ${from}, nothing pumped; joints seen dry. A rise is normal here, stretched pipe recovers, and proves nothing by itself.`;
  if (hold.role === 'stretch' && j.limit) {
    const falls = visitsOf(plan, state, part)
      .flatMap((v) => v.holds)
      .filter((h) => h.role === 'stretch' && h.judgement)
      .map(
        (h) =>
          `${showExact(magnitude(h.judgement!.change))} in ${duration(h.judgement!.elapsedMs)} (${breachWords(h.judgement!.limit!)} would have been too much)`,
      );
    return `Stretched pipe fell by ${[...new Set(falls)].join(' and ')}, nothing pumped after it was noted; joints seen dry.`;
  }
  if (hold.role === 'make-up')
    return `No water was needed to keep ${showExact(hold.start.figure)} for ${elapsed}.`;
  if (hold.gauge === LEVEL_MARK.id)
    return `The level stood at ${showExact(hold.start.figure)} over the ${ruleOf(plan, part).levelOver ?? 'slab'} and at ${showExact(hold.end!.figure)} after ${elapsed}; ${breachWords(j.perceptible)} would have counted${hold.witness.end?.seen === 'same' ? '; the second place showed the same' : ''}.`;
  return null;
}

export const pipeworkClaim = (plan: Plan, stage: string) =>
  plan.procedure.stages[stage]?.kind === 'isolate-and-repeat';
export function movedPipework(plan: Plan, state: RunState, part: string | null): string {
  const hold = pipeworkHold(plan, state, part);
  return `Pipework alone moved ${hold?.judgement ? showChange(hold.judgement.change) : ''}: pipework must show nil, whatever the allowance for the whole.`;
}

const printed = (value: number): string => figureNumber({ value, decimals: 2 });

/** A measured leak rate with its interval, its class and the volume it rests on. */
export function rateSentence(plan: Plan, state: RunState, hold: Hold): string {
  const judgement = hold.judgement!;
  const rate = judgement.rate!;
  const volume = state.volume
    ? `volume ${(state.volume.figure.value * 1000).toFixed(1)} l by metered draw`
    : 'volume from the pipe list';
  const bounds = rate.atLeast
    ? 'only a bound from below: what is worse cannot be excluded'
    : `95 %: ${printed(plan.format > 1 ? Math.max(0, rate.low) : rate.low)} to ${printed(rate.high)} l/h`;
  return `Leak rate at working pressure ${rate.atLeast ? 'at least ' : ''}${showFigure(rate.rate)} (${bounds}) from ${showExact(hold.start.figure)} to ${showExact(hold.end!.figure)} in ${duration(judgement.elapsedMs)}, ${volume}: ${rate.title}`;
}

export function notTightSentence(
  plan: Plan,
  state: RunState,
  hold: Hold | null,
  permitted: Limit | null,
  part: string | null,
): string {
  if (!hold?.judgement) return 'The hold moved beyond what the rule permits.';
  const j = hold.judgement;
  const drop = `Drop of ${showExact(magnitude(j.change))} in ${duration(j.elapsedMs)}`;
  if (permitted)
    return `${drop}; the table permits ${showExact(permitted.value)} (row: ${allowanceOf(plan, part).row}).`;
  const allowance = allowanceOf(plan, part);
  const denied = allowance.conditions.find((c) => state.denied.includes(c.key));
  return `${drop}; no drop is permitted (${denied ? `condition not met: ${denied.text}` : allowance.row}); ${breachWords(j.perceptible)} counts as movement.`;
}
