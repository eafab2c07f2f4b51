import { neededMinutes, smallestVisibleLeak, type HoldSetting } from '@/core/adequacy/gas';
import { leakRate } from '@/core/medium/gas';
import type { IsolateStage } from '@/core/pack/types';
import { allowanceOf, caseOf, outsideDomain, planVolume, type Plan } from '@/core/plan/plan';
import {
  breachWords,
  magnitude,
  parseWithUnit,
  showChange,
  showExact,
  toNumber,
  type Limit,
} from '@/core/quantity/exact';
import { decimalsFor, figureNumber, showFigure, type Figure } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { gaugeOf, permittedDrop, perceptibleOf } from '@/core/run/read';
import type { Hold, RunState, Visit } from '@/core/run/state';
import { duration, stageLines, type StageLine } from './stage-lines';

export const WORDS = {
  tight: 'Tight',
  'within-allowance': 'Tight within allowance',
  'not-tight': 'Not tight',
  void: 'Void',
  inconclusive: 'Inconclusive',
  refer: 'Refer',
} as const;
export type VerdictWord = keyof typeof WORDS;
export interface Reason {
  readonly code: string;
  readonly text: string;
  readonly source: string;
}
export interface Verdict {
  readonly word: VerdictWord;
  readonly label: string;
  /** The sentence of the rule that gave it. */
  readonly sentence: string;
  /** One paragraph a customer can read. */
  readonly plain: string;
  readonly reasons: readonly Reason[];
  readonly stages: readonly StageLine[];
  /** Smallest leak the judged hold could have shown; printed beside the rule result, never instead of it. */
  readonly adequacy: {
    readonly figure: Figure;
    readonly enough: boolean;
    readonly neededMinutes: number | null;
    readonly matters: string;
    readonly text: string;
  } | null;
  readonly leakRate: Figure | null;
}

const GENERAL = 'General rules of judging';

/** The judged hold that decides: the last one with a result, of the whole section or (isolate) the subject. */
export function decidingHold(state: RunState): { hold: Hold; visit: Visit } | null {
  for (const visit of [...state.visits].reverse()) {
    const hold = [...visit.holds].reverse().find((h) => h.role === 'tightness' && h.judgement);
    if (hold) return { hold, visit };
  }
  return null;
}
const pipeworkHold = (plan: Plan, state: RunState): Hold | null => {
  for (const visit of [...state.visits].reverse()) {
    const stage = plan.procedure.stages[visit.stage];
    if (stage?.kind === 'isolate-and-repeat' && (stage as IsolateStage).subjects === 'pipework') {
      const cycle = [...visit.cycles].reverse().find((c) => c.hold?.judgement);
      if (cycle) return cycle.hold!;
    }
  }
  return null;
};

/** What the let-by stages say together: the last completed one counts; a skip is sound only where physically separated. */
export function footing(
  state: RunState,
): 'proved' | 'not-proved' | 'suspected' | 'separated' | 'skipped' | 'missing' {
  let word: ReturnType<typeof footing> = 'missing';
  for (const visit of state.visits) {
    if (visit.outcome === 'skipped' && visit.skipped && visit.kind === 'hold')
      word = visit.skipped.sound ? 'separated' : 'skipped';
    const judged = visit.holds.filter((h) => h.role === 'let-by' && h.judgement);
    if (visit.skipped || !judged.length) continue;
    const outcome = judged[judged.length - 1]!.judgement!.outcome;
    word = outcome === 'proved' ? 'proved' : outcome === 'suspected' ? 'suspected' : 'not-proved';
  }
  return word;
}

/**
 * The verdict of a run: by the rule alone. The pack's graph claims a finding; the general rules below may refuse it,
 * never improve it. Analysis has no way in.
 * @returns null while the run has not ended
 */
