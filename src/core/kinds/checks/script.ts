import type { Payload } from '@/core/run/events';
import { checkLines, currentCycle, currentVisit, positionLines, stageOf } from '@/core/run/read';
import type { Verbs } from '@/core/run/verbs';

/** Answers every open line; `line=yes` answers one otherwise. */
export const checksVerbs: Verbs = {
  checks: ({ plan, state, args }) => {
    const said = Object.fromEntries(args.map((a) => a.split('=') as [string, string]));
    const visit = currentVisit(state)!;
    const stage = stageOf(plan, visit);
    if (stage.kind === 'isolate-and-repeat')
      return positionLines(plan, stage, currentCycle(visit)!).map((l) => ({
        kind: 'check',
        item: l.id.split('/')[0]!,
        subject: l.id.split('/')[1]!,
        answer: 'done',
      }));
    if (stage.kind !== 'checks') throw new Error('No check list stands here.');
    const list = checkLines(plan, stage).map((l) => ({
      kind: 'check' as const,
      item: l.item.key,
      ...(l.subject ? { subject: l.subject.id } : {}),
      answer: (said[l.item.key] as 'yes') ?? (l.item.ask ? (l.item.must?.answer ?? 'no') : 'done'),
    }));
    const stopper = list.findIndex(
      (p) => p.answer === 'yes' && stage.items.find((i) => i.key === p.item)?.yes,
    );
    const all: Payload[] = [...list, { kind: 'proceed' }];
    return stopper >= 0 ? list.slice(0, stopper + 1) : all;
  },
};
