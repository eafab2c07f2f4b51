/** The result of one part of a run: by its rule alone. The graph claims a finding; the general rules may refuse it. */
import { known } from '@/core/formula';
import type { Use } from '@/core/grammar/rule';
import { LEVEL_MARK } from '@/core/instrument/gauge';
import { allowanceOf, testPressureOf } from '@/core/plan/limits';
import { outsideDomain, type Plan, ruleOf } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { breachWords, type Limit, magnitude, showChange, showExact } from '@/core/quantity/exact';
import { type Figure, figureNumber, showFigure } from '@/core/quantity/figure';
import { unitLabel } from '@/core/quantity/unit';
import { claimOf, drips, leakingBounds, leakingJoints, permittedDrop } from '@/core/run/read';
import { lastPumped } from '@/core/run/section-now';
import type { DrawnDown, Hold, RunState, Unheld } from '@/core/run/state';
import { type Adequacy, adequacyOf, dialAdequacy, measuredRate } from './adequacy';
import { decidingHold, footing, pipeworkHold, separationWords, visitsOf } from './holds';
import type { Judgement } from './judge';
import { GENERAL, type Reason, type VerdictWord } from './words';

export interface PartVerdict {
  readonly word: VerdictWord;
  readonly sentence: string;
  readonly reasons: readonly Reason[];
  readonly adequacy: Adequacy | null;
  readonly leakRate: Figure | null;
  /** How the system may be left, where the rule says so. */
  readonly use?: Use;
  /** What a customer is told of it, where the rule has words of its own. */
  readonly plain?: string;
}

/** Signs that are a leak whatever a gauge says: smell, growing bubbles or a drip in scope that nobody mended. */
export function signOfLeak(state: RunState): { readonly code: string; readonly text: string } | null {
  if (state.observations.some((o) => o.what === 'smell'))
    return {
      code: 'smell',
      text: 'Gas was smelt during the test. Smell is a leak whatever a gauge says.',
    };
  const bubbling = leakingJoints(state);
  if (bubbling.length)
    return {
      code: 'bubbles',
      text: `Leak fluid showed growing bubbles: ${bubbling.map((j) => j.name).join(', ')}.`,
    };
  const where = drips(state);
  return where ? { code: 'drips', text: `It drips: ${where}.` } : null;
}

