import type { Use } from '@/core/grammar/rule';
import { notCoveredIn } from '@/core/plan/not-covered';
import { fillingOf } from '@/core/plan/filling';
import type { Plan } from '@/core/plan/plan';
import { type Figure, figureNumber, showFigure } from '@/core/quantity/figure';
import { sourceOfFirstFormat } from '@/core/quantity/sources';
import { permittedDrop } from '@/core/run/read';
import type { RunState } from '@/core/run/state';
import { tradeOf } from '@/core/trades';
import { type Adequacy, adequacyOf, measuredRate } from './adequacy';
import { decidingHold, visitsOf } from './holds';
import { judgePart, type PartVerdict, signOfLeak } from './part';
import { notTightSentence } from './sentences';
import { type StageLine, stageLines } from './stage-lines';
import { GENERAL, GRAVITY, isGood, type Reason, type VerdictWord, WORDS } from './words';

export { decidingHold } from './holds';
export { type Reason, type VerdictWord, WORDS } from './words';

/** The result of one part in a run that has several: a verdict, or (lock-up, seepage) the words of its own stage. */
export interface PartResult {
  readonly key: string;
  readonly title: string;
  readonly word: VerdictWord | null;
  readonly label: string;
  readonly sentence: string;
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
  readonly adequacy: Adequacy | null;
  readonly leakRate: Figure | null;
  /** Results of the parts, where the procedure has parts. */
  readonly parts?: readonly PartResult[];
  /** How the system may be left. */
  readonly use: Use;
}

/**
 * The verdict of a run: by the rule alone. The pack's graph claims a finding; the general rules may refuse it, never
 * improve it. Analysis has no way in.
 * @returns null while the run has not ended
 */
export function verdictOf(plan: Plan, state: RunState): Verdict | null {
  if (!state.ending) return null;
  const stopped = state.ending.by === 'stop' ? judgeStop(plan, state) : null;
  const verdict = plan.procedure.parts?.length
    ? withParts(plan, state, stopped)
    : build(plan, state, stopped ?? judgePart(plan, state, null));
  return plan.format < 2 ? inFirstWords(verdict) : verdict;
}

/**
 * A run that was stopped. It gives no result of its own, but it forgets nothing: smell, growing bubbles and drips in scope that
 * were not mended, and what was already judged Not tight, stand whoever stops it and why.
 */
function judgeStop(plan: Plan, state: RunState): PartVerdict {
  const deciding = decidingHold(plan, state);
  const result = (word: VerdictWord, code: string, text: string, source = GENERAL): PartVerdict => ({
    word,
    sentence: text,
    reasons: [{ code, text, source }],
    adequacy: adequacyOf(plan, state, deciding?.hold ?? null, null),
    leakRate: measuredRate(plan, state, deciding?.hold ?? null, null),
  });
  const said = state.ending!.text ? ` (${state.ending!.text})` : '';
  const why = STOPPED[state.ending!.reason ?? 'abandoned'];
  if (state.ending!.reason === 'smell')
    return result(
      'not-tight',
      'smell',
      `Stopped for smell of gas${said}. Smell is a leak whatever a gauge says.`,
    );
  // records of the first format kept a judgement only where the run was abandoned
  const keeps = plan.format > 1 || !state.ending!.reason || state.ending!.reason === 'abandoned';
  const sign = plan.format > 1 ? signOfLeak(state, fillingOf(plan).looks) : null;
  if (sign) return result('not-tight', sign.code, `${sign.text} ${why.then}${said}.`);
  const claim = keeps && Object.values(state.claims).find((c) => c.finding === 'not-tight');
  if (!claim) return result('void', 'stopped', `${why.first}${said}: no result.`);
  const text =
    claim.because ?? notTightSentence(plan, state, deciding?.hold ?? null, permittedDrop(plan, state), null);
  return result('not-tight', 'beyond', `${text} ${why.then}${said}.`, plan.procedure.title);
}
const STOPPED = {
  smell: { first: 'Stopped for smell of gas', then: 'The run was then stopped for smell of gas' },
  voltage: {
    first: 'Stopped for voltage on the pipework',
    then: 'The run was then stopped for voltage on the pipework',
  },
  movement: {
    first: 'Stopped because something moved: hose, plug or fitting',
    then: 'The run was then stopped because something moved',
  },
  mistake: {
    first: 'Stopped for a mistake in the procedure',
    then: 'The run was then stopped for a mistake in the procedure',
  },
  abandoned: { first: 'The run was abandoned before its end', then: 'The run was then abandoned' },
} as const;

/** The words of a part that claims no verdict: those of its last judged stage. */
function stageWords(
  plan: Plan,
  state: RunState,
  part: string,
  lines: readonly StageLine[],
): Pick<StageLine, 'word' | 'text'> | null {
  const judged = visitsOf(plan, state, part)
    .filter((v) => v.holds.some((h) => h.judgement) || v.skipped)
    .map((v) => lines[v.ordinal - 1]!);
  return judged[judged.length - 1] ?? null;
}

/** The verdict of a run from those of its parts: the gravest; a good one stands only when every part was gone through. */
function gravest(words: readonly VerdictWord[], untested: boolean, stopped: PartVerdict | null): VerdictWord {
  const worst = GRAVITY.find((w) => words.includes(w));
  if (worst && !isGood(worst)) return worst;
  if (stopped) return stopped.word;
  return worst && !untested ? worst : 'void';
}

/** Why a run is Not tight whose parts do not say so. */
function leakSeen(plan: Plan, state: RunState, stopped: PartVerdict | null): readonly Reason[] | null {
  if (stopped?.word === 'not-tight') return stopped.reasons;
  const sign = signOfLeak(state, fillingOf(plan).looks);
  return sign && [{ ...sign, source: GENERAL }];
}

