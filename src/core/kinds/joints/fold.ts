/** Joints touched today, and what leak fluid showed on them. */
import { type Stage } from '@/core/kinds';
import { type Plan } from '@/core/plan/plan';
import type { Course } from '@/core/run/course';
import { type EventOf } from '@/core/run/events';
import { type Fold, type On, type OnStage } from '@/core/run/fold';
import { clearsJointsAfter, openJoints } from '@/core/run/read';
import { type RunState, type Visit } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

/** What leak fluid showed, in words. */
export const JOINT_WORDS = {
  none: 'no bubble',
  foam: 'fine foam: wiped, to be looked at again',
  growing: 'bubbles that grow',
} as const;
/** Whose a disturbed joint is, where it is not of the section itself. */
export const WHOSE_WORDS = { own: 'own kit', boundary: 'of a boundary' } as const;
/** Once the test is over, until somebody signs, joints are still cleared: of records that ask for it. */
const clearing = ({ plan, state }: On): boolean => plan.format > 1 && clearsJointsAfter(state);
export const jointsFold: Fold<'joint' | 'joint-look'> = {
  joint: {
    anytime: (event, on) => (clearing(on) ? addJoint(on.state, event) : undefined),
    apply: (event, { state }) => addJoint(state, event),
    words: (event) =>
      `joint disturbed today: ${event.name}${event.place ? `, ${event.place}` : ''}${event.whose ? `, ${WHOSE_WORDS[event.whose]}` : ''}`,
  },
  'joint-look': {
    anytime: (event, on) => (clearing(on) ? lookAtJoint(on.state, event, on.at) : undefined),
    apply: (event, on) => lookAtJoint(on.state, event, on.at, on),
    words: (event, { state }) =>
      `leak fluid on ${state.joints.find((j) => j.id === event.joint)?.name ?? event.joint}: ${JOINT_WORDS[event.found]}${event.size ? `, ${event.size}` : ''}`,
  },
};
/** Ends the list: every joint cleared. */
export function confirmJoints({ plan, state, at }: OnStage): Refusal | null {
  const open = openJoints(state);
  if (open.length) return no('joints', `Leak fluid has not cleared: ${open.map((j) => j.name).join(', ')}.`);
  follow(plan, state, 'clear', at);
  return null;
}

function addJoint(state: RunState, event: EventOf<'joint'>): Refusal | null {
  if (state.joints.some((j) => j.id === event.joint))
    return no('overtaken', 'This joint is already in the list.');
  if (state.joints.length >= 200)
    return no('too-many', 'The list is full: group joints that stand together.');
  state.joints.push({
    id: event.joint,
    name: event.name,
    place: event.place,
    ...(event.whose ? { whose: event.whose } : {}),
    looks: [],
  });
  return null;
}

/**
 * Leak fluid on a joint. Growing bubbles are a leak, whatever a gauge says: a joints stage ends with them.
 * @param during the stage it was looked at in; absent after the test
 */
function lookAtJoint(
  state: RunState,
  event: EventOf<'joint-look'>,
  at: number,
  during?: { readonly plan: Plan; readonly visit: Visit; readonly stage: Stage },
): Refusal | null {
  const joint = state.joints.find((j) => j.id === event.joint);
  if (!joint) return no('unknown-joint', 'Add the joint to the list first.');
  if (event.found === 'growing' && !event.size)
    return no('size', 'Say how large the bubbles grow: pinhead, pea, or larger.');
  joint.looks.push({
    found: event.found,
    ...(event.size ? { size: event.size } : {}),
    at,
    byName: event.byName,
  });
  if (event.found === 'growing' && during?.stage.kind === 'joints') {
    during.visit.split = `${joint.name} bubbles`;
    follow(during.plan, state, 'bubbles', at);
  }
  return null;
}

export const jointsCourse: Course = (visit) => ({
  word: visit.outcome === 'clear' ? 'clear' : visit.outcome === 'bubbles' ? 'bubbles' : 'open',
  text: visit.split ?? '',
});
