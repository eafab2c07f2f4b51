'use client';
import { FindField } from '@/ui/find/find';
import type { GlyphCourse } from '@/chart/courses';
import { armAlarm, notify, sound } from '@/device/alarm';
import { now } from '@/device/clock';
import { WallGlyph } from '@/ui/charts/wall';
import { countdown } from '@/ui/kit/words';
import { type RecordLine, RecordRow } from '@/ui/ledger/row';
import { dayWords } from '@/ui/visit/times';
import Link from 'next/link';
import { useEffect, useRef, useState } from 'react';
import { type Due, DueList, type Member } from './due';
import type { TestNow } from '@/wire/test-now';
import type { RunSummary } from './summary';
import { FirstWays, type Tested, Ways } from './ways';

export interface RunningRun extends RunSummary {
  readonly glyph: readonly GlyphCourse[];
}
interface Props {
  readonly name: string;
  readonly runs: readonly RunningRun[];
  /** Open runs beside those. */
  readonly more: number;
  readonly visits: readonly {
    readonly id: string;
    readonly title: string;
    readonly day: string;
    readonly start: string;
    readonly tests: readonly string[];
  }[];
  readonly day: string;
  readonly due: readonly Due[];
  readonly members: readonly Member[];
  readonly person: string;
  readonly watches: readonly {
    readonly id: string;
    readonly title: string;
    readonly words: string;
    readonly lost: boolean;
    readonly stale: boolean;
  }[];
  readonly recent: readonly RecordLine[];
  readonly tested: readonly Tested[];
  /** A house in which nothing was tested yet. */
  readonly first: TestNow | null;
  readonly serverNow: number;
}

/** What is running now, what is due, and the newest records. */
export function TodayView({
  name,
  runs,
  more,
  visits,
  day,
  due,
  members,
  person,
  watches,
  recent,
  tested,
  first,
  serverNow,
}: Props) {
  const [at, setAt] = useState(serverNow);
  useEffect(() => {
    const offset = serverNow - now();
    const timer = setInterval(() => setAt(now() + offset), 1000);
    return () => clearInterval(timer);
  }, [serverNow]);
  useAlarms(runs, serverNow, at);
  return (
    <>
      <h1 className="text-2xl font-bold">Today, {name.split(' ')[0]}</h1>
      <FindField className="mt-3" />
      {first && <FirstWays {...first} />}
      <div
        className={`mt-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,20rem)] ${first ? 'hidden' : ''}`}
      >
        <section aria-labelledby="running">
          <h2 id="running" className="text-lg font-semibold">
            Running now
          </h2>
          {runs.length === 0 && <p className="mt-1 text-quiet">No run is open.</p>}
          <ul className="mt-2 grid gap-2">
            {runs.map((r) => (
              <RunRow key={r.run} run={r} at={at} />
            ))}
          </ul>
          {more > 0 && (
            <p className="mt-2">
              <Link prefetch={false} href="/today?open=all" className="text-lake underline">
                {more} more open {more === 1 ? 'run' : 'runs'}
              </Link>
            </p>
          )}
          <Ways tested={tested} />
          {visits.length > 0 && <NextVisits visits={visits} day={day} />}
          <h2 className="mt-8 text-lg font-semibold">Newest records</h2>
          <ul className="mt-2 border-t border-seam">
            {recent.map((r) => (
              <RecordRow key={r.run} line={r} />
            ))}
          </ul>
          {recent.length === 0 && <p className="mt-2 text-quiet">Sealed records appear here.</p>}
        </section>
        <div className="grid content-start gap-8">
          {watches.length > 0 && <UnderWatch watches={watches} />}
          <DueList due={due} members={members} person={person} />
        </div>
      </div>
    </>
  );
}