export function verdictOf(plan: Plan, state: RunState): Verdict | null {
  if (!state.ending) return null;
  const reasons: Reason[] = [];
  const add = (code: string, text: string, source = GENERAL) => {
    reasons.push({ code, text, source });
    return text;
  };
  const finish = (word: VerdictWord, sentence: string): Verdict =>
    build(plan, state, word, sentence, reasons);

  if (state.ending.by === 'stop') {
    const said = state.ending.text ? ` (${state.ending.text})` : '';
    switch (state.ending.reason) {
      case 'smell':
        return finish(
          'not-tight',
          add('smell', `Stopped for smell of gas${said}. Smell is a leak whatever a gauge says.`),
        );
      case 'voltage':
        return finish('void', add('stopped', `Stopped for voltage on the pipework${said}: no result.`));
      case 'movement':
        return finish(
          'void',
          add('stopped', `Stopped because something moved: hose, plug or fitting${said}. No result.`),
        );
      case 'mistake':
        return finish('void', add('stopped', `Stopped for a mistake in the procedure${said}: no result.`));
      default:
        if (state.finding?.finding === 'not-tight') {
          const text = notTightSentence(
            plan,
            state,
            decidingHold(state)?.hold ?? null,
            permittedDrop(plan, state),
          );
          return finish(
            'not-tight',
            add(
              'beyond',
              `${state.finding.because ?? text} The run was then abandoned${said}.`,
              plan.procedure.title,
            ),
          );
        }
        return finish('void', add('stopped', `The run was abandoned before its end${said}: no result.`));
    }
  }

  const claim = state.finding;
  const deciding = decidingHold(state);
  const permitted = permittedDrop(plan, state);
  if (!claim) return finish('void', add('nothing-judged', 'The run ended without a judged hold: no result.'));
  const rule = plan.procedure.title;

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
    if (pipeworkClaim(plan, claim.stage)) add('pipework-moved', movedPipework(plan, state), rule);
    else if (!claim.because || measured?.outcome === 'beyond')
      add(
        'beyond',
        notTightSentence(plan, state, deciding?.hold ?? null, permitted),
        measured?.limit?.source ?? rule,
      );
    return finish('not-tight', reasons.map((r) => r.text).join(' '));
  }

  // From here on something good or undecided is claimed; each general rule may still refuse it.
  const foot = footing(state);
  if (foot === 'skipped' || foot === 'missing')
    return finish(
      'void',
      add(
        'let-by-missing',
        `The let-by test is missing${foot === 'skipped' ? ' (skipped for another reason than physical separation)' : ''}: a passing valve could hide a leak, so there is no result.`,
      ),
    );
  if (foot === 'not-proved')
    return finish(
      'void',
      add(
        'let-by-not-proved',
        'The let-by test fell, so the closed valve is not proved: leak and let-by may cancel. Only Not tight could have followed.',
      ),
    );
  if (foot === 'suspected')
    return finish('void', add('let-by-suspected', 'The let-by test rose and was not cleared up: no result.'));

  if (claim.finding === 'inconclusive')
    return finish(
      'inconclusive',
      add(`inconclusive-${claim.outcome}`, claim.because ?? 'The result does not answer the question.'),
    );

  const outside = outsideDomain(plan);
  if (outside.length) {
    const text = `${outside.join(' ')} ${plan.procedure.domain.outside}`;
    return finish('refer', add('outside-domain', text, plan.procedure.domain.source));
  }
  if (!deciding?.hold.judgement)
    return finish('void', add('nothing-judged', 'The run ended without a judged hold: no result.'));
  const { judgement } = deciding.hold;
  const elapsed = duration(judgement.elapsedMs);
  const footWords =
    foot === 'separated' ? 'the section was physically separated from the supply' : 'let-by proved';

  if (claim.finding === 'within-allowance') {
    const pipe = pipeworkHold(plan, state);
    if (!pipe?.judgement || pipe.judgement.outcome !== 'nil')
      return finish(
        'void',
        add(
          'pipework-not-tested',
          'The drop lay within the allowance, but the pipework was not shown nil: no result.',
          rule,
        ),
      );
    const allowance = allowanceOf(plan);
    const conditions = allowance.conditions.map((c) => c.text).join(', ');
    const text = `Drop of ${showExact(magnitude(judgement.change))} in ${elapsed}, permitted ${showExact(permitted!.value)} (row: ${allowance.row}; conditions met: ${conditions}). Pipework alone: no perceptible movement, ${showChange(pipe.judgement.change)}; ${footWords}.`;
    return withAdequacy(finish('within-allowance', add('allowance', text, permitted!.source)));
  }
  const text = `No perceptible movement: ${showExact(deciding.hold.start.figure)} to ${showExact(deciding.hold.end!.figure)} in ${elapsed}; ${breachWords(judgement.perceptible)} would have counted; ${footWords}.`;
  const result = finish('tight', add('nil', text, judgement.perceptible.source));
  // adequacy may take Tight away where the pack makes it binding; it can never give it
  if (plan.procedure.adequacy.binding && result.adequacy && !result.adequacy.enough)
    return finish(
      'inconclusive',
      add('adequacy', `${result.adequacy.text} The pack makes this binding.`, plan.procedure.adequacy.source),
    );
  return withAdequacy(result);

  function withAdequacy(v: Verdict): Verdict {
    return v.adequacy && !v.adequacy.enough
      ? {
          ...v,
          reasons: [
            ...v.reasons,
            { code: 'adequacy-printed', text: v.adequacy.text, source: plan.procedure.adequacy.source },
          ],
        }
      : v;
  }
}

const pipeworkClaim = (plan: Plan, stage: string) =>
  plan.procedure.stages[stage]?.kind === 'isolate-and-repeat';
function movedPipework(plan: Plan, state: RunState): string {
  const hold = pipeworkHold(plan, state);
  return `Pipework alone moved ${hold?.judgement ? showChange(hold.judgement.change) : ''}: pipework must show nil, whatever the allowance for the whole.`;
}

