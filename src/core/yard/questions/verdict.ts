/**
 * Which verdict, and why: a test as it was conducted and read, without its result. The reasons to choose from are those that the
 * rules of its trade know. Names of people and places stand nowhere in it, so that records of the house can be asked about too.
 */
import { edgesOf } from '@/core/grammar/edges';
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { limitsOf } from '@/core/record/face';
import { readingRows } from '@/core/record/readings';
import type { PlacedEvent } from '@/core/run/events';
import { gaugeOf, gaugeOfHold } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import { tradeOf } from '@/core/trades';
import { decidingHold, type Verdict, verdictOf } from '@/core/verdict/verdict';
import { type Reason, type VerdictWord, WORDS } from '@/core/verdict/words';
import type { Trap } from '../words';
import { Pick } from './pick';
import type { Choice, Posed } from './question';

/** Reasons that stand beside the one that decides. */
const BESIDE = new Set(['adequacy-printed', 'shown', 'would-decide', 'disagree']);
/** Reasons of the general rules without the figures of one test: those that carry figures would give themselves away. */
const GENERAL: readonly (readonly [code: string, word: VerdictWord, text: string])[] = [
  ['nil', 'tight', 'It moved by less than counts as movement, and every boundary was proved.'],
  ['held', 'tight', 'It stood within the bound it must hold, and did not move as a leak moves it.'],
  [
    'dial-still',
    'tight',
    'The dial of the meter stood still for as long as the leak that matters would have needed.',
  ],
  ['flow', 'within-allowance', 'The flow at the pressure asked for is no more than is permitted.'],
  ['flow', 'not-tight', 'The flow at the pressure asked for is more than is permitted.'],
  [
    'allowance',
    'within-allowance',
    'It fell by no more than is permitted here, the pipework alone stood still, and the let-by was proved.',
  ],
  ['make-up', 'within-allowance', 'What had to be added is no more than is permitted.'],
  ['stretch', 'within-allowance', 'It fell slower and slower, within the limits of its school.'],
  ['beyond', 'not-tight', 'It fell by more than is permitted here.'],
  ['loss', 'not-tight', 'It fell by more than counts as movement.'],
  [
    'pipework-moved',
    'not-tight',
    'The pipework alone moved: it must stand still, whatever the allowance for the whole.',
  ],
  [
    'will-not-stand',
    'not-tight',
    'It could not be brought to stand at the test pressure with the source closed.',
  ],
  ['will-not-stand', 'inconclusive', 'It did not stand before the hold, and why is not known.'],
  ['let-by-missing', 'void', 'The let-by test is missing: a valve that passes could hide a leak.'],
  [
    'let-by-not-proved',
    'void',
    'The let-by test fell: leak and let-by may cancel, so the valve is not proved.',
  ],
  ['masked', 'inconclusive', 'A valve that passes could hide a leak that matters.'],
  ['adequacy', 'inconclusive', 'A leak that matters would not have shown with this gauge in this time.'],
  ['smell', 'not-tight', 'There was a smell of gas: smell is a leak, whatever a gauge says.'],
  ['bubbles', 'not-tight', 'Leak fluid showed growing bubbles.'],
  ['stopped', 'void', 'It was stopped before its end: no result.'],
  ['nothing-judged', 'void', 'It ended without a judged hold: no result.'],
];
/** The reason that decides, without the figures of this test; null where only the figures say it. */
function general(reason: Reason, word: VerdictWord): Choice | null {
  const known = GENERAL.find(([code, w]) => code === reason.code && w === word);
  if (known) return { key: `${known[0]}-${word}`, text: known[2] };
  // what the rules of the pack say of it stands there without figures of this test
  return reason.code.startsWith(`${word}-`) ? { key: reason.code, text: reason.text } : null;
}
/** What the rules of a procedure say, with the finding each text goes with. */
function reasonsOf({ stages }: Plan['procedure']): (Choice & { word: VerdictWord })[] {
  const edges = Object.values(stages).flatMap((s) =>
    Object.entries(s.on).flatMap(([outcome, to]) => edgesOf(to).map((e) => ({ outcome, e }))),
  );
  return edges.flatMap(({ outcome, e }) =>
    e.because && e.finds && e.finds in WORDS
      ? [{ key: `${e.finds}-${outcome}`, text: e.because, word: e.finds as VerdictWord }]
      : [],
  );
}
/** What was read of it, stage by stage: nothing that says how it was judged. */
function linesOf(plan: Plan, state: RunState, events: readonly PlacedEvent[], { stages }: Verdict) {
  const rows = readingRows(plan, state, events);
  return stages.flatMap((line, i) => {
    const visit = state.visits[i]!;
    if (visit.kind === 'checks' && !visit.skipped) return [];
    const read = rows
      .filter((r) => r.stage === line.title)
      .map((r) => `${showExact(r.figure)} (${r.what})`)
      .slice(0, 6);
    const text = line.text || read.join(', ');
    return text ? [{ title: line.title, text }] : [];
  });
}
/** Fewer reasons to choose from are no question. */
const REASONS = 4;

