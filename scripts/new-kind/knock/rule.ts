import { stageBase } from '@/core/grammar/rule';
import { number, object } from '@/core/grammar/schema';
import { kind } from '../kind';

/** Made up: the pipe is rapped so many times, and what is heard decides where the way leads. */
export const knock = kind('knock', object({ ...stageBase, times: number().integer().min(1).max(9) }), {
  outcomes: () => ['dull', 'clear'],
  step: () => 'choose',
  good: () => 'dull',
  work: (stage) => ({ hands: stage.times }),
  lines: (stage, write) => write.add(['times'], 'raps', stage.times, 'greater'),
});
