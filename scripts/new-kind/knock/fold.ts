import type { Course } from '@/core/run/course';
import type { Fold } from '@/core/run/fold';
import { follow, no } from '@/core/run/transition';

export const knockFold: Fold<'knock'> = {
  knock: {
    transition: true,
    apply: (event, { plan, state, stage, at }) => {
      if (stage.kind !== 'knock') return no('wrong-step', 'Nothing is rapped here.');
      follow(plan, state, event.heard, at);
      return null;
    },
    words: (event) => `rapped, heard ${event.heard}`,
    said: () => true,
  },
};
export const knockCourse: Course = (visit) => ({
  word: visit.outcome ? 'heard' : 'open',
  text: visit.outcome ?? '',
});
