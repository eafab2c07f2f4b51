/** What can be begun on each thing that may stand before a person, from the packs of the house. */
import { showExact } from '@/core/quantity/exact';
import type { Gauge } from '@/core/instrument/gauge';
import type { Pack } from '@/core/pack/schema';
import { type Offer, offersFor } from '@/core/plan/offer';
import { BEFORE_YOU } from '@/core/trades/before-you';
import { type Section, sectionsOf } from '@/core/trades/sections';
import { sectionOfFacts } from './first-facts';
import { noFacts } from './no-facts';

/** A circuit is drawn from its evaporators: of one without, no side is known. */
const COUNTED: Readonly<Record<string, { word: string; count: number }[]>> = {
  refrigerant: [{ word: 'evaporator', count: 1 }],
};
/** A procedure that names no medium comes after those that name some. */
const ANY_MEDIUM = 99;
/** A gauge of the cabinet that can be taken. */
export interface KnownGauge {
  readonly id: string;
  readonly name: string;
  readonly words: string;
}
export interface TestNow {
  /** What can be begun on each, the usual first. */
  readonly offers: Readonly<
    Record<string, { readonly offers: readonly Offer[]; readonly sections: readonly Section[] }>
  >;
  readonly gauges: readonly KnownGauge[];
  readonly meters: readonly { readonly kind: string; readonly label: string }[];
}
/**
 * Offers by what stands before a person: those that rule here first, in the order of the packs.
 * @param aside packs that the house set aside  @param cabinet the gauges used last first
 */
export function testNow(
  packs: readonly Pack[],
  aside: ReadonlySet<string>,
  cabinet: readonly Gauge[],
  meters: TestNow['meters'],
): TestNow {
  const offers = Object.fromEntries(
    BEFORE_YOU.map((b) => {
      const system = sectionOfFacts(
        {
          ...noFacts(),
          ...b,
          name: b.title,
          meterKind: b.meterKind || 'other',
          meterVolume: b.meterVolume || '3 l',
          length: '8 m',
          counted: COUNTED[b.medium] ?? [],
        },
        'trial',
        '',
      );
      const sections = sectionsOf(system).filter((s) => !s.open);
      // what is made for this alone stands before what is made for many things
      const found = packs
        .flatMap((p) =>
          offersFor(p, system, aside).map((offer) => ({
            offer,
            media: p.procedures.find((x) => x.id === offer.id)?.media?.length ?? ANY_MEDIUM,
          })),
        )
        .filter(({ offer: o }) => !o.after && (!o.oneSection || sections.length > 0))
        .sort(
          (a, c) =>
            Number(a.offer.aside) - Number(c.offer.aside) ||
            Number(c.offer.begins) - Number(a.offer.begins) ||
            a.offer.outside.length - c.offer.outside.length ||
            a.media - c.media,
        );
      return [b.key, { offers: found.map((f) => f.offer), sections }] as const;
    }),
  );
  const gauges = cabinet
    .filter((g) => !g.withdrawn)
    .map((g) => ({
      id: g.id,
      name: g.name,
      words: `to ${showExact(g.greatest)}, steps of ${showExact(g.resolution)}`,
    }));
  return { offers, gauges, meters };
}
