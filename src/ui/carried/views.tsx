'use client';
import { standingOf } from '@/core/instrument/kit';
import { localDate } from '@/core/quantity/local-date';
import { attendanceOn } from '@/core/visit/facts';
import type { VisitTest } from '@/core/visit/build';
import { deviceZone, now, serverNow } from '@/device/clock';
import { beginRun } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import type { StoredRun } from '@/device/store';
import { CabinetView } from '@/ui/cabinet/cabinet-view';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { NewSystem } from '@/ui/places/new-system';
import { placeLine } from '@/ui/places/site-words';
import { NewVisitForm } from '@/ui/visit/new-visit';
import { dayWords } from '@/ui/visit/times';
import { may } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';
import type { RoomProps } from './rooms';

const H2 = 'mt-6 text-lg font-semibold';
const ROW = 'block min-h-14 border border-edge bg-panel px-3 py-2 hover:border-ink';
const today = (): string => localDate(serverNow(), deviceZone());

/** Runs that go on without a signal. */
export const RunsHere = ({ runs }: { runs: readonly StoredRun[] }) => (
  <section aria-labelledby="runs-here">
    <h2 id="runs-here" className={H2}>
      On this device
    </h2>
    {runs.length === 0 && <p className="mt-1 text-quiet">No run was opened on this device yet.</p>}
    <ul className="mt-2 grid gap-2">
      {runs.map((r) => (
        <li key={r.run}>
          <a className={ROW} href={`/bench/${r.run}`}>
            <span className="block font-semibold">
              {r.plan.system.name}
              <span className="font-normal text-quiet">, {r.plan.site.name}</span>
            </span>
            <span className="block text-sm text-quiet">
              {r.plan.procedure.title}
              {r.plan.practice ? ', practice' : ''}
              {r.unborn ? '; begun here, not with the office yet' : ''}
            </span>
          </a>
        </li>
      ))}
    </ul>
  </section>
);

export function TodayHere({ who, carrying, runs }: RoomProps) {
  const { house, systems } = carrying;
  const tested = systems
    .flatMap((s) => (s.last ? [{ ...s, on: s.last.on }] : []))
    .sort((a, b) => b.on.localeCompare(a.on))
    .slice(0, 4);
  const day = today();
  return (
    <>
      <h1 className="text-2xl font-bold">Today, {who.name.split(' ')[0]}</h1>
      <RunsHere runs={runs} />
      {may(who.role, 'run') && (
        <section aria-labelledby="ways-here">
          <h2 id="ways-here" className={H2}>
            Test
          </h2>
          <div className="mt-2 grid gap-2 sm:grid-cols-2">
            {tested.map((t) => (
              <a key={t.id} href={`/places/${t.id}`} className={ROW}>
                <span className="block font-semibold">
                  {t.system.name}
                  <span className="font-normal text-quiet">, {t.site.name}</span>
                </span>
                <span className="block text-sm text-quiet">last on {dayWords(t.on, true)}</span>
              </a>
            ))}
          </div>
          <div className="mt-2 grid gap-2 sm:grid-cols-3">
            {may(who.role, 'plan') && (
              <a href="/test" className={buttonClass('plain', 'min-h-14')}>
                Something new
              </a>
            )}
            <a href="/places" className={buttonClass('plain', 'min-h-14')}>
              Places
            </a>
            <a href="/scan" className={buttonClass('plain', 'min-h-14')}>
              Scan a code
            </a>
          </div>
        </section>
      )}
      <section aria-labelledby="visits-here">
        <h2 id="visits-here" className={H2}>
          Next visits
        </h2>
        <VisitList visits={house.visits.filter((v) => v.day >= day).slice(0, 5)} />
      </section>
      <p className="mt-6 text-sm text-quiet">What is owed, watches and records stand with the office.</p>
    </>
  );
}
const VisitList = ({ visits }: { visits: RoomProps['carrying']['house']['visits'] }) =>
  visits.length === 0 ? (
    <p className="mt-1 text-quiet">No visit of the next two weeks was taken along.</p>
  ) : (
    <ul className="mt-2 grid gap-2">
      {visits.map((v) => (
        <li key={v.id}>
          <a href={`/plan/${v.id}`} className={ROW}>
            <span className="block font-semibold">{v.title}</span>
            <span className="block text-sm text-quiet">
              {dayWords(v.day)}, {v.start}
              {v.tests.length > 0 && `: ${v.tests.map((t) => t.title).join('; ')}`}
            </span>
          </a>
        </li>
      ))}
    </ul>
  );

