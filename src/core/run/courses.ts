/** How a stage of each kind stands on the record once it is passed. A new kind adds its own. */
import type { StageKind } from '@/core/kinds';
import { checksCourse } from '@/core/kinds/checks/fold';
import { zeroCourse } from '@/core/kinds/zero/fold';
import { fillCourse } from '@/core/kinds/fill/fold';
import { holdCourse } from '@/core/kinds/hold/fold';
import { pumpCourse } from '@/core/kinds/pump/fold';
import { drawDownCourse } from '@/core/kinds/draw-down/fold';
import { observeCourse } from '@/core/kinds/observe/fold';
import { isolateCourse } from '@/core/kinds/isolate-and-repeat/fold';
import { dialCourse } from '@/core/kinds/dial/fold';
import { jointsCourse } from '@/core/kinds/joints/fold';
import { inventoryCourse } from '@/core/kinds/inventory/fold';
import { volumeCourse } from '@/core/kinds/volume/fold';
import type { Course } from './course';

export const COURSES: { readonly [K in StageKind]: Course } = {
  checks: checksCourse,
  zero: zeroCourse,
  fill: fillCourse,
  hold: holdCourse,
  pump: pumpCourse,
  'draw-down': drawDownCourse,
  observe: observeCourse,
  'isolate-and-repeat': isolateCourse,
  dial: dialCourse,
  joints: jointsCourse,
  inventory: inventoryCourse,
  volume: volumeCourse,
};
