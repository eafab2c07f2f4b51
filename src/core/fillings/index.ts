/** What can fill a section. A new one is its folder, a line here and one in moves.ts. */
import { air } from './air/facts';
import type { Filling } from './filling';
import { gas } from './gas/facts';
import { level } from './level/facts';
import { liquid } from './liquid/facts';
import { nitrogen } from './nitrogen/facts';
import { vacuum } from './vacuum/facts';

const FILLINGS = { gas, liquid, level, nitrogen, vacuum, air } as const satisfies Record<string, Filling>;
export type FillingName = keyof typeof FILLINGS;
export const FILLING_NAMES = Object.keys(FILLINGS) as [FillingName, ...FillingName[]];
/** What a rule means that names none: packs were first written for gas alone. */
const UNSAID: FillingName = 'gas';

export const fillingNamed = (name: FillingName | null | undefined): Filling => FILLINGS[name ?? UNSAID];
