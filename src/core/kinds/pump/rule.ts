import * as yup from 'yup';
import { band, stageBase } from '@/core/grammar/rule';
import {
  figure,
  maybe,
  maybeList,
  maybeNumber,
  maybeObject,
  number,
  object,
  text,
} from '@/core/grammar/schema';
import { parseWithUnit } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import { kind, optional } from '../kind';

const schema = object({
  ...stageBase,
  band,
  /** Parts of the test pressure, the last of them 100; or `every` so much. */
  steps: maybeList(
    object({ percent: number().integer().min(1).max(100), minutes: number().min(0).max(1440) }),
  ),
  /** So much more each time, until the band is reached. */
  every: maybeObject({ by: figure(), minutes: number().min(0).max(1440) }),
  keeps: maybe(),
  source: text(),
  confirms: text(),
  /** A faster rise than this per minute is warned of. */
  fastest: maybeObject({ value: figure(), source: text() }),
  /**
   * Too much air, bleed again: more than this part of the volume (at atmospheric pressure), or more water taken than
   * so many times what water and wall alone would take.
   */
  airMost: maybeObject({
    percent: maybeNumber().integer().min(0).max(100),
    times: yup
      .string()
      .strict(true)
      .matches(/^\d+(\.\d+)?$/, 'must be a factor as text, like "1.5"')
      .optional(),
    source: text(),
  }),
});

/** Steps that are planned for where their number follows from the pressure. */
const USUAL_STEPS = 3;
/**
 * Raised in stages, each with a pause and a look at every joint; what the pump delivered gives the trapped air. The last
 * step reaches the band.
 */
export const pump = kind('pump', schema, {
  presses: true,
  outcomes: (stage) => [
    'raised',
    'drips',
    'not-reached',
    ...(stage.airMost ? ['air'] : []),
    ...optional(stage),
  ],
  step: ({ pumped }) => (pumped.length && !pumped[pumped.length - 1]!.look ? 'run' : 'start'),
  paper: () => 'inspector',
  good: () => 'raised',
  work: (stage) => {
    const count = stage.steps?.length ?? USUAL_STEPS;
    return {
      hands: 3 + 3 * count,
      wait: stage.every
        ? count * stage.every.minutes
        : (stage.steps ?? []).reduce((sum, step) => sum + step.minutes, 0),
      close: 1,
    };
  },
  bandSource: (stage) => stage.source,
  keeps: (stage) => [stage.keeps],
  check: (stage, { fail }) => {
    if (!stage.steps?.length === !stage.every)
      fail('steps', 'Say either steps or "every": one of both leads to the test pressure.');
    if (stage.steps?.length && stage.steps[stage.steps.length - 1]!.percent !== 100)
      fail('steps', 'The last step must reach 100 percent.');
    if (stage.every && UNITS[parseWithUnit(stage.every.by).unit].dimension !== 'pressure')
      fail('every', 'What it is raised by each time is a pressure, like "5 psi".');
    if (stage.every && parseWithUnit(stage.every.by).digits <= 0)
      fail('every', 'What it is raised by each time is above zero.');
  },
  lines: (stage, write) => {
    write.add(
      ['steps'],
      'Steps',
      stage.every
        ? `${stage.every.by} more each time, pause ${stage.every.minutes} min`
        : (stage.steps ?? []).map((s) => `${s.percent} %, pause ${s.minutes} min`).join('; '),
      'any',
      stage.source,
    );
    write.add(
      ['fastest', 'value'],
      'Fastest rise a minute',
      stage.fastest?.value,
      'greater',
      stage.fastest?.source,
      'figure',
    );
    const air = stage.airMost;
    write.add(
      ['airMost', 'percent'],
      'Trapped air at most, percent',
      air?.percent,
      'greater',
      air?.source,
      'number',
    );
    write.add(['airMost', 'times'], 'Water taken at most, times stiffness', air?.times, 'any', air?.source);
  },
});
