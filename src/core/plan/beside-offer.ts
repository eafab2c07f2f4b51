import type { System } from '@/core/installation/section';
import type { Pack } from '@/core/pack/schema';
import { offersFor } from './offer';

/** Another test that may run at the same time, on another system of the same place. */
export interface BesideOffer {
  readonly pack: string;
  readonly id: string;
  readonly title: string;
  readonly summary: string;
  /** Procedure on this system, and whether it is the one to begin with. */
  readonly own: string;
  readonly ownFirst: boolean;
  readonly other: {
    readonly procedure: string;
    readonly title: string;
    readonly system: { readonly id: string; readonly name: string };
    readonly cases: readonly { readonly key: string; readonly title: string }[];
  };
}
/** Pairs that a pack allows between this system and the others of its site. */
export function besidesFor(
  pack: Pack,
  system: System,
  others: readonly { readonly id: string; readonly facts: System }[],
): BesideOffer[] {
  const here = new Set(offersFor(pack, system).map((o) => o.id));
  return (pack.besides ?? []).flatMap((b) =>
    b.runs.flatMap((own, i) => {
      const other = b.runs[1 - i]!;
      if (!here.has(own.procedure)) return [];
      return others.flatMap((s): BesideOffer[] => {
        const offer = offersFor(pack, s.facts).find((o) => o.id === other.procedure);
        return offer
          ? [
              {
                pack: pack.id,
                id: b.id,
                title: b.title,
                summary: b.summary,
                own: own.procedure,
                ownFirst: i === 0,
                other: {
                  procedure: other.procedure,
                  title: offer.title,
                  system: { id: s.id, name: s.facts.name },
                  cases: offer.cases,
                },
              },
            ]
          : [];
      });
    }),
  );
}

/** Two tests of one visit that a pack does side by side: begun together. */
export interface VisitPair {
  readonly beside: string;
  readonly tests: readonly { readonly test: string; readonly procedure: string; readonly first: boolean }[];
}
/** Pairs among tests that have not begun. @param tests of one site and visit */
export const pairsOf = (
  packs: readonly Pack[],
  tests: readonly {
    readonly id: string;
    readonly pack: string;
    readonly procedure: string;
    readonly run?: string;
  }[],
): VisitPair[] =>
  packs.flatMap((pack) =>
    (pack.besides ?? []).flatMap((b): VisitPair[] => {
      const found = b.runs.map((r) =>
        tests.find((t) => t.pack === pack.id && t.procedure === r.procedure && !t.run),
      );
      return found.every((t) => t !== undefined)
        ? [
            {
              beside: b.id,
              tests: found.map((t, i) => ({ test: t.id, procedure: t.procedure, first: i === 0 })),
            },
          ]
        : [];
    }),
  );
