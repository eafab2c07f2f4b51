/** The result of one part of a run: by its rule alone. The graph claims a finding; the general rules may refuse it. */
import type { Looks } from '@/core/fillings/filling';
import { DRIPS } from '@/core/fillings/looks';
import { known } from '@/core/formula';
import type { Use } from '@/core/grammar/rule';
import { allowanceOf, testPressureOf } from '@/core/plan/limits';
import { fillingOf } from '@/core/plan/filling';
import { outsideDomain, type Plan, ruleOf } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { breachWords, magnitude, showChange, showExact } from '@/core/quantity/exact';
import { type Figure } from '@/core/quantity/figure';
import { claimOf, drips, leakingBounds, leakingJoints, permittedDrop } from '@/core/run/read';
import { lastPumped } from '@/core/run/section-now';
import type { Hold, RunState, Visit } from '@/core/run/state';
import { type Adequacy, adequacyOf, dialAdequacy, measuredRate } from './adequacy';
import { circuitSentence, decideSentence } from './circuit-sentences';
import { fanOfClaim, fanSentence } from './duct-sentences';
import { decidingHold, footing, pipeworkHold, separationWords, visitsOf } from './holds';
import type { Judgement } from './judge';
import { maskedIn, maskedWords } from './masked';
import {
  disagreement,
  drawnSentence,
  lossSentence,
  movedPipework,
  notTightSentence,
  pipeworkClaim,
  rateSentence,
  unheldSentence,
  waterSentence,
} from './sentences';
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
export function signOfLeak(
  state: RunState,
  looks: Looks = DRIPS,
): { readonly code: string; readonly text: string } | null {
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
  return where
    ? {
        code: 'drips',
        text: `${looks.some === 'drips' ? 'It drips' : `A joint shows ${looks.some}`}: ${where}.`,
      }
    : null;
}

/** One part that is being judged: what is known of it, and the reasons as they are found. */
class Judging {
  readonly reasons: Reason[] = [];
  readonly rule: string;
  readonly deciding: ReturnType<typeof decidingHold>;
  /** The newest meter dial that was watched to its end. */
  readonly watched: Visit | undefined;
  readonly claim: ReturnType<typeof claimOf>;
  readonly sign: ReturnType<typeof signOfLeak>;

  constructor(
    readonly plan: Plan,
    readonly state: RunState,
    readonly part: string | null,
  ) {
    this.rule = part
      ? (plan.procedure.parts?.find((p) => p.key === part)?.title ?? '')
      : plan.procedure.title;
    this.deciding = decidingHold(plan, state, part);
    this.watched = [...visitsOf(plan, state, part)].reverse().find((v) => v.dial?.moved !== undefined);
    this.claim = claimOf(state, part);
    this.sign = signOfLeak(state, fillingOf(plan, part).looks);
  }
  add(code: string, text: string, source = GENERAL): string {
    this.reasons.push({ code, text, source });
    return text;
  }
  /** The verdict with the one reason that decides it. */
  by(word: VerdictWord, code: string, text: string, source = GENERAL): PartVerdict {
    return this.finish(word, this.add(code, text, source));
  }
  /** The verdict with every reason found so far. */
  byAll(word: VerdictWord): PartVerdict {
    return this.finish(word, this.reasons.map((r) => r.text).join(' '));
  }
  /** What a fan showed, where the claim rests on one. */
  blown(claim: NonNullable<ReturnType<typeof claimOf>>): string | null {
    const visit = fanOfClaim(this.state, claim.visit, claim.finding === 'not-tight');
    return visit ? fanSentence(this.plan, this.state, visit) : null;
  }
  finish(word: VerdictWord, sentence: string): PartVerdict {
    const { plan, state, part, deciding, watched, claim, reasons } = this;
    return {
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
    };
  }
}
const SLOPES = 'Laws of small leaks (Poiseuille, Bernoulli): two slopes at two pressures';
type Claim = NonNullable<ReturnType<typeof claimOf>>;

