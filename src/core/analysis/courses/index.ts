/** The courses a trace can have in a section like this, each as a curve with what is known of its size beforehand. */
import type { Readings } from '../noise';
import type { SectionFacts } from '../section';
import { type Course, sceneOf } from './course';
import { leakCourse } from './leak';
import { letByCourses } from './let-by';
import { stepCourses } from './steps';
import { vacuumCourses } from './vacuum';
import { airCourses, stretchCourses } from './walls';
import { warmthCourses } from './warmth';

export type { Course } from './course';

/**
 * Every smooth course that is possible here; or, with what the closest of those leaves, the same with a step in it. Simple ones
 * stand before those that are made of them.
 * @param r readings, whose first and last say how long it is  @param left what a smooth course leaves of each reading
 */
export function coursesFor(facts: SectionFacts, r: Readings, left?: Float64Array): Course[] {
  const s = sceneOf(facts, r);
  if (left) return stepCourses(s, left);
  const steady = s.course({
    key: 'steady',
    cause: s.warmthMoves ? 'temperature' : 'steady',
    before: 1,
    starts: [[]],
    still: true,
  });
  if (facts.filling === 'vacuum') return [steady, ...vacuumCourses(s)];
  return [
    steady,
    leakCourse(s),
    ...warmthCourses(s),
    ...stretchCourses(s),
    ...letByCourses(s),
    ...airCourses(s),
  ];
}
