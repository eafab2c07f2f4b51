/** How a stage of each kind stands on the record once it is passed, and what ends its list. A new kind adds its own. */
import type { StageKind } from '@/core/kinds';
import { bucketCourse } from '@/core/kinds/bucket/fold';
import { confirmCure, cureCourse } from '@/core/kinds/cure/fold';
import { cylinderCourse } from '@/core/kinds/cylinder/fold';
import { checksCourse, confirmChecks } from '@/core/kinds/checks/fold';
import { confirmDial, dialCourse } from '@/core/kinds/dial/fold';
import { drawDownCourse } from '@/core/kinds/draw-down/fold';
import { fanCourse } from '@/core/kinds/fan/fold';
import { fillCourse } from '@/core/kinds/fill/fold';
import { holdCourse } from '@/core/kinds/hold/fold';
import { confirmInventory, inventoryCourse } from '@/core/kinds/inventory/fold';
import { isolateCourse } from '@/core/kinds/isolate-and-repeat/fold';
import { confirmJoints, jointsCourse } from '@/core/kinds/joints/fold';
import { confirmListen, listenCourse } from '@/core/kinds/listen/fold';
import { confirmMap, mapCourse } from '@/core/kinds/map/fold';
import { observeCourse } from '@/core/kinds/observe/fold';
import { confirmPlugs, plugsCourse } from '@/core/kinds/plugs/fold';
import { pumpCourse } from '@/core/kinds/pump/fold';
import { smokeCourse } from '@/core/kinds/smoke/fold';
import { volumeCourse } from '@/core/kinds/volume/fold';
import { zeroCourse } from '@/core/kinds/zero/fold';
import type { Course } from './course';
import type { OnStage } from './fold';
import type { Refusal } from './transition';

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
  map: mapCourse,
  plugs: plugsCourse,
  bucket: bucketCourse,
  cure: cureCourse,
  listen: listenCourse,
  cylinder: cylinderCourse,
  fan: fanCourse,
  smoke: smokeCourse,
};
/** What ends a list that is confirmed as a whole. */
export const CONFIRM: { readonly [K in StageKind]?: (on: OnStage) => Refusal | null } = {
  checks: confirmChecks,
  joints: confirmJoints,
  inventory: confirmInventory,
  dial: confirmDial,
  map: confirmMap,
  plugs: confirmPlugs,
  cure: confirmCure,
  listen: confirmListen,
};
