import { found } from '@/app/(house)/found';
import { VALVE_WORDS } from '@/core/installation/parts';
import {
  freeSurface,
  largestSize,
  pipeVolume,
  sectionVolume,
  systemStiffness,
  volumeUncertainty,
} from '@/core/installation/section';
import { networkOf } from '@/core/network/enter';
import { reachOf } from '@/core/network/flood';
import { notCoveredOf, unanswered } from '@/core/network/installation';
import { besidesFor } from '@/core/plan/beside-offer';
import { offersFor } from '@/core/plan/offer';
import { showExact, toNumber } from '@/core/quantity/exact';
import { showFigure, significantText } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { trendsOf } from '@/core/record/trend';
import { tradeOf } from '@/core/trades';
import { readInventory } from '@/server/places/inventory';
import { cabinet, readSystem, systemsOfSite } from '@/server/places/places';
import { historyOf } from '@/server/records/ledger';
import { rulePacks } from '@/server/rules/rules';
import { openFailure } from '@/server/runs/start';
import { requireSession } from '@/server/session/session';
import { viewerDay, viewerZone } from '@/server/session/zone';
import { readWatches } from '@/server/watches/watches';
import { Moment } from '@/ui/frame/zone';
import { buttonClass } from '@/ui/kit/button-class';
import { Why } from '@/ui/kit/why';
import { SectionFigure } from '@/ui/network/section-figure';
import { StartTest } from '@/ui/places/start-test';
import { SystemHistory } from '@/ui/places/system-history';
import { watchWords } from '@/ui/watch/words';
import { mayPlan, mayRun } from '@/wire/role';
import type { Metadata } from 'next';
import Link from 'next/link';
import { cache } from 'react';

