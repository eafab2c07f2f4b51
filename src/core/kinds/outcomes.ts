import { kindOf, type Stage } from '.';

/**
 * The outcomes a stage can have: every stage of a pack must say what follows each of them.
 * @param classes keys of the procedure's leak-rate classes, from best to worst
 */
export const outcomesOf = (stage: Stage, classes: readonly string[] = []): readonly string[] =>
  kindOf(stage).outcomes(stage, classes);

const NONE = { must: [], may: [] };
/** Outcomes by which a stage says that its pressure will not stand: those a pack must name, and those it may. */
export const waysOn = (stage: Stage): { readonly must: readonly string[]; readonly may: readonly string[] } =>
  kindOf(stage).waysOn?.(stage) ?? NONE;
