/** How a finished hold of each role is judged. */
import type { HoldRole } from '.';
import { judge as settle } from './settle/judge';
import { judge as letBy } from './let-by/judge';
import { judge as tightness } from './tightness/judge';
import { judge as strength } from './strength/judge';
import { judge as lockUp } from './lock-up/judge';
import { judge as flow } from './flow/judge';
import { judge as leakRate } from './leak-rate/judge';
import { judge as floor } from './floor/judge';
import { judge as stretch } from './stretch/judge';
import { judge as makeUp } from './make-up/judge';
import { judge as decay } from './decay/judge';
import type { RoleJudge } from './judging';

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
};
