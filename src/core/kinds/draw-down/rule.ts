import { permitted, stageBase } from '@/core/grammar/rule';
import { object, text } from '@/core/grammar/schema';
import { kind, optional } from '../kind';

const schema = object({
  ...stageBase,
  from: text(40),
  to: text(40),
  source: text(),
  /** Schools that compare what was drawn off with their limit: outcomes within and beyond. Else it is only measured. */
  permitted,
});

/** Drained into a measured vessel from one kept reading down to another: the decay loss as a volume. */
export const drawDown = kind('draw-down', schema, {
  presses: true,
  outcomes: (stage) => ['measured', ...(stage.permitted ? ['within', 'beyond'] : []), ...optional(stage)],
  step: () => 'fill',
  good: () => 'measured',
  work: () => ({ hands: 6 }),
  claims: () => ({ within: 'within' }),
  check: (stage, { kept, fail }) => {
    for (const name of [stage.from, stage.to])
      if (!kept.has(name)) fail('', `No stage keeps a reading named "${name}".`);
  },
  lines: (stage, write) =>
    write.add(['from'], 'Drained', `from "${stage.from}" to "${stage.to}"`, 'any', stage.source),
});