/** @param part the part's key, or null for a procedure without parts. The run must have ended. */
export function judgePart(plan: Plan, state: RunState, part: string | null): PartVerdict {
  const j = new Judging(plan, state, part);
  const { claim, sign } = j;
  // a sign that was seen outlasts a broken procedure; whose part it belongs to is the whole run's to say
  if (sign && plan.format > 1 && part === null && claim?.finding !== 'not-tight')
    return j.by('not-tight', sign.code, sign.text);
  if (!claim) return j.by('void', 'nothing-judged', 'The run ended without a judged hold: no result.');
  switch (claim.finding) {
    case 'void':
      return j.by(
        'void',
        `void-${claim.stage}`,
        claim.because ?? 'The procedure was broken: no result.',
        j.rule,
      );
    case 'pending':
      return j.by(
        'void',
        'pipework-not-tested',
        'The drop lay within the allowance, but the pipework was not then tested alone: no result.',
        j.rule,
      );
    case 'not-tight':
      return notTight(j, claim);
  }
  if (sign) return j.by('not-tight', sign.code, sign.text);
  const bounds = leakingBounds(state);
  if (bounds.length)
    return j.by(
      'void',
      'own-kit-bubbles',
      `Leak fluid showed growing bubbles on own kit or on a boundary: ${bounds.map((b) => b.name).join(', ')}. What the gauge did says nothing of the installation: no result.`,
    );
  // From here on something good or undecided is claimed; each general rule may still refuse it.
  if (claim.finding === 'refer') return refer(j, claim);
  return standing(j, claim) ?? proved(j, claim);
}

/** Read, but for somebody else to judge; what was read stands beside it. */
function refer(j: Judging, claim: Claim): PartVerdict {
  j.add(`refer-${claim.outcome}`, claim.because ?? 'Somebody else must judge this reading.', j.rule);
  const blown = j.blown(claim);
  if (blown) j.add('flow', blown, j.rule);
  return j.byAll('refer');
}
/** A leak, with the measurement that shows it. */
function notTight(j: Judging, claim: Claim): PartVerdict {
  const { plan, state, part, deciding, rule } = j;
  const measured = deciding?.hold.judgement;
  if (claim.because) j.add(`not-tight-${claim.outcome}`, claim.because, rule);
  const stood = state.visits[claim.visit - 1]?.unheld;
  const blown = j.blown(claim);
  if (blown) j.add('flow', blown, rule);
  if (stood) j.add('will-not-stand', unheldSentence(stood), GENERAL);
  if (blown) return j.byAll('not-tight');
  if (stood && !measured?.rate) {
    // what would not stand was said; a hold before it adds nothing
  } else if (measured && claim.outcome === measured.outcome && lossSentence(deciding.hold))
    j.add('loss', lossSentence(deciding.hold)!, measured.limit?.source ?? rule);
  else if (measured?.rate && claim.outcome === measured.outcome)
    j.add('leak-rate', rateSentence(plan, state, deciding!.hold), measured.rate.source);
  else if (pipeworkClaim(plan, claim.stage)) j.add('pipework-moved', movedPipework(plan, state, part), rule);
  else if (measured && claim.outcome === measured.outcome && circuitSentence(deciding.hold))
    j.add('shown', circuitSentence(deciding.hold)!, measured.limit?.source ?? rule);
  else if (!claim.because || measured?.outcome === 'beyond')
    j.add(
      'beyond',
      notTightSentence(plan, state, deciding?.hold ?? null, permittedDrop(plan, state, part), part),
      measured?.limit?.source ?? rule,
    );
  return j.byAll('not-tight');
}

/** What was kept but answers nothing. */
function undecided(j: Judging, claim: Claim): PartVerdict {
  const stood = j.state.visits[claim.visit - 1]?.unheld;
  if (stood) j.add('will-not-stand', unheldSentence(stood), GENERAL);
  const blown = j.blown(claim);
  if (blown) j.add('flow', blown, j.rule);
  const judged = j.deciding?.hold;
  const shown = judged && judged.judgement?.outcome === claim.outcome ? circuitSentence(judged) : null;
  if (shown) j.add('shown', shown, GENERAL);
  const unexplained = j.deciding?.hold.judgement && disagreement(j.deciding.hold.judgement);
  if (unexplained && claim.outcome === 'disagree') j.add('disagree', unexplained, GENERAL);
  j.add(`inconclusive-${claim.outcome}`, claim.because ?? 'The result does not answer the question.');
  const cure = j.deciding && claim.outcome === 'unclear' && decideSentence(j.deciding.hold);
  if (cure) j.add('would-decide', cure, GENERAL);
  return j.byAll('inconclusive');
}