/** @param part the part's key, or null for a procedure without parts. The run must have ended. */
export function judgePart(plan: Plan, state: RunState, part: string | null): PartVerdict {
  const reasons: Reason[] = [];
  const rule = part ? (plan.procedure.parts?.find((p) => p.key === part)?.title ?? '') : plan.procedure.title;
  const add = (code: string, text: string, source = GENERAL) => {
    reasons.push({ code, text, source });
    return text;
  };
  const deciding = decidingHold(plan, state, part);
  const watched = [...visitsOf(plan, state, part)].reverse().find((v) => v.dial?.moved !== undefined);
  const claim = claimOf(state, part);
  const finish = (word: VerdictWord, sentence: string): PartVerdict => ({
    word,
    sentence,
    reasons,
    adequacy: deciding
      ? adequacyOf(plan, state, deciding.hold, part)
      : watched
        ? dialAdequacy(plan, watched, watched.dial!, part)
        : null,
    leakRate: deciding ? measuredRate(plan, state, deciding.hold, part) : (watched?.dial?.rate ?? null),
    // how it may be left follows the final verdict: a claim that was refused takes its use along
    ...(claim?.use && (plan.format < 2 || word === claim.finding) ? { use: claim.use } : {}),
    ...(claim?.plain && word === claim.finding ? { plain: claim.plain } : {}),
  });
  const permitted = permittedDrop(plan, state, part);
  const sign = signOfLeak(state);
  // a sign that was seen outlasts a broken procedure; whose part it belongs to is the whole run's to say
  if (sign && plan.format > 1 && part === null && claim?.finding !== 'not-tight')
    return finish('not-tight', add(sign.code, sign.text));
  if (!claim) return finish('void', add('nothing-judged', 'The run ended without a judged hold: no result.'));

  if (claim.finding === 'void')
    return finish(
      'void',
      add(`void-${claim.stage}`, claim.because ?? 'The procedure was broken: no result.', rule),
    );
  if (claim.finding === 'pending')
    return finish(
      'void',
      add(
        'pipework-not-tested',
        'The drop lay within the allowance, but the pipework was not then tested alone: no result.',
        rule,
      ),
    );

  if (claim.finding === 'not-tight') {
    const measured = deciding?.hold.judgement;
    if (claim.because) add(`not-tight-${claim.outcome}`, claim.because, rule);
    const stood = state.visits[claim.visit - 1]?.unheld;
    if (stood) add('will-not-stand', unheldSentence(stood), GENERAL);
    if (stood && !measured?.rate) {
      // what would not stand was said; a hold before it adds nothing
    } else if (measured && claim.outcome === measured.outcome && lossSentence(deciding.hold))
      add('loss', lossSentence(deciding.hold)!, measured.limit?.source ?? rule);
    else if (measured?.rate && claim.outcome === measured.outcome)
      add('leak-rate', rateSentence(plan, state, deciding!.hold), measured.rate.source);
    else if (pipeworkClaim(plan, claim.stage)) add('pipework-moved', movedPipework(plan, state, part), rule);
    else if (!claim.because || measured?.outcome === 'beyond')
      add(
        'beyond',
        notTightSentence(plan, state, deciding?.hold ?? null, permitted, part),
        measured?.limit?.source ?? rule,
      );
    return finish('not-tight', reasons.map((r) => r.text).join(' '));
  }

  if (sign) return finish('not-tight', add(sign.code, sign.text));
  const bounds = leakingBounds(state);
  if (bounds.length)
    return finish(
      'void',
      add(
        'own-kit-bubbles',
        `Leak fluid showed growing bubbles on own kit or on a boundary: ${bounds.map((j) => j.name).join(', ')}. What the gauge did says nothing of the installation: no result.`,
      ),
    );

  // From here on something good or undecided is claimed; each general rule may still refuse it.
  if (claim.finding === 'refer')
    return finish(
      'refer',
      add(`refer-${claim.outcome}`, claim.because ?? 'Somebody else must judge this reading.', rule),
    );
  // what was kept but answers nothing is not Void because the boundary, proved last, was never reached
  const undecided = (): PartVerdict => {
    const stood = state.visits[claim.visit - 1]?.unheld;
    if (stood) add('will-not-stand', unheldSentence(stood), GENERAL);
    const unexplained = deciding?.hold.judgement && disagreement(deciding.hold.judgement);
    if (unexplained && claim.outcome === 'disagree') add('disagree', unexplained, GENERAL);
    add(`inconclusive-${claim.outcome}`, claim.because ?? 'The result does not answer the question.');
    return finish('inconclusive', reasons.map((r) => r.text).join(' '));
  };
  const foot = footing(plan, state, part);
  if (claim.finding === 'inconclusive' && plan.format > 1 && foot !== 'skipped') return undecided();
  if (foot === 'skipped' || foot === 'missing')
    return finish(
      'void',
      add(
        'let-by-missing',
        `The let-by test is missing${foot === 'skipped' ? ' (skipped for another reason than physical separation)' : ''}: a passing valve could hide a leak, so there is no result.`,
      ),
    );
  const counted = deciding?.hold.judgement?.rate?.flattered !== undefined;
  if (foot === 'not-proved' && !counted)
    return finish(
      'void',
      add(
        'let-by-not-proved',
        'The let-by test fell, so the closed valve is not proved: leak and let-by may cancel. Only Not tight could have followed.',
      ),
    );
  if (foot === 'suspected')
    return finish('void', add('let-by-suspected', 'The let-by test rose and was not cleared up: no result.'));

  if (claim.finding === 'inconclusive') return undecided();

  const outside = outsideDomain(plan, part);
  const { domain, adequacy: wanted } = ruleOf(plan, part);
  if (outside.length)
    return finish('refer', add('outside-domain', `${outside.join(' ')} ${domain.outside}`, domain.source));
  const footWords =
    foot === 'not-proved'
      ? `the let-by fell, so what a passing valve could flatter (${((deciding?.hold.judgement?.rate?.flattered ?? 0) * 100).toFixed(1)} %) is counted in`
      : foot !== 'separated'
        ? 'let-by proved'
        : separationWords(plan, state);
  const looked = state.joints.filter(
    (j) => j.looks.length === 0 || j.looks[j.looks.length - 1]!.found === 'foam',
  );
  if (!deciding?.hold.judgement) {
    if (watched?.dial?.moved === false && claim.finding === 'tight') {
      const time = duration(watched.dial.watched ?? watched.dial.endedAt! - watched.dial.startedAt);
      const text = `The meter's test dial${plan.system.meter.testDial ? ` (${showExact(plan.system.meter.testDial)} a turn)` : ''} stood still at its mark for ${time}; any movement would have counted; ${footWords}.`;
      return good(finish('tight', add('dial-still', text, rule)));
    }
    return finish('void', add('nothing-judged', 'The run ended without a judged hold: no result.'));
  }
  const { judgement } = deciding.hold;
  const elapsed = duration(judgement.elapsedMs);

  if (claim.finding === 'within-allowance') {
    if (judgement.makeUp?.limit) {
      const { added, limit } = judgement.makeUp;
      const text = `${showExact(added)} of make-up at test pressure in ${elapsed}; the limit is ${showExact(limit.value)} (${limit.source}: ${limit.working.formula}).`;
      return good(finish('within-allowance', add('make-up', text, limit.source)));
    }
    if (judgement.rate) {
      const nothing = judgement.direction === 'none' ? ' The gauge itself showed no movement.' : '';
      const text = `${rateSentence(plan, state, deciding.hold)}; ${footWords}.${nothing}`;
      return good(finish('within-allowance', add('leak-rate', text, judgement.rate.source)));
    }
    const drawn = [...visitsOf(plan, state, part)].reverse().find((v) => v.drawn?.limit)?.drawn;
    if (drawn?.limit && claim.outcome === 'within' && !judgement.makeUp)
      return good(finish('within-allowance', add('drawn', drawnSentence(drawn), drawn.limit.source)));
    if (deciding.hold.role === 'stretch') {
      const text = waterSentence(plan, state, deciding.hold, elapsed, part)!;
      return good(finish('within-allowance', add('stretch', text, judgement.limit?.source ?? rule)));
    }
    const pipe = pipeworkHold(plan, state, part);
    if (!pipe?.judgement || pipe.judgement.outcome !== 'nil')
      return finish(
        'void',
        add(
          'pipework-not-tested',
          'The drop lay within the allowance, but the pipework was not shown nil: no result.',
          rule,
        ),
      );
    const allowance = allowanceOf(plan, part);
    const conditions = allowance.conditions.map((c) => c.text).join(', ');
    const text = `Drop of ${showExact(magnitude(judgement.change))} in ${elapsed}, permitted ${showExact(permitted!.value)} (row: ${allowance.row}; conditions met: ${conditions}). Pipework alone: no perceptible movement, ${showChange(pipe.judgement.change)}; ${footWords}.`;
    return good(finish('within-allowance', add('allowance', text, permitted!.source)));
  }
  const own = waterSentence(plan, state, deciding.hold, elapsed, part);
  const text =
    own ??
    `No perceptible movement: ${showExact(deciding.hold.start.figure)} to ${showExact(deciding.hold.end!.figure)} in ${elapsed}; ${breachWords(judgement.perceptible)} would have counted; ${footWords}.`;
  const result = finish('tight', add('nil', text, judgement.perceptible.source));
  // adequacy may take Tight away where the pack makes it binding; it can never give it
  if (wanted.binding && result.adequacy && !result.adequacy.enough)
    return finish(
      'inconclusive',
      add('adequacy', `${result.adequacy.text} The pack makes this binding.`, wanted.source),
    );
  return good(result);

  function good(v: PartVerdict): PartVerdict {
    if (plan.format > 1) {
      if (state.spoiled.length) return finish('inconclusive', add('spoiled', state.spoiled.join(' '), rule));
      const air = airTooMuch(state);
      if (air)
        return finish(
          'inconclusive',
          add(
            'air',
            `${air} A leak shows late in a section this soft: the result does not answer the question.`,
            rule,
          ),
        );
      const capped = cappedBy(plan, part);
      if (capped) return finish('refer', add('capped', capped, rule));
      // a joint that was disturbed for the test is the likeliest leak of all, and a hold before it says nothing of it
      if (looked.length)
        return finish(
          'inconclusive',
          add(
            'joints-open',
            `Disturbed today and not cleared with leak fluid: ${looked.map((j) => j.name).join(', ')}. Look at it under pressure, or test again.`,
            rule,
          ),
        );
    }
    if (looked.length)
      add('joints-open', `Not cleared with leak fluid: ${looked.map((j) => j.name).join(', ')}.`, rule);
    if (deciding?.hold.short)
      add(
        'shortened',
        `Ended before the planned ${deciding.hold.minutes} min: ${deciding.hold.short}. The rule's own ${deciding.hold.rule} min were kept.`,
        rule,
      );
    if (v.adequacy && !v.adequacy.enough) add('adequacy-printed', v.adequacy.text, wanted.source);
    return { ...v, reasons: [...reasons] };
  }
}

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
      return `It kept rising: ${shown}${time}.`;
    case 'low':
      return `It stayed low with the source open: ${shown}.`;
  }
}
/** Why readings that stood still, or moved, were not taken as they were. */
function disagreement(j: Judgement): string | null {
  if (j.uncorrected) return `Temperatures were logged and differ, but ${j.uncorrected}.`;
  if (j.barometer && !j.barometer.read)
    return `The barometer was not read; over this hold it may have moved the gauge by ${showExact(j.barometer.share)}, as much as what counts.`;
  if (j.corrected === undefined) return null;
  const unit = unitLabel(j.change.unit);
  const text = j.corrected.toFixed(j.change.scale + 1).replace('-', '−');
  return `The gauge showed ${showChange(j.change)}; without what warmth and barometer alone do, ${text} ${unit}: the two disagree.`;
}
/** The newest raising ended with too much air trapped; '' when it did not. */
function airTooMuch(state: RunState): string {
  const last = lastPumped(state);
  if (last?.outcome !== 'air') return '';
  const percent = Math.max(...last.pumped.map((p) => p.air?.percent ?? 0));
  return `The section could not be bled: trapped air is ${percent.toFixed(percent < 10 ? 1 : 0)} % of its volume.`;
}
/** Tested at less than the school's multiple because a part permits no more; '' otherwise. */
function cappedBy(plan: Plan, part: string | null): string {
  const found = known(() => testPressureOf(plan, part));
  const cap = 'value' in found ? found.value.working?.capped : undefined;
  if (!cap) return '';
  return `Tested at ${showExact(cap.used)}, ${cap.times} × working, because ${cap.by} permits no more; the school asks for ${showExact(cap.asked)} (${cap.multiple}). Whether that is enough is for whoever answers for the installation.`;
}

/** What was drawn off after a decay, against the limit of a school that compares it. */
const drawnSentence = (d: DrawnDown): string =>
  `${showExact(d.volume)} drawn off between ${showExact(d.from)} and ${showExact(d.to)} after ${d.minutes.toFixed(0)} min; the limit is ${showExact(d.limit!.value)} (${d.limit!.source}: ${d.limit!.working.formula}).`;

/** What a failing hold of water showed against its own limit; null for holds judged by perceptible movement. */
function lossSentence(hold: Hold): string | null {
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
function waterSentence(
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

const pipeworkClaim = (plan: Plan, stage: string) =>
  plan.procedure.stages[stage]?.kind === 'isolate-and-repeat';
function movedPipework(plan: Plan, state: RunState, part: string | null): string {
  const hold = pipeworkHold(plan, state, part);
  return `Pipework alone moved ${hold?.judgement ? showChange(hold.judgement.change) : ''}: pipework must show nil, whatever the allowance for the whole.`;
}

const printed = (value: number): string => figureNumber({ value, decimals: 2 });

/** A measured leak rate with its interval, its class and the volume it rests on. */
function rateSentence(plan: Plan, state: RunState, hold: Hold): string {
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
