/** How a finished hold of each role is judged, and by what limits of its own. A new role adds its own. */
import type { HoldRole } from '.';
import { judge as settle } from './settle/judge';
import { judge as letBy, limits as letByLimits } from './let-by/judge';
import { judge as tightness } from './tightness/judge';
import { judge as strength } from './strength/judge';
import { judge as lockUp } from './lock-up/judge';
import { judge as flow } from './flow/judge';
import { judge as leakRate } from './leak-rate/judge';
import { judge as floor, limits as floorLimits } from './floor/judge';
import { judge as stretch, limits as stretchLimits } from './stretch/judge';
import { judge as makeUp, limits as makeUpLimits } from './make-up/judge';
import { judge as decay } from './decay/judge';
import { judge as slopes } from './slopes/judge';
import { judge as vacuum, limits as vacuumLimits } from './vacuum/judge';
import type { RoleJudge, RoleLimits } from './judging';

export const JUDGES: { readonly [R in HoldRole]: RoleJudge } = {
  settle,
  'let-by': letBy,
  tightness,
  strength,
  'lock-up': lockUp,
  flow,
  'leak-rate': leakRate,
  floor,
  stretch,
  'make-up': makeUp,
  decay,
  vacuum,
  slopes,
};
export const LIMITS: { readonly [R in HoldRole]?: RoleLimits } = {
  'let-by': letByLimits,
  stretch: stretchLimits,
  floor: floorLimits,
  'make-up': makeUpLimits,
  vacuum: vacuumLimits,
};