export function PlacesHere({ who, carrying }: RoomProps) {
  const [find, setFind] = useState(() => new URLSearchParams(location.search).get('find') ?? '');
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = carrying.sites
    .map((site) => ({ site, systems: carrying.systems.filter((s) => s.site.id === site.id) }))
    .filter(({ site, systems }) => {
      const said = [
        site.name,
        site.address,
        site.customer,
        ...systems.flatMap(({ system: s }) => [
          s.name,
          s.meter.serial,
          ...s.appliances.flatMap((a) => [a.name, a.make, a.model, a.serial]),
        ]),
      ]
        .join(' ')
        .toLowerCase();
      return words.every((w) => said.includes(w));
    });
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-4">
        <h1 className="text-2xl font-bold">Places</h1>
        {may(who.role, 'plan') && (
          <a href="/places/new" className={buttonClass('act')}>
            New place
          </a>
        )}
      </div>
      <label className="mt-3 block max-w-xl text-sm">
        Find one of those on this device
        <input
          className="mt-1 block min-h-12 w-full border border-edge bg-panel px-3 text-base"
          value={find}
          onChange={(e) => setFind(e.target.value)}
        />
      </label>
      <p className="mt-2 text-sm text-quiet">
        What was looked at here lately, the next visits’ places, and what you tested last. The others stand
        with the office.
      </p>
      <ul className="mt-4 grid gap-3">
        {shown.map(({ site, systems }) => (
          <li key={site.id} className="grid gap-3 border border-seam bg-panel p-4 lg:grid-cols-[20rem_1fr]">
            <div>
              <h2 className="text-lg font-semibold">{site.name}</h2>
              <p className="text-sm text-quiet">{[site.address, site.customer].filter(Boolean).join(', ')}</p>
            </div>
            <ul className="grid content-center gap-2">
              {systems.map((s) => (
                <li key={s.id}>
                  <a className={ROW} href={`/places/${s.id}`}>
                    <span className="font-semibold">{s.system.name}</span>
                    <span className="block text-sm text-quiet">{s.system.medium}</span>
                  </a>
                </li>
              ))}
              {may(who.role, 'plan') && (
                <li>
                  <a
                    href={`/places/site/${site.id}/new`}
                    className="inline-block min-h-11 py-2 text-lake underline-offset-4 hover:underline"
                  >
                    Another system here
                  </a>
                </li>
              )}
            </ul>
          </li>
        ))}
      </ul>
      {shown.length === 0 && (
        <p className="mt-4">
          {words.length
            ? 'None of the places on this device has these words. The others stand with the office.'
            : 'No place was taken along yet.'}
        </p>
      )}
    </>
  );
}

export function NewSystemHere({ carrying, id }: RoomProps) {
  const [system] = useState(() => uuid7(now()));
  const site = carrying.sites.find((s) => s.id === id);
  if (!site)
    return (
      <p>This place is not on this device. Open it once where there is a signal, or enter a new place.</p>
    );
  return (
    <>
      <p className="text-sm text-quiet">{placeLine(site)}</p>
      <h1 className="text-2xl font-bold">New system</h1>
      <NewSystem id={system} site={site.id} meters={carrying.house.meters} />
    </>
  );
}

export function CabinetHere({ who, carrying }: RoomProps) {
  const zone = deviceZone();
  const at = serverNow();
  const { house, gauges } = carrying;
  return (
    <CabinetView
      gauges={gauges.map((gauge) => {
        const log = house.logs[gauge.id] ?? [];
        return { gauge, log, standing: standingOf(log, at, zone) };
      })}
      kit={house.cabinet.value.things.map(({ item, log }) => ({
        item,
        log,
        standing: standingOf(log, at, zone),
      }))}
      may={may(who.role, 'plan')}
      now={at}
      zone={zone}
    />
  );
}

