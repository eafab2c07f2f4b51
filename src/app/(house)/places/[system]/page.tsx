import { calibrationHolds } from '@/core/instrument/gauge';
import { StillOpen } from '@/ui/places/place-rooms';
import { placeLine } from '@/ui/places/site-words';
import { found } from '@/app/(house)/found';
import { networkOf } from '@/core/network/enter';
import { againOf } from '@/core/plan/again';
import { besidesFor } from '@/core/plan/beside-offer';
import { offersFor } from '@/core/plan/offer';
import { trendsOf } from '@/core/record/trend';
import { readInventory } from '@/server/places/inventory';
import { partPhotosOf } from '@/server/places/part-photos';
import { cabinet, readSystem, systemsOfSite } from '@/server/places/places';
import { historyOf } from '@/server/records/ledger';
import { packsAside, rulePacks } from '@/server/rules/rules';
import { failuresBySection, readLooks, recordsBySection } from '@/server/places/looks';
import { lastTestOf } from '@/server/runs/last-test';
import { tradeOf } from '@/core/trades';
import { sectionsOf } from '@/core/trades/sections';
import { requireSession } from '@/server/session/session';
import { viewerDay, viewerZone } from '@/server/session/zone';
import { readWatches } from '@/server/watches/watches';
import { buttonClass } from '@/ui/kit/button-class';
import { Again } from '@/ui/places/again';
import { SidesOf } from '@/ui/places/sides-of';
import { LinesOf } from '@/ui/places/lines-of';
import { PhotosOnParts } from '@/ui/network/place-photos';
import { SectionFigure } from '@/ui/network/section-figure';
import { PipesTable, ScopeWords, SectionFacts, ThingsTables } from '@/ui/places/section-facts';
import { StartTest } from '@/ui/places/start-test';
import { SystemHistory } from '@/ui/places/system-history';
import { may } from '@/wire/role';
import type { Metadata } from 'next';
import Link from 'next/link';
import { cache } from 'react';
import { WatchList, WrittenDown } from './seen-here';

/** Read once for the page and its title. */
const load = cache(async (id: string) => found(readSystem(await requireSession(), id)));
export const generateMetadata = async ({
  params,
}: {
  params: Promise<{ system: string }>;
}): Promise<Metadata> => {
  const { system } = await params;
  return { title: (await load(system)).system.facts.name };
};
export default async function SystemPage({ params }: { params: Promise<{ system: string }> }) {
  const session = await requireSession();
  const today = await viewerDay();
  const { system: id } = await params;
  const { site, system } = await load(id);
  const facts = await readLooks(session, system.facts);
  const zone = await viewerZone();
  const [inventory, records, packs, gauges, history, watches, siblings, photos, last] = await Promise.all([
    readInventory(session, id),
    recordsBySection(session, id),
    rulePacks(session),
    cabinet(session),
    historyOf(session, id),
    readWatches(session, id),
    systemsOfSite(session, site.id),
    partPhotosOf(session, id),
    may(session.role, 'run') ? lastTestOf(session, id, zone) : null,
  ]);
  const network = networkOf(facts);
  const aside = await packsAside(session);
  const offers = packs.flatMap((p) => offersFor(p, facts, aside));
  const sections = sectionsOf(facts);
  const failures = failuresBySection(records);
  const again = againOf(
    last,
    offers,
    gauges,
    today,
    sections.filter((s) => !s.open).map((s) => s.key),
  );
  return (
    <>
      <p className="text-sm text-quiet">{placeLine(site)}</p>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl font-bold">{system.name}</h1>
        <div className="flex flex-wrap gap-3">
          <Link prefetch={false} href={`/places/${id}/drawing`} className={buttonClass('plain')}>
            Section drawn
          </Link>
          <Link prefetch={false} href={`/places/${id}/leaks`} className={buttonClass('plain')}>
            Leak book
          </Link>
          {may(session.role, 'plan') && (
            <Link prefetch={false} href={`/places/${id}/edit`} className={buttonClass('plain')}>
              Change
            </Link>
          )}
          {may(session.role, 'plan') && (
            <Link prefetch={false} href={`/places/${id}/copy`} className={buttonClass('plain')}>
              Another like it
            </Link>
          )}
        </div>
      </div>
      {again && <Again system={id} ready={again} failure={failures[again.section ?? ''] ?? null} />}
      <SectionFigure section={facts} records={records} className="mt-3" />
      <LinesOf section={facts} records={records} zone={zone} />
      <SidesOf section={facts} records={records} zone={zone} />
      <StillOpen facts={facts} />
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-8 lg:grid-cols-[1fr_22rem]">
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
          <SectionFacts facts={facts} />
          <PipesTable facts={facts} />
          <PhotosOnParts system={id} network={network} photos={photos} />
          {watches.length > 0 && <WatchList watches={watches} />}
          <ThingsTables facts={facts} />
          {inventory.length > 0 && <WrittenDown inventory={inventory} />}
          <ScopeWords facts={facts} />
          <SystemHistory
            system={id}
            zone={zone}
            lines={history}
            sections={Object.fromEntries(records.map((r) => [r.run, r.title]))}
            // lines of a pool are no one figure that is followed
            trends={trendsOf(
              (tradeOf(facts).parted ? [] : history)
                .filter((l) => !l.voided && !l.superseded && l.status !== 'practice')
                .map((l) => ({
                  at: Date.parse(l.sealedAt),
                  number: l.number,
                  run: l.run,
                  figures: l.figures,
                })),
            )}
          />
        </div>
        {may(session.role, 'run') ? (
          <StartTest
            system={id}
            offers={offers}
            failures={failures}
            sections={sections}
            parted={tradeOf(facts).parted ?? 'lines'}
            besides={packs.flatMap((p) =>
              besidesFor(
                p,
                facts,
                siblings.filter((s) => s.id !== id),
              ),
            )}
            gauges={gauges.filter((g) => calibrationHolds(g, today)).length}
          />
        ) : (
          <p className="text-quiet">The office reads; a tester or apprentice starts tests.</p>
        )}
      </div>
    </>
  );
}
