import { stageBase } from '@/core/grammar/rule';
import { object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

/** The volume under test: calculated from the pipe list, or measured by a metered draw. */
export const volume = kind('volume', object({ ...stageBase, source: text() }), {
  presses: true,
  outcomes: () => ['known'],
  step: () => 'choose',
  good: () => 'known',
  work: () => ({ hands: 4 }),
});