/** Whether what is claimed stands on a proved boundary and within the rule's domain: null where it does. */
function standing(j: Judging, claim: Claim): PartVerdict | null {
  const { plan, state, part, deciding } = j;
  const foot = footing(plan, state, part);
  // not Void because the boundary, proved last, was never reached
  if (claim.finding === 'inconclusive' && plan.format > 1 && foot !== 'skipped') return undecided(j, claim);
  if (foot === 'skipped' || foot === 'missing')
    return j.by(
      'void',
      'let-by-missing',
      `The let-by test is missing${foot === 'skipped' ? ' (skipped for another reason than physical separation)' : ''}: a passing valve could hide a leak, so there is no result.`,
    );
  const counted = deciding?.hold.judgement?.rate?.flattered !== undefined;
  if (foot === 'not-proved' && !counted)
    return j.by(
      'void',
      'let-by-not-proved',
      'The let-by test fell, so the closed valve is not proved: leak and let-by may cancel. Only Not tight could have followed.',
    );
  if (foot === 'suspected')
    return j.by('void', 'let-by-suspected', 'The let-by test rose and was not cleared up: no result.');
  if (claim.finding === 'inconclusive') return undecided(j, claim);
  const outside = outsideDomain(plan, part);
  const { domain } = ruleOf(plan, part);
  return outside.length
    ? j.by('refer', 'outside-domain', `${outside.join(' ')} ${domain.outside}`, domain.source)
    : null;
}

/** How the boundary was proved, as the last words of a good result. */
function footWords({ plan, state, part, deciding }: Judging): string {
  const foot = footing(plan, state, part);
  return foot === 'not-proved'
    ? `the let-by fell, so what a passing valve could flatter (${((deciding?.hold.judgement?.rate?.flattered ?? 0) * 100).toFixed(1)} %) is counted in`
    : foot !== 'separated'
      ? 'let-by proved'
      : separationWords(plan, state);
}

/** Something good is claimed, and the boundary is proved: by which hold, or by which dial. */
function proved(j: Judging, claim: Claim): PartVerdict {
  const { plan, state, part, deciding, watched, rule } = j;
  const blown = j.blown(claim);
  if (blown)
    return good(j, j.by(claim.finding === 'tight' ? 'tight' : 'within-allowance', 'flow', blown, rule));
  if (!deciding?.hold.judgement) {
    if (watched?.dial?.moved === false && claim.finding === 'tight') {
      const time = duration(watched.dial.watched ?? watched.dial.endedAt! - watched.dial.startedAt);
      const text = `The meter's test dial${plan.system.meter.testDial ? ` (${showExact(plan.system.meter.testDial)} a turn)` : ''} stood still at its mark for ${time}; any movement would have counted; ${footWords(j)}.`;
      return good(j, j.by('tight', 'dial-still', text, rule));
    }
    return j.by('void', 'nothing-judged', 'The run ended without a judged hold: no result.');
  }
  const { hold } = deciding;
  if (claim.finding === 'within-allowance') return withinAllowance(j, claim, hold, hold.judgement!);
  const elapsed = duration(hold.judgement!.elapsedMs);
  const text =
    circuitSentence(hold) ??
    waterSentence(plan, state, hold, elapsed, part) ??
    `No perceptible movement: ${showExact(hold.start.figure)} to ${showExact(hold.end!.figure)} in ${elapsed}; ${breachWords(hold.judgement!.perceptible)} would have counted; ${footWords(j)}.`;
  const hidden = plan.format > 1 ? maskedWords(maskedIn(plan, state, part, 'counting')) : null;
  if (hidden) return j.by('inconclusive', 'masked', hidden, SLOPES);
  const result = j.by('tight', 'nil', text, hold.judgement!.perceptible.source);
  // adequacy may take Tight away where the pack makes it binding; it can never give it
  const { adequacy: wanted } = ruleOf(plan, part);
  if (wanted.binding && result.adequacy && !result.adequacy.enough)
    return j.by(
      'inconclusive',
      'adequacy',
      `${result.adequacy.text} The pack makes this binding.`,
      wanted.source,
    );
  return good(j, result);
}

