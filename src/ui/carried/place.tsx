'use client';
import { calibrationHolds } from '@/core/instrument/gauge';
import { againOf } from '@/core/plan/again';
import { besidesFor } from '@/core/plan/beside-offer';
import { offersFor } from '@/core/plan/offer';
import { localDate } from '@/core/quantity/local-date';
import { tradeOf } from '@/core/trades';
import { sectionsOf } from '@/core/trades/sections';
import { noteSeen } from '@/device/carried';
import { deviceZone, serverNow } from '@/device/clock';
import { SectionFigure } from '@/ui/network/section-figure';
import { Again } from '@/ui/places/again';
import { PipesTable, ScopeWords, SectionFacts, ThingsTables } from '@/ui/places/section-facts';
import { StillOpen } from '@/ui/places/place-rooms';
import { placeLine } from '@/ui/places/site-words';
import { StartTest } from '@/ui/places/start-test';
import { may } from '@/wire/role';
import { useEffect, useMemo } from 'react';
import type { RoomProps } from './rooms';

/** An installation as this device knows it: what it is, and the tests that can begin on it. */
export function PlaceHere({ who, carrying, id }: RoomProps) {
  const known = carrying.systems.find((s) => s.id === id);
  useEffect(() => {
    if (known) void noteSeen(who, id).catch(() => undefined);
  }, [who, id, known]);
  const start = useMemo(() => {
    if (!known) return null;
    const facts = known.system;
    const aside = new Set(carrying.house.aside);
    const offers = carrying.packs.flatMap((p) => offersFor(p, facts, aside));
    const siblings = carrying.systems
      .filter((s) => s.site.id === known.site.id && s.id !== id)
      .map((s) => ({ id: s.id, facts: s.system }));
    return {
      offers,
      sections: sectionsOf(facts),
      besides: carrying.packs.flatMap((p) => besidesFor(p, facts, siblings)),
    };
  }, [carrying, known, id]);
  if (!known || !start)
    return (
      <>
        <h1 className="text-2xl font-bold">This place is not on this device</h1>
        <p className="mt-2">Open it once where there is a signal; after that it opens without.</p>
      </>
    );
  const { system: facts, site, last, failures } = known;
  const { offers, sections, besides } = start;
  const day = localDate(serverNow(), deviceZone());
  const { parted } = tradeOf(facts);
  const again = againOf(
    last,
    offers,
    carrying.gauges,
    day,
    sections.filter((s) => !s.open).map((s) => s.key),
  );
  return (
    <>
      <p className="text-sm text-quiet">{placeLine(site)}</p>
      <h1 className="text-2xl font-bold">{facts.name}</h1>
      {may(who.role, 'run') && again && (
        <Again system={id} ready={again} failure={failures[again.section ?? ''] ?? null} />
      )}
      <SectionFigure section={facts} className="mt-3" />
      <StillOpen facts={facts} />
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-8 lg:grid-cols-[1fr_22rem]">
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
          <SectionFacts facts={facts} />
          <PipesTable facts={facts} />
          <ThingsTables facts={facts} />
          <ScopeWords facts={facts} />
          <p className="text-sm text-quiet">Its records and photos stand with the office.</p>
        </div>
        {may(who.role, 'run') ? (
          <StartTest
            system={id}
            offers={offers.map((o) => ({ ...o, practice: false }))}
            failures={failures}
            sections={sections}
            parted={parted ?? 'lines'}
            besides={besides}
            gauges={carrying.gauges.filter((g) => calibrationHolds(g, day)).length}
          />
        ) : (
          <p className="text-quiet">The office reads; a tester or apprentice starts tests.</p>
        )}
      </div>
    </>
  );
}
