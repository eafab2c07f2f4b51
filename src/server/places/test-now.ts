/** What a person can begin on each thing that may stand before them, and the gauges they have. */
import 'server-only';
import { asc } from 'drizzle-orm';
import { offersFor } from '@/core/plan/offer';
import { showExact } from '@/core/quantity/exact';
import { BEFORE_YOU } from '@/core/trades/before-you';
import { sectionsOf } from '@/core/trades/sections';
import { inOrganisation } from '@/database/client';
import { gauges } from '@/database/schema';
import { meterKinds, packsAside, rulePacks } from '@/server/rules/rules';
import { gaugesUsedBy } from '@/server/runs/last-test';
import type { Session } from '@/server/session/session';
import { sectionOfFacts } from '@/wire/first-facts';
import { noFacts } from '@/wire/no-facts';

/** A circuit is drawn from its evaporators: of one without, no side is known. */
const COUNTED: Readonly<Record<string, { word: string; count: number }[]>> = {
  refrigerant: [{ word: 'evaporator', count: 1 }],
};
/** A procedure that names no medium comes after those that name some. */
const ANY_MEDIUM = 99;
/** Offers by what stands before a person: those that rule here first, in the order of the packs; and the gauges, last used first. */
export async function testNowFor(session: Session) {
  const [packs, aside] = await Promise.all([rulePacks(session), packsAside(session)]);
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
  const known = await inOrganisation(session, async (tx) => {
    const all = (await tx.select().from(gauges).orderBy(asc(gauges.name))).map((g) => g.facts);
    const used = await gaugesUsedBy(tx, session.person);
    const rank = (id: string) => (used.includes(id) ? used.indexOf(id) : used.length);
    return all
      .filter((g) => !g.withdrawn)
      .sort((a, b) => rank(a.id) - rank(b.id))
      .map((g) => ({
        id: g.id,
        name: g.name,
        words: `to ${showExact(g.greatest)}, steps of ${showExact(g.resolution)}`,
      }));
  });
  return { offers, gauges: known, meters: await meterKinds(session) };
}