/** It moved, or was made up, by no more than the rule permits. */
function withinAllowance(j: Judging, claim: Claim, hold: Hold, judgement: Judgement): PartVerdict {
  const { plan, state, part, rule } = j;
  const elapsed = duration(judgement.elapsedMs);
  const within = (code: string, text: string, source: string) =>
    good(j, j.by('within-allowance', code, text, source));
  if (judgement.makeUp?.limit) {
    const { added, limit } = judgement.makeUp;
    const text = `${showExact(added)} of make-up at test pressure in ${elapsed}; the limit is ${showExact(limit.value)} (${limit.source}: ${limit.working.formula}).`;
    return within('make-up', text, limit.source);
  }
  if (judgement.rate) {
    const nothing = judgement.direction === 'none' ? ' The gauge itself showed no movement.' : '';
    const text = `${rateSentence(plan, state, hold)}; ${footWords(j)}.${nothing}`;
    return within('leak-rate', text, judgement.rate.source);
  }
  const drawn = [...visitsOf(plan, state, part)].reverse().find((v) => v.drawn?.limit)?.drawn;
  if (drawn?.limit && claim.outcome === 'within' && !judgement.makeUp)
    return within('drawn', drawnSentence(drawn), drawn.limit.source);
  if (hold.role === 'stretch')
    return within(
      'stretch',
      waterSentence(plan, state, hold, elapsed, part)!,
      judgement.limit?.source ?? rule,
    );
  const pipe = pipeworkHold(plan, state, part);
  if (!pipe?.judgement || pipe.judgement.outcome !== 'nil')
    return j.by(
      'void',
      'pipework-not-tested',
      'The drop lay within the allowance, but the pipework was not shown nil: no result.',
      rule,
    );
  const permitted = permittedDrop(plan, state, part)!;
  const allowance = allowanceOf(plan, part);
  const conditions = allowance.conditions.map((c) => c.text).join(', ');
  const text = `Drop of ${showExact(magnitude(judgement.change))} in ${elapsed}, permitted ${showExact(permitted.value)} (row: ${allowance.row}; conditions met: ${conditions}). Pipework alone: no perceptible movement, ${showChange(pipe.judgement.change)}; ${footWords(j)}.`;
  return within('allowance', text, permitted.source);
}

/** The last look at a good result: what spoils it, and what is printed beside it. */
function good(j: Judging, v: PartVerdict): PartVerdict {
  const { plan, state, part, deciding, rule } = j;
  const open = state.joints
    .filter((joint) => joint.looks.length === 0 || joint.looks[joint.looks.length - 1]!.found === 'foam')
    .map((joint) => joint.name)
    .join(', ');
  if (plan.format > 1) {
    if (state.spoiled.length) return j.by('inconclusive', 'spoiled', state.spoiled.join(' '), rule);
    const air = airTooMuch(state);
    if (air)
      return j.by(
        'inconclusive',
        'air',
        `${air} A leak shows late in a section this soft: the result does not answer the question.`,
        rule,
      );
    const capped = cappedBy(plan, part);
    if (capped) return j.by('refer', 'capped', capped, rule);
    // a joint that was disturbed for the test is the likeliest leak of all, and a hold before it says nothing of it
    if (open)
      return j.by(
        'inconclusive',
        'joints-open',
        `Disturbed today and not cleared with leak fluid: ${open}. Look at it under pressure, or test again.`,
        rule,
      );
  }
  if (open) j.add('joints-open', `Not cleared with leak fluid: ${open}.`, rule);
  if (deciding?.hold.short)
    j.add(
      'shortened',
      `Ended before the planned ${deciding.hold.minutes} min: ${deciding.hold.short}. The rule's own ${deciding.hold.rule} min were kept.`,
      rule,
    );
  if (v.adequacy && !v.adequacy.enough)
    j.add('adequacy-printed', v.adequacy.text, ruleOf(plan, part).adequacy.source);
  return { ...v, reasons: [...j.reasons] };
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