/** What must not be forgotten rings, also while its bench is not open. */
function useAlarms(runs: Props['runs'], serverNow: number, at: number): void {
  const rung = useRef(new Set(runs.filter((r) => r.ends !== null && r.ends <= serverNow).map((r) => r.run)));
  useEffect(() => {
    addEventListener('pointerdown', armAlarm, { once: true });
  }, []);
  useEffect(() => {
    // what must not be forgotten rings again and again, also while its bench is not open
    for (const r of runs) {
      const times = r.urgent ? Math.floor((at - r.urgent.since) / r.urgent.everyMs) : 0;
      const key = `${r.run}:${r.urgent?.since}:${times}`;
      if (times < 1 || rung.current.has(key)) continue;
      rung.current.add(key);
      sound(2);
      notify(`${r.site}: still owed: ${r.urgent!.text}.`);
    }
    // every hold has an alarm of its own, also while its bench is not open
    for (const r of runs)
      if (r.ends !== null && at >= r.ends && !rung.current.has(r.run)) {
        rung.current.add(r.run);
        sound(3);
        notify(`${r.site}: ${r.stage}. The time has run out: ${r.then}.`);
      }
  }, [runs, at]);
}

function RunRow({ run: r, at }: { run: Props['runs'][number]; at: number }) {
  const left = r.ends === null ? null : r.ends - at;
  return (
    <li>
      <Link
        prefetch={false}
        href={`/bench/${r.run}`}
        className="grid min-h-16 grid-cols-[auto_1fr_auto] items-center gap-4 border border-seam bg-panel px-4 py-3 hover:border-ink"
      >
        <WallGlyph courses={r.glyph} label={`Wall of this run, ${r.stage}`} />
        <span>
          <span className="block font-semibold">
            {r.site}: {r.system}
          </span>
          <span className="block text-sm text-quiet">
            {r.procedure}
            {r.practice ? ', practice' : ''} · now: {r.stage}
          </span>
          {r.urgent && <span className="block font-semibold text-ochre">Still owed: {r.urgent.text}</span>}
        </span>
        {left !== null ? (
          <span className="text-right">
            <span className="figure block text-2xl">{left > 0 ? countdown(left) : '0:00'}</span>
            <span className={`block text-sm ${left > 0 ? 'text-quiet' : 'font-semibold text-ochre'}`}>
              {left > 0 ? `then: ${r.then}` : r.then}
            </span>
          </span>
        ) : (
          <span className={`text-right text-sm font-semibold ${r.owed ? 'text-ochre' : 'text-lake'}`}>
            {r.owed ? `${r.owed} to put back` : 'Open'}
          </span>
        )}
      </Link>
    </li>
  );
}
function NextVisits({ visits, day }: Pick<Props, 'visits' | 'day'>) {
  return (
    <>
      <h2 className="mt-8 text-lg font-semibold">Next visits</h2>
      <ul className="mt-2 border-t border-seam">
        {visits.map((v) => (
          <li key={v.id} className="border-b border-seam">
            <Link
              prefetch={false}
              href={`/plan/${v.id}`}
              className="grid min-h-14 grid-cols-[7.5rem_1fr] gap-4 py-2 hover:text-lake"
            >
              <span>
                {v.day === day ? 'today' : dayWords(v.day, true)}
                <span className="figure-narrow block text-sm text-quiet">{v.start}</span>
              </span>
              <span>
                <span className="block font-semibold">{v.title}</span>
                <span className="block text-sm text-quiet">{v.tests.join('; ') || 'no test on it yet'}</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}
function UnderWatch({ watches }: Pick<Props, 'watches'>) {
  return (
    <section aria-labelledby="watches">
      <h2 id="watches" className="text-lg font-semibold">
        Under watch
      </h2>
      <ul className="mt-2 border-t border-seam">
        {watches.map((w) => (
          <li
            key={w.id}
            className={`border-b border-seam py-1 ${w.lost ? 'border-l-4 border-l-rust pl-3' : ''}`}
          >
            <Link
              prefetch={false}
              className="block min-h-11 py-1 underline-offset-4 hover:text-lake hover:underline"
              href={`/watches/${w.id}`}
            >
              <span className="block text-sm text-quiet">{w.title}</span>
              <span className={w.lost ? 'font-semibold text-rust' : ''}>{w.words}</span>
              {w.stale && (
                <span className="block text-sm text-ochre">not read for three days: ask for a reading</span>
              )}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
