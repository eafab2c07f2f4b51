import { band, plainMinutes, stageBase } from '@/core/grammar/rule';
import { figure, mark, maybe, maybeAmong, maybeObject, object, text } from '@/core/grammar/schema';
import { kind, optional } from '../kind';

const schema = object({
  ...stageBase,
  band,
  /** Remembers the reading under this name: later bands refer to it. */
  keeps: maybe(),
  source: text(),
  /** What to do when the reading lies above, or below, the band. */
  over: maybe(),
  under: maybe(),
  confirms: text(),
  /** Read against a level mark, as a height over the slab, instead of a gauge. */
  by: maybeAmong(['level']),
  /** To be reached within so many minutes of entering the stage; later is the outcome `late`. */
  within: maybeObject({ minutes: plainMinutes(), source: text() }),
  /** Said as a finding of the record when the reading lies above this. */
  finding: maybeObject({ above: figure(), text: text() }),
  /** The source stays open here: a pressure that stays low is the supply's matter. */
  live: mark(),
  /** Let down to the band, not raised: it cannot fail to stand. */
  falling: mark(),
  /** Pumped empty to the band: what stays above it will not come down. */
  evacuates: mark(),
  /** The section is left at this pressure with its gauge on: a watch begins from this reading. */
  leaves: maybeAmong(['watch']),
});

/** Raised, or let down, into a band. */
export const fill = kind('fill', schema, {
  presses: true,
  outcomes: (stage) => ['in-band', ...(stage.within ? ['late'] : []), ...optional(stage)],
  step: () => 'fill',
  outside: () => true,
  unheld: (stage) => {
    if (stage.evacuates) return ['rises'];
    if (stage.falling) return stage.on.falls ? ['falls'] : [];
    return stage.live ? ['falls', 'low'] : ['falls'];
  },
  good: () => 'in-band',
  work: () => ({ hands: 3 }),
  bandSource: (stage) => stage.source,
  waysOn: (stage) => ({
    must: stage.evacuates ? ['rises'] : stage.falling ? [] : ['falls', ...(stage.live ? ['low'] : [])],
    may: stage.falling ? ['falls'] : [],
  }),
  keeps: (stage) => [stage.keeps],
  lines: (stage, write) => {
    write.add(
      ['within', 'minutes'],
      'Reached within, min',
      stage.within?.minutes,
      'greater',
      stage.within?.source,
      'number',
    );
    write.add(['leaves'], 'Left', stage.leaves && 'under watch at this pressure', 'removed');
    write.add(
      ['finding'],
      'A finding above',
      stage.finding && `${stage.finding.above}: ${stage.finding.text}`,
      'removed',
    );
  },
});