/**
 * @param seed for the reasons that stand beside the right one, and their order
 * @returns null where the test says too little to be asked about
 */
export function verdictQuestion(
  plan: Plan,
  events: readonly PlacedEvent[],
  seed: number,
  traps: readonly Trap[],
): Posed | null {
  const pick = new Pick(seed);
  const state = reduce(plan, events);
  const verdict = verdictOf(plan, state);
  const decides = verdict?.reasons.find((r) => !BESIDE.has(r.code));
  if (!verdict || !decides) return null;
  const lines = linesOf(plan, state, events, verdict);
  if (lines.length < 2) return null;
  const deciding = decidingHold(plan, state);
  // a vacuum is judged by the bound it must hold, not by movement
  const code = decides.code === 'nil' && deciding?.hold.judgement?.accept ? 'held' : decides.code;
  const right = general({ ...decides, code }, verdict.word);
  if (!right) return null;
  const others = [
    ...GENERAL.map(([code, word, text]) => ({ key: `${code}-${word}`, text, word })),
    ...reasonsOf(plan.procedure),
  ].filter((r) => r.key !== right.key && r.text !== right.text);
  const unlike = pick.mixed(others.filter((r) => r.word !== verdict.word));
  // one that leads to the same verdict, and others
  const same = pick.mixed(others.filter((r) => r.word === verdict.word)).slice(0, 1);
  const seen = new Set([right.text]);
  const reasons = [right, ...same, ...unlike].filter(
    (r) => r === right || (!seen.has(r.text) && seen.add(r.text)),
  );
  if (reasons.length < REASONS) return null;
  const gauge = deciding ? gaugeOfHold(plan, deciding.hold) : gaugeOf(plan, state);
  const part = (deciding && plan.procedure.stages[deciding.visit.stage]?.part) ?? null;
  const stop = state.ending?.by === 'stop' ? state.ending : null;
  return {
    question: {
      about: 'verdict',
      trade: tradeOf(plan.system).name,
      title: plan.procedure.title,
      ask: 'Which verdict follows, and from what?',
      facts: [
        { name: 'case', value: plan.procedure.cases.find((c) => c.key === plan.case)?.title ?? '' },
        ...(gauge
          ? [
              {
                name: 'gauge',
                value: `to ${showExact(gauge.greatest)}, in steps of ${showExact(gauge.resolution)}`,
              },
            ]
          : []),
        ...(gauge ? limitsOf(plan, state, gauge, part, deciding?.hold ?? null) : []),
      ].filter((f) => f.value !== ''),
      lines: [
        ...lines,
        ...(stop ? [{ title: 'Stopped', text: [stop.reason, stop.text].filter(Boolean).join(': ') }] : []),
      ],
      choices: Object.entries(WORDS).map(([key, text]) => ({ key, text })),
      reasons: pick.mixed(reasons.slice(0, REASONS)).map(({ key, text }) => ({ key, text })),
    },
    solution: {
      choice: [verdict.word],
      reason: [right.key],
      tells: [
        verdict.sentence,
        ...verdict.reasons.map((r) => r.text).filter((text) => !verdict.sentence.includes(text)),
      ],
      source: `${decides.source}; check the edition in force`,
    },
    traps,
  };
}
