/** A run of a pack that begins with a stage of the made-up kind: through loader, planner, fold, verdict and record. */
import packJson from '@packs/gas-metric.json';
import { ruleLines } from '@/core/pack/lines';
import { loadPack } from '@/core/pack/load';
import { goodPath } from '@/core/plan/good-path';
import { storyOf } from '@/core/record/story';
import { eventSchema } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { place } from '@/core/run/script';
import { gauge, hold, play, SIGNED, upTo } from '@/core/testing/bakery';
import { planOf } from '@/core/testing/quarter';
import { verdictOf } from '@/core/verdict/verdict';
import { PANELS } from '@/ui/bench/panels';
import type { PanelProps } from '@/ui/bench/shared';
import { renderToStaticMarkup } from 'react-dom/server';

const ID = 'gas-lowpressure-staged';
const raw = structuredClone(packJson) as unknown as {
  procedures: Record<string, { first: string; stages: Record<string, unknown> }>;
};
const own = raw.procedures[ID]!;
const rap = (on: Record<string, string>) => ({
  kind: 'knock',
  title: 'Rap the pipe',
  instruction: 'Rap it and listen.',
  times: 3,
  on,
});
own.stages.rap = rap({ dull: own.first, clear: own.first });
own.first = 'rap';
const pack = loadPack(raw);
const plan = planOf(ID, { pack, case: 'existing', gauges: [gauge()] });
const events = play(plan, [
  [5, 'knock', 'clear'],
  ...upTo(['8.00', '8.00']),
  ...hold(200, '20.35', '20.35'),
  [400, 'zero', '0'],
  ...SIGNED(500),
]);
const state = reduce(plan, place(events));
const refusal = (work: () => unknown): string => {
  try {
    work();
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};
const { panel: Panel } = PANELS.knock;
export const played = {
  verdict: verdictOf(plan, state)!.word,
  first: [state.visits[0]!.stage, state.visits[0]!.outcome],
  minutes: goodPath(plan)[0],
  lines: ruleLines(pack.procedures.find((p) => p.id === ID)!).filter((l) => l.label.includes('raps')),
  story: storyOf({ plan, state }, place(events))[0],
  panel: renderToStaticMarkup(
    <Panel {...({ stage: plan.procedure.stages.rap, act: () => undefined } as unknown as PanelProps)} />,
  ),
  // what a pack or an entry gets wrong is said by the kind's own schemas
  noWay: refusal(() => {
    const broken = structuredClone(raw);
    broken.procedures[ID]!.stages.rap = rap({ dull: 'prepare' });
    loadPack(broken);
  }),
  noEar: refusal(() => eventSchema.validateSync({ ...events[0], heard: 'nothing' }, { strict: true })),
};
