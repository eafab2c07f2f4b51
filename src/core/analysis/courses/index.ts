/** The courses a trace can have in a section like this, each as a curve with what is known of its size beforehand. */
import type { Course, Scene } from './course';
import { leakCourse } from './leak';
import { letByCourses } from './let-by';
import { vacuumCourses } from './vacuum';
import { airCourses, stretchCourses } from './walls';
import { warmthCourses } from './warmth';

export { type Course, sceneOf } from './course';
export { stepCourses } from './steps';

/** Every smooth course that is possible here. Simple ones stand before those that are made of them. */
export function smoothCourses(s: Scene): Course[] {
  const steady = s.course({
    key: 'steady',
    cause: s.warmthMoves ? 'temperature' : 'steady',
    before: 1,
    starts: [[]],
    still: true,
  });
  if (s.facts.filling === 'vacuum') return [steady, ...vacuumCourses(s)];
  return [
    steady,
    leakCourse(s),
    ...warmthCourses(s),
    ...stretchCourses(s),
    ...letByCourses(s),
    ...airCourses(s),
  ];
}
