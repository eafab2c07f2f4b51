/** A leak as a course: how it brings the pressure down by its law. Source: laws of small leaks */
import { type Course, type Scene, zeros } from './course';

export const leakCourse = (s: Scene): Course =>
  s.course({
    key: 'leak',
    cause: s.warmthMoves ? 'temperature+leak' : 'leak',
    before: 1,
    own: s.curves,
    add: (x, t, out, at) => s.leaving(x, t, out, at, x[at + s.curves]!),
    rates: [s.rate],
    // the mean slope of a line that empties is far below the one it began with
    starts: (s.curves ? [1, 3, 10] : [1]).map((k) => [...zeros(s.curves), k * s.slope]),
    leak: 0,
  });