function notTightSentence(plan: Plan, state: RunState, hold: Hold | null, permitted: Limit | null): string {
  if (!hold?.judgement) return 'The hold moved beyond what the rule permits.';
  const j = hold.judgement;
  const drop = `Drop of ${showExact(magnitude(j.change))} in ${duration(j.elapsedMs)}`;
  if (permitted)
    return `${drop}; the table permits ${showExact(permitted.value)} (row: ${allowanceOf(plan).row}).`;
  const denied = allowanceOf(plan).conditions.find((c) => state.denied.includes(c.key));
  return `${drop}; no drop is permitted (${denied ? `condition not met: ${denied.text}` : allowanceOf(plan).row}); ${breachWords(j.perceptible)} counts as movement.`;
}

/** Settings of a hold for adequacy, from the plan and the judging gauge. */
export function holdSetting(
  plan: Plan,
  state: RunState,
  minutes: number,
  pressurePa?: number,
): HoldSetting | null {
  const gauge = gaugeOf(plan, state);
  if (!gauge) return null;
  const test = parseWithUnit(plan.procedure.pressure);
  const working = plan.system.workingPressure;
  return {
    volume: planVolume(plan).value,
    pressure: pressurePa ?? convert(toNumber(test), test.unit, 'Pa'),
    workingPressure: convert(toNumber(working), working.unit, 'Pa'),
    minutes,
    gauge,
    perceptible: perceptibleOf(plan, gauge),
  };
}
/** The leak that matters in this plan's case, l/h. */
export const leakThatMatters = (plan: Plan) =>
  parseWithUnit(caseOf(plan).leakThatMatters ?? plan.procedure.adequacy.leakThatMatters);

function adequacyOf(plan: Plan, state: RunState, hold: Hold | null): Verdict['adequacy'] {
  if (!hold?.judgement) return null;
  const pressure = convert(toNumber(hold.start.figure), hold.start.figure.unit, 'Pa');
  const setting = holdSetting(plan, state, hold.judgement.elapsedMs / 60000, pressure);
  if (!setting || pressure <= 0) return null;
  const d = plan.procedure.temperatureDefault;
  const figure = smallestVisibleLeak(setting, d);
  const matters = leakThatMatters(plan);
  const needed = neededMinutes(setting, toNumber(matters), d);
  const enough = figure.value <= toNumber(matters);
  const text = enough
    ? `This hold could have shown a leak of ${showFigure(figure)}; the leak that matters here is ${showExact(matters)}.`
    : `This hold could not have seen a leak below ${showFigure(figure)}; the leak that matters here is ${showExact(matters)}. ${needed === null ? 'A day would not be enough with this gauge: take a finer one or a smaller section.' : `This gauge and volume need ${needed} min.`}`;
  return { figure, enough, neededMinutes: needed, matters: showExact(matters), text };
}

const PLAIN: Record<VerdictWord, string> = {
  tight: 'The gas pipework and appliances inside the test lost no gas that the gauge could show.',
  'within-allowance':
    'The appliances let a small amount of gas by, within what the rule allows for this existing installation. The pipework itself lost none that the gauge could show.',
  'not-tight': 'The installation loses gas. It must not be used until it is repaired and tested again.',
  void: 'The test was not carried through as the rule asks, so it says nothing about the installation. It must be repeated before the installation is relied on.',
  inconclusive:
    'The test was carried through but its result does not answer whether the installation is tight. It must be repeated.',
  refer:
    'The readings are sound, but this rule does not decide for this installation. A person competent for it must judge.',
};

function build(
  plan: Plan,
  state: RunState,
  word: VerdictWord,
  sentence: string,
  reasons: readonly Reason[],
): Verdict {
  const deciding = decidingHold(state)?.hold ?? null;
  const adequacy = adequacyOf(plan, state, deciding);
  let rate: Figure | null = null;
  if (deciding?.judgement && deciding.judgement.elapsedMs > 0) {
    const pa = (h: { figure: Hold['start']['figure'] }) => convert(toNumber(h.figure), h.figure.unit, 'Pa');
    const start = pa(deciding.start);
    const atTest = leakRate(
      planVolume(plan).value,
      start,
      pa(deciding.end!),
      deciding.judgement.elapsedMs / 1000,
    );
    const working = convert(toNumber(plan.system.workingPressure), plan.system.workingPressure.unit, 'Pa');
    const value = start > 0 ? atTest.value * (working / start) : atTest.value;
    rate = {
      ...atTest,
      name: 'leak rate at working pressure',
      value,
      decimals: decimalsFor(value),
      formula: `${atTest.formula} × p_working/p_test`,
      inputs: [...atTest.inputs, { name: 'p_working / p_test', value: (working / start).toFixed(3) }],
    };
  }
  const label =
    word === 'tight' && adequacy && !adequacy.enough
      ? `Tight by rule; could not have seen less than ${showFigure(adequacy.figure)}`
      : WORDS[word];
  const extra =
    word === 'within-allowance' && rate
      ? ` As measured, the loss is about ${figureNumber(rate)} litres an hour.`
      : '';
  return {
    word,
    label,
    sentence,
    plain: `${PLAIN[word]}${extra} Tested: ${plan.system.inScope.join(', ')}. Not covered: ${plan.system.notCovered.join(', ')}.`,
    reasons,
    stages: stageLines(plan, state),
    adequacy,
    leakRate: rate,
  };
}