const HEIGHT_WORDS = {
  slab: 'slab',
  rim: 'rim',
  fixture: 'lowest fixture',
  testPoint: 'test point',
  highest: 'highest',
  lowest: 'lowest',
} as const;
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
  const facts = system.facts;
  const [inventory, failure, packs, gauges, history, watches, siblings] = await Promise.all([
    readInventory(session, id),
    openFailure(session, id),
    rulePacks(session),
    cabinet(session),
    historyOf(session, id),
    readWatches(session, id),
    systemsOfSite(session, site.id),
  ]);
  const volume = sectionVolume(facts);
  const network = networkOf(facts);
  const { warnings } = reachOf(network);
  const largest = largestSize(facts);
  const stiff = tradeOf(facts).stiff
    ? systemStiffness(facts, convert(toNumber(facts.workingPressure), facts.workingPressure.unit, 'Pa'))
    : null;
  const rows =
    'border-t border-seam [&>td]:py-2 [&>td]:pr-3 [&>th]:py-2 [&>th]:pr-3 [&>th]:text-left [&>th]:font-normal';
  return (
    <>
      <p className="text-sm text-quiet">
        {site.name}, {site.address}
      </p>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl font-bold">{system.name}</h1>
        <div className="flex flex-wrap gap-3">
          <Link prefetch={false} href={`/places/${id}/drawing`} className={buttonClass('plain')}>
            Section drawn
          </Link>
          {mayPlan(session.role) && (
            <Link prefetch={false} href={`/places/${id}/edit`} className={buttonClass('plain')}>
              Change
            </Link>
          )}
        </div>
      </div>
      <SectionFigure section={facts} className="mt-3" />
      {[...warnings, ...unanswered(network)].map((w) => (
        <p key={w} className="mt-2 border-l-4 border-ochre pl-3">
          {w}
        </p>
      ))}
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-8 lg:grid-cols-[1fr_22rem]">
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
          <section>
            <h2 className="text-lg font-semibold">Section</h2>
            <dl className="mt-2 grid grid-cols-2 gap-x-6 gap-y-3 border-t border-seam pt-3 sm:grid-cols-4">
              <div>
                <dt className="text-sm text-quiet">Volume</dt>
                <dd className="figure">
                  <Why facts={{ title: volume.name, ...volume }}>{showFigure(volume)}</Why>
                </dd>
                <dd className="figure-narrow text-sm text-quiet">
                  {(volume.value * 1000).toFixed(1)} l ± {(volumeUncertainty(facts) * 100).toFixed(0)} %
                </dd>
              </div>
              <div>
                <dt className="text-sm text-quiet">Largest pipe</dt>
                <dd className="figure">{largest ? showExact(largest) : 'not entered'}</dd>
              </div>
              <div>
                <dt className="text-sm text-quiet">Working pressure</dt>
                <dd className="figure">{showExact(facts.workingPressure)}</dd>
              </div>
              {(facts.surfaces?.length ?? 0) > 0 && (
                <div className="col-span-2">
                  <dt className="text-sm text-quiet">Free surfaces at the level</dt>
                  <dd>
                    <span className="figure">{freeSurface(facts).toFixed(3)} l/mm</span>
                    <span className="block text-sm text-quiet">
                      {facts
                        .surfaces!.map((x) => `${x.count} × ${x.name.toLowerCase()}, ${showExact(x.bore)}`)
                        .join('; ')}
                    </span>
                  </dd>
                </div>
              )}
              {facts.heights && (
                <div className="col-span-2">
                  <dt className="text-sm text-quiet">Heights over {facts.heights.datum}</dt>
                  <dd className="figure-narrow text-sm">
                    {(['slab', 'rim', 'fixture', 'testPoint', 'highest', 'lowest'] as const)
                      .filter((k) => facts.heights![k])
                      .map((k) => `${HEIGHT_WORDS[k]} ${showExact(facts.heights![k]!)}`)
                      .join('; ')}
                  </dd>
                </div>
              )}
              <div>
                <dt className="text-sm text-quiet">Meter</dt>
                <dd>{facts.meter.name}</dd>
              </div>
              {stiff && (
                <div className="col-span-2">
                  <dt className="text-sm text-quiet">Full of water</dt>
                  <dd>
                    <span className="figure">
                      <Why facts={{ title: stiff.figure.name, ...stiff.figure }}>
                        {showFigure(stiff.figure)}
                      </Why>
                    </span>
                    <span className="block text-sm text-quiet">
                      1 ml of loss shows as {significantText(1e-11 / stiff.c, 2)} bar; 1 K as{' '}
                      {significantText(stiff.perKelvin / 1e5, 2)} bar
                    </span>
                  </dd>
                </div>
              )}
              {facts.elements?.map((e) => (
                <div key={e.id}>
                  <dt className="text-sm text-quiet">Permits at most: {e.name}</dt>
                  <dd className="figure">{showExact(e.most)}</dd>
                </div>
              ))}
              <div className="col-span-2">
                <dt className="text-sm text-quiet">Bounded by</dt>
                <dd>
                  {facts.supplyValve} (owner: {facts.supplyValveOwner})
                </dd>
              </div>
              {facts.meter.testDial && (
                <div>
                  <dt className="text-sm text-quiet">Smallest test dial</dt>
                  <dd className="figure">{showExact(facts.meter.testDial)}</dd>
                </div>
              )}
              {facts.designPressure && (
                <div>
                  <dt className="text-sm text-quiet">Design pressure</dt>
                  <dd className="figure">{showExact(facts.designPressure)}</dd>
                </div>
              )}
              {(facts.noValves?.length ?? 0) > 0 && (
                <div className="col-span-2">
                  <dt className="text-sm text-quiet">Looked for, none here</dt>
                  <dd>{facts.noValves!.map((k) => VALVE_WORDS[k]).join(', ')}</dd>
                </div>
              )}
              {facts.setPressure && (
                <div>
                  <dt className="text-sm text-quiet">Regulator set</dt>
                  <dd className="figure">{showExact(facts.setPressure)}</dd>
                </div>
              )}
              {facts.ventSetting && (
                <div>
                  <dt className="text-sm text-quiet">Vent opens</dt>
                  <dd className="figure">{showExact(facts.ventSetting)}</dd>
                </div>
              )}
              {facts.tank && (
                <div>
                  <dt className="text-sm text-quiet">Tank</dt>
                  <dd>{[facts.tank.size, facts.tank.place].filter(Boolean).join(', ')}</dd>
                </div>
              )}
              <div className="col-span-2">
                <dt className="text-sm text-quiet">Emergency line found on the meter</dt>
                <dd className="figure-narrow">{facts.emergencyContact}</dd>
              </div>
            </dl>
          </section>
          <section>
            <h2 className="text-lg font-semibold">Pipes</h2>
            <div className="overflow-x-auto" role="region" aria-label="Pipes" tabIndex={0}>
              <table className="mt-2 w-full min-w-[520px]">
                <thead>
                  <tr className="text-left text-sm text-quiet [&>th]:pr-3 [&>th]:pb-1 [&>th]:font-normal">
                    <th>Run</th>
                    <th>Material</th>
                    <th>Size</th>
                    <th>Bore</th>
                    <th>Length</th>
                    <th>Volume</th>
                  </tr>
                </thead>
                <tbody>
                  {facts.pipes.map((p) => (
                    <tr key={p.id} className={rows}>
                      <th scope="row">{p.name}</th>
                      <td>{p.material}</td>
                      {[
                        showExact(p.size),
                        showExact(p.bore),
                        showExact(p.length),
                        `${(pipeVolume(p) * 1000).toFixed(1)} l`,
                      ].map((t, i) => (
                        <td key={i} className="figure-narrow text-sm whitespace-nowrap">
                          {t}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </section>
          {(facts.loops?.length ?? 0) > 0 && (
            <section>
              <h2 className="text-lg font-semibold">Loops of the manifold</h2>
              <table className="mt-2 w-full">
                <tbody>
                  {facts.loops!.map((l) => (
                    <tr key={l.id} className={rows}>
                      <th scope="row">{l.name}</th>
                      <td>{l.valve}</td>
                      <td className="text-quiet">flow meter {l.flowMeter}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          )}
          {watches.length > 0 && (
            <section>
              <h2 className="text-lg font-semibold">Watches</h2>
              <ul className="mt-2 border-t border-seam">
                {watches.map((w) => (
                  <li key={w.id} className="border-b border-seam">
                    <Link
                      prefetch={false}
                      className="block min-h-11 py-2 hover:text-lake"
                      href={`/watches/${w.id}`}
                    >
                      <span className={w.state.lost ? 'font-semibold text-rust' : ''}>
                        {watchWords(w.state, w.facts.zone)}
                      </span>
                      <span className="block text-sm text-quiet">
                        left at {showExact(w.facts.figure)}, <Moment at={w.facts.startedAt} />
                      </span>
                    </Link>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {facts.appliances.length > 0 && (
            <section>
              <h2 className="text-lg font-semibold">Appliances</h2>
              <table className="mt-2 w-full">
                <tbody>
                  {facts.appliances.map((a) => (
                    <tr key={a.id} className={rows}>
                      <th scope="row">
                        {a.name}
                        {(a.make || a.model || a.serial) && (
                          <span className="block text-sm font-normal text-quiet">
                            {[a.make, a.model, a.serial && `serial ${a.serial}`].filter(Boolean).join(', ')}
                          </span>
                        )}
                      </th>
                      <td>{a.place}</td>
                      <td className="text-quiet">{a.valve}</td>
                      <td className="figure-narrow text-sm">
                        {a.maxInlet ? `inlet ${showExact(a.maxInlet)}` : ''}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          )}
          {inventory.length > 0 && (
            <section>
              <h2 className="text-lg font-semibold">Written down here</h2>
              <ul className="mt-2">
                {inventory.map((x) => (
                  <li key={x.item.id} className="border-t border-seam py-2">
                    <span className="font-semibold">{x.item.name}</span>
                    {x.item.place && <span>, {x.item.place}</span>}
                    <span className="block text-sm text-quiet">
                      {[x.item.make, x.item.model, x.item.serial && `serial ${x.item.serial}`]
                        .filter(Boolean)
                        .join(', ') || 'no plate read'}
                      ; <Moment at={x.at} />, {x.by}
                    </span>
                    {x.changes.map((c) => (
                      <span key={c} className="block text-sm font-semibold text-ochre">
                        Changed: {c}. Records made before do not cover it.
                      </span>
                    ))}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section>
            <h2 className="text-lg font-semibold">Scope</h2>
            <p className="mt-2">Inside: {facts.inScope.join('; ')}.</p>
            <p className="mt-1">Not covered: {notCoveredOf(facts).join('; ')}.</p>
          </section>
          <SystemHistory
            system={id}
            zone={await viewerZone()}
            lines={history}
            trends={trendsOf(
              history
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
        {mayRun(session.role) ? (
          <StartTest
            system={id}
            offers={packs.flatMap((p) => offersFor(p, facts))}
            failure={failure}
            besides={packs.flatMap((p) =>
              besidesFor(
                p,
                facts,
                siblings.filter((s) => s.id !== id),
              ),
            )}
            gauges={gauges.filter((g) => g.calibrationDue >= today).length}
          />
        ) : (
          <p className="text-quiet">The office reads; a tester or apprentice starts tests.</p>
        )}
      </div>
    </>
  );
}