export function VisitsHere({ who, carrying }: RoomProps) {
  const { house, enteredVisits } = carrying;
  return (
    <>
      <h1 className="text-2xl font-bold">Plan</h1>
      <div className="mt-4 grid gap-8 lg:grid-cols-[1fr_20rem]">
        <div>
          <h2 className="text-lg font-semibold">Visits to come</h2>
          <VisitList visits={house.visits} />
          {enteredVisits.length > 0 && (
            <>
              <h2 className={H2}>Entered here</h2>
              <ul className="mt-2">
                {enteredVisits.map((v) => (
                  <li key={v.id} className="border-t border-seam py-2">
                    <span className="font-semibold">{v.title}</span>, {dayWords(v.day)}, {v.start}
                    <span className="block text-sm text-quiet">
                      Tests are put on it where there is a signal.
                    </span>
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
        {may(who.role, 'plan') && <NewVisitForm today={today()} />}
      </div>
    </>
  );
}

export function VisitHere({ who, carrying, id }: RoomProps) {
  const visit = carrying.house.visits.find((v) => v.id === id);
  const entered = carrying.enteredVisits.find((v) => v.id === id);
  if (!visit)
    return (
      <>
        <h1 className="text-2xl font-bold">{entered?.title ?? 'Visit'}</h1>
        <p className="mt-2">
          {entered
            ? `${dayWords(entered.day)}, ${entered.start}. It is kept on this device; tests are put on it where there is a signal.`
            : 'This visit was not taken along: only those of the next two weeks are.'}
        </p>
        <a className={buttonClass('plain', 'mt-4')} href="/plan">
          Plan
        </a>
      </>
    );
  return (
    <>
      <h1 className="text-2xl font-bold">{visit.title}</h1>
      <p className="text-quiet">
        {dayWords(visit.day)}, from {visit.start}
        {visit.promise && `; promised by ${visit.promise}`}
        {visit.permit && `; permit ${visit.permit}`}
        {visit.present.length > 0 && `; present: ${visit.present.join(', ')}`}
      </p>
      <ul className="mt-4 grid gap-3">
        {visit.tests.map((t) => (
          <li key={t.id} className="flex flex-wrap items-center gap-3 border border-seam bg-panel p-3">
            <div className="min-w-0 flex-1">
              <p className="font-semibold">{t.title}</p>
              <p className="text-sm text-quiet">
                {t.siteName}: {t.systemName}. {t.caseTitle}
                {t.gaugeName && `, ${t.gaugeName}`}
              </p>
            </div>
            <a className={buttonClass('plain')} href={`/places/${t.system}`}>
              The place
            </a>
            {t.run ? (
              <a className={buttonClass('act')} href={`/bench/${t.run}`}>
                At the bench
              </a>
            ) : (
              may(who.role, 'run') && <BeginOf visit={visit} test={t} />
            )}
          </li>
        ))}
      </ul>
      <h2 className={H2}>In this order</h2>
      <ol className="mt-2 list-decimal pl-6">
        {visit.tasks.map((t) => (
          <li key={t.id} className="py-1">
            {t.title}
          </li>
        ))}
      </ol>
    </>
  );
}
/** Begins a test of a visit by itself; two side by side are begun where there is a signal. */
function BeginOf({
  visit,
  test,
}: {
  visit: RoomProps['carrying']['house']['visits'][number];
  test: VisitTest;
}) {
  const [run] = useState(() => uuid7(now()));
  const [trouble, setTrouble] = useState('');
  const begin = async () => {
    setTrouble('');
    try {
      await beginRun(
        {
          id: run,
          system: test.system,
          pack: test.pack,
          procedure: test.procedure,
          case: test.case,
          choices: test.choices ?? {},
          practice: false,
          ...attendanceOn(visit, test),
          visit: { id: visit.id, test: test.id },
          zone: deviceZone(),
        },
        test.title,
      );
      location.assign(`/bench/${run}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <>
      <Button tone="act" onClick={() => void begin()}>
        Begin at the bench
      </Button>
      {trouble && (
        <p role="alert" className="w-full text-rust">
          {trouble}
        </p>
      )}
    </>
  );
}
