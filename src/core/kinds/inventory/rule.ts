import { stageBase } from '@/core/grammar/rule';
import { object } from '@/core/grammar/schema';
import { kind } from '../kind';
import { BASE, PER_THING } from './estimate';

/** What is present on the day, looked at and written down. */
export const inventory = kind('inventory', object(stageBase), {
  outcomes: () => ['done'],
  step: () => 'answer',
  good: () => 'done',
  work: () => ({ hands: BASE, each: { of: 'appliance', minutes: PER_THING } }),
  lines: (_, write) => write.add(['gate'], 'Gate', 'everything required written down', 'removed'),
});
