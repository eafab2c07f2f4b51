import type { Payload } from '@/core/run/events';
import type { Verbs } from '@/core/run/verbs';

export const jointsVerbs: Verbs = {
  joint: ({ state, first, second, third }) => {
    const joint = first.toLowerCase().replace(/[^a-z0-9]+/g, '-');
    const look: Payload = {
      kind: 'joint-look',
      joint,
      found: second as 'none',
      ...(third ? { size: third as 'pea' } : {}),
    };
    return state.joints.some((j) => j.id === joint)
      ? look
      : [{ kind: 'joint', joint, name: first, place: '' }, look];
  },
};
