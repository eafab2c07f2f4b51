import { stageBase } from '@/core/grammar/rule';
import { object } from '@/core/grammar/schema';
import { kind } from '../kind';

/** Which ends belong to one line, from what is seen at them. Says nothing of tightness. */
export const map = kind('map', object(stageBase), {
  outcomes: () => ['mapped', 'partly', 'unclear'],
  step: () => 'answer',
  good: () => 'mapped',
  work: () => ({ hands: 25 }),
  lines: (_, write) => write.add(['gate'], 'Gate', 'contradictions named, what is open said', 'removed'),
});
