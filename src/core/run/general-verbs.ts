import { parseWithUnit } from '@/core/quantity/exact';
import { verdictOf } from '@/core/verdict/verdict';
import type { Payload } from './events';
import { lastReadingId } from './photos';
import { debtWords, inDebtOrder } from './read';
import type { Verbs, VerbOn } from './verbs';

const signature = (
  { first, strokes }: VerbOn,
  role: 'tester' | 'customer' | 'witness',
  drawn: string,
): Extract<Payload, { kind: 'signature' }> => ({
  kind: 'signature',
  role,
  name: first,
  strokes: strokes ?? drawn,
});

/** Clears what is owed in its order, as the verdict says it must be left; `subject=answer` says one otherwise. */
function putBack({ plan, state, args }: VerbOn): Payload[] {
  const good = verdictOf(plan, state)!.use !== 'shut-off';
  return inDebtOrder(plan, state).map((d) => {
    const { text, proof, unsafe, answers } = plan.procedure.debts[d.key]!;
    const said = args.find((a) => a.startsWith(`${d.subject}=`))?.split('=')[1];
    const answer = good ? (answers?.find((a) => a.key === said) ?? answers?.[0]) : undefined;
    const words = good ? (answer?.text ?? (proof ? `${text} (proof: ${proof[0]})` : text)) : (unsafe ?? text);
    return {
      kind: 'debt',
      debt: d.key,
      text: debtWords(plan, d, words),
      ...(d.subject ? { subject: d.subject } : {}),
      ...(answer ? { answer: answer.key } : {}),
    };
  });
}

export const generalVerbs: Verbs = {
  gauge: ({ plan, first }) => {
    const gauge = plan.gauges.find((g) => g.name === first);
    if (!gauge) throw new Error(`No gauge "${first}".`);
    return { kind: 'gauge', gauge: gauge.id };
  },
  ownkit: ({ plan, args }) => ({
    kind: 'kit',
    kit: args.map((name) => plan.ownKit?.find((k) => k.name === name)?.id ?? name),
  }),
  unheld: ({ first, second, timed }) => ({ kind: 'unheld', way: first as 'falls', ...timed(second) }),
  photo: ({ state, first, second, third }) => {
    const beside = lastReadingId(state);
    return {
      kind: 'photo',
      hash: first,
      caption: second,
      ...(third ? { shows: third as 'gauge' } : {}),
      ...(beside ? { beside } : {}),
    };
  },
  proceed: () => ({ kind: 'proceed' }),
  seen: ({ first, second }) => ({ kind: 'observation', what: first as 'smell', text: second }),
  unsafe: ({ args, first, second, third }) => ({
    kind: 'unsafe',
    danger: first as 'at-risk',
    action: second as 'labelled',
    text: third,
    told: args[3] ?? '',
  }),
  /** worked PART … · isolate FIGURE PART … · isolated FIGURE · reopened [left] */
  worked: ({ args }) => ({ kind: 'worked-on', parts: [...args] }),
  isolate: ({ args, first, timed }) => ({ kind: 'isolation-start', closed: args.slice(1), ...timed(first) }),
  isolated: ({ first, timed }) => ({ kind: 'isolation-end', ...timed(first) }),
  'isolated-flow': ({ args, first }) => ({
    kind: 'isolation-flow',
    closed: args.slice(1),
    flow: parseWithUnit(first),
  }),
  dropped: () => ({ kind: 'isolation-dropped' }),
  reopened: ({ first }) => ({ kind: 'isolation-reopened', left: first === 'left' }),
  skip: ({ first, second }) => ({ kind: 'skip', reason: first, text: second }),
  note: ({ first }) => ({ kind: 'note', text: first }),
  undo: ({ state, first }) => ({
    kind: 'undo',
    of: state.back[state.back.length - 1]?.id ?? '',
    ...(first ? { reason: first } : {}),
  }),
  stop: () => ({ kind: 'stop' }),
  reason: ({ first, second }) => ({ kind: 'stop-reason', reason: first as 'smell', text: second }),
  putback: putBack,
  sign: (on) => signature(on, 'tester', 'M 4 40 C 30 5 44 60 70 30 C 90 12 110 44 150 22'),
  customer: (on) => signature(on, 'customer', 'M 6 30 C 20 50 48 4 60 34 C 80 50 96 10 132 32'),
  seenby: (on) => ({
    ...signature(on, 'witness', 'M 8 34 C 26 8 40 58 66 28 C 84 10 98 46 126 26'),
    as: on.second,
    saw: (on.third || 'whole') as 'whole',
  }),
  refuse: ({ first, second }) => ({ kind: 'signature', role: 'customer', name: first, refused: second }),
};
