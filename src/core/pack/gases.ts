import { BROUGHT_GASES, type BroughtGas } from './brought';
import type { Procedure } from './schema';

/**
 * The compressed gases that are brought along for a procedure: what their cautions depend on. House packs of before say it
 * only in the words of the test medium, and a caution must not vanish for that.
 */
export const broughtGases = (procedure: Pick<Procedure, 'gases' | 'testMedium'>): readonly BroughtGas[] =>
  procedure.gases ?? BROUGHT_GASES.filter((g) => procedure.testMedium.includes(g));
