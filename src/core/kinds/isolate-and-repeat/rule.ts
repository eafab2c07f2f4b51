import { band, plainMinutes, stageBase } from '@/core/grammar/rule';
import { among, object, text } from '@/core/grammar/schema';
import { kind, optional } from '../kind';

const schema = object({
  ...stageBase,
  subjects: among(['pipework', 'each-appliance']),
  band,
  settleMinutes: plainMinutes(),
  minutes: plainMinutes(),
  minutesSource: text(),
});

/** The hold again with parts shut off: the pipework alone, then each appliance by itself. */
export const isolate = kind('isolate-and-repeat', schema, {
  presses: true,
  outcomes: (stage) => [
    ...(stage.subjects === 'pipework' ? ['nil', 'moved', 'rose', 'disagree'] : ['done']),
    ...optional(stage),
  ],
  step: ({ cycles }, running) => {
    const cycle = cycles[cycles.length - 1];
    if (!cycle?.positions) return 'positions';
    if (!cycle.fill) return 'fill';
    return running ? 'run' : 'start';
  },
  holds: true,
  paper: () => 'inspector',
  unheld: () => ['falls'],
  good: (stage) => (stage.subjects === 'pipework' ? 'nil' : 'done'),
  work: (stage) => ({ hands: 4, wait: stage.settleMinutes + stage.minutes, close: 1 }),
  bandSource: (stage) => stage.minutesSource,
  claims: (stage) => ({ within: stage.subjects === 'pipework' ? 'nil' : undefined }),
  lines: (stage, write) => {
    write.add(
      ['settleMinutes'],
      'Settle, min',
      stage.settleMinutes,
      'smaller',
      stage.minutesSource,
      'number',
    );
    write.add(['minutes'], 'Hold, min', stage.minutes, 'smaller', stage.minutesSource, 'number');
  },
});
