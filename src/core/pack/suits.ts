import type { Procedure } from './schema';

/** What a procedure is for that does not say: packs were first written for the gas of a house network. */
const UNSAID = ['natural gas'];

/** Whether a procedure is for what a system carries and, where both say so, for what the system is there for. */
export const suits = (
  procedure: Pick<Procedure, 'media' | 'suits'>,
  system: { readonly medium: string; readonly duty?: string },
): boolean =>
  (procedure.media ?? UNSAID).includes(system.medium) &&
  (!system.duty || !procedure.suits || procedure.suits.some((d) => d === system.duty));
