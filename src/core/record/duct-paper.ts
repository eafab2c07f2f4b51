/** What the official gets of ducts: beside the verdict everything it was judged by. */
import { tradeOf } from '@/core/trades';
import type { Face } from './face';
import type { Block } from './papers';
import { capital, full } from '@/core/quantity/words';

/** What the pack for the inspector is, in a sentence. */
export const inspectorIntro = ({ plan }: Pick<Face, 'plan'>): string =>
  tradeOf(plan.system).unpiped
    ? 'For the official: what was measured, beside the figure and the clause of every edition; one of them judges.'
    : 'For the inspector: the pressure test of the pipework and what was seen of it. What belongs to the supplier’s side is in the pack for the utility.';

/** In the order in which it is read. */
const ORDER = ['duct', 'editions', 'flow', 'hose', 'smoke', 'gains'] as const;
/** The sections of ducts; none for any other record. Of the readings there may be several passages. */
export const ductBlocks = (face: Face): Block[] =>
  ORDER.flatMap((key) =>
    face.sections
      .filter((s) => s.key === key)
      .map((s) => ({ heading: s.title, lines: s.lines.map((l) => full(capital(l))) })),
  );