function withParts(plan: Plan, state: RunState, stopped: PartVerdict | null): Verdict {
  const parts = plan.procedure.parts!;
  const whole = state.claims[''];
  const brokenWhole = whole?.finding === 'void';
  // the part in which the run stood last
  const standing = plan.procedure.stages[state.visits[state.visits.length - 1]!.stage]?.part;
  const lines = stageLines(plan, state);
  let broken: string | null = null;
  const judged = new Map<string, PartVerdict>();
  const results = parts.map((part): PartResult => {
    const { key, title } = part;
    if (!visitsOf(plan, state, key).length)
      return { key, title, word: null, label: 'Not tested', sentence: '' };
    const unfinished = stopped !== null && standing === key;
    // what was lost was lost, whatever the part before it came to
    const lost = plan.format > 1 && state.claims[key]?.finding === 'not-tight';
    if (broken && !lost)
      return {
        key,
        title,
        word: 'void',
        label: WORDS.void,
        sentence: `Void, because ${broken} before it has no result.`,
      };
    if (!state.claims[key] && !unfinished) {
      const words = stageWords(plan, state, key, lines);
      if (words) return { key, title, word: null, label: words.word, sentence: words.text };
    }
    const verdict = unfinished && !state.claims[key] ? stopped : judgePart(plan, state, key);
    judged.set(key, verdict);
    if (verdict.word === 'void') broken = title.toLowerCase();
    return { key, title, word: verdict.word, label: WORDS[verdict.word], sentence: verdict.sentence };
  });
  const words = results.flatMap((r) => (r.word ? [r.word] : []));
  const ordinary = brokenWhole
    ? 'void'
    : gravest(
        words,
        results.some((r) => r.label === 'Not tested'),
        stopped,
      );
  // a leak that was smelt or seen is one, though every part it could belong to is Void
  const seen = plan.format > 1 && ordinary !== 'not-tight' ? leakSeen(plan, state, stopped) : null;
  const word = seen ? 'not-tight' : ordinary;
  const decisive = [...results].reverse().find((r) => r.word === word && judged.has(r.key));
  const base = decisive ? judged.get(decisive.key)! : (stopped ?? null);
  const reasons: Reason[] = [
    ...(brokenWhole
      ? [{ code: `void-${whole.stage}`, text: whole.because ?? 'No result.', source: plan.procedure.title }]
      : []),
    ...(seen ?? (decisive || !stopped ? [] : stopped.reasons)),
    ...results.flatMap((r) => judged.get(r.key)?.reasons ?? []),
  ];
  const sentence = [
    ...(seen ?? []).map((r) => r.text),
    ...(brokenWhole ? [whole.because ?? ''] : []),
    ...results.map(
      (r) =>
        `${r.title}: ${r.label}${r.sentence && r.label !== 'Not tested' ? ` (${r.sentence.replace(/\.$/, '')})` : ''}.`,
    ),
  ].join(' ');
  return {
    ...build(plan, state, {
      word,
      sentence,
      reasons,
      adequacy: base?.adequacy ?? null,
      leakRate: base?.leakRate ?? null,
      ...(base?.use ? { use: base.use } : {}),
      ...(base?.plain ? { plain: base.plain } : {}),
    }),
    parts: results,
  };
}

/** What every trade says alike; what was lost, or was not, each says in its own words. */
const PLAIN = {
  void: 'The test was not carried through as the rule asks, so it says nothing about the installation. It must be repeated before the installation is relied on.',
  inconclusive:
    'The test was carried through but its result does not answer whether the installation is tight. It must be repeated.',
  refer:
    'The readings are sound, but this rule does not decide for this installation. A person competent for it must judge.',
};

function build(plan: Plan, state: RunState, result: PartVerdict): Verdict {
  const { word, sentence, reasons, adequacy, leakRate } = result;
  const label =
    plan.format < 2 && word === 'tight' && adequacy && !adequacy.enough
      ? `Tight by rule; could not have seen less than ${showFigure(adequacy.figure)}`
      : word === 'not-tight' && result.use === 'limited'
        ? 'Not tight: limited use until repaired'
        : ((word === 'tight' || word === 'not-tight') && plan.procedure.called?.[word]) || WORDS[word];
  const interval = leakRate?.note && plan.format > 1 ? ` (${leakRate.note})` : '';
  const extra =
    word === 'within-allowance' && leakRate
      ? ` As measured, the loss is about ${figureNumber(leakRate)} litres an hour${interval}.`
      : '';
  const key = word === 'not-tight' && result.use === 'limited' ? 'limited' : word;
  const plain =
    (plan.format > 1 && result.plain) ||
    plan.procedure.plain?.[key] ||
    { ...PLAIN, ...tradeOf(plan.system).plain }[word];
  return {
    word,
    label,
    sentence,
    plain: `${plain}${extra} Tested: ${plan.system.inScope.join(', ')}. Not covered: ${notCoveredIn(plan).join(', ')}.`,
    reasons,
    stages: stageLines(plan, state),
    adequacy,
    leakRate,
    use: isGood(word) ? 'in-use' : (result.use ?? (tradeOf(plan.system).staysInUse ? 'in-use' : 'shut-off')),
  };
}

/** A verdict of the first format in the sources it was sealed with. */
function inFirstWords(verdict: Verdict): Verdict {
  const figure = <T extends Figure | null>(f: T): T =>
    f ? { ...f, source: sourceOfFirstFormat(f.source) } : f;
  return {
    ...verdict,
    leakRate: figure(verdict.leakRate),
    adequacy: verdict.adequacy && { ...verdict.adequacy, figure: figure(verdict.adequacy.figure) },
  };
}
