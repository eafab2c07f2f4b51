/** Every role a hold can have. A new one is its folder and two lines here. */
import { decay } from './decay/rule';
import { floor } from './floor/rule';
import { flow } from './flow/rule';
import { leakRate } from './leak-rate/rule';
import { letBy } from './let-by/rule';
import { lockUp } from './lock-up/rule';
import { makeUp } from './make-up/rule';
import { settle } from './settle/rule';
import { slopes } from './slopes/rule';
import { strength } from './strength/rule';
import { stretch } from './stretch/rule';
import { tightness } from './tightness/rule';
import { vacuum } from './vacuum/rule';
import type { Role } from './role';

const ROLES = [
  letBy,
  settle,
  tightness,
  strength,
  lockUp,
  flow,
  leakRate,
  floor,
  stretch,
  makeUp,
  decay,
  vacuum,
  slopes,
] as const;

export type HoldRole = (typeof ROLES)[number]['name'];
export const HOLD_ROLES = ROLES.map((r) => r.name) as [HoldRole, ...HoldRole[]];
const byName = new Map<HoldRole, Role<HoldRole>>(ROLES.map((r) => [r.name, r]));
export const roleOf = (name: HoldRole): Role<HoldRole> => byName.get(name)!;
