'use client';
import { dayWords } from '@/ui/visit/times';
import Link from 'next/link';
import { useMay } from '@/ui/frame/may';
import { calibrationHolds, type Gauge, type GaugeKind } from '@/core/instrument/gauge';
import {
  BLANK_LASTS,
  type DatedEntry,
  dueWords,
  KIT_KINDS,
  type KitFacts,
  type KitKind,
  type Standing,
} from '@/core/instrument/kit';
import { sparesOf } from '@/core/instrument/spare';
import { showExact } from '@/core/quantity/exact';
import { addDays, localDate } from '@/core/quantity/local-date';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import { Suspense, useState } from 'react';

// forms and logs are opened by a tap: their scripts come then
const GaugeFormView = byNeed(() => import('./gauge-form').then((m) => m.GaugeFormView));
const KitFormView = byNeed(() => import('./kit-form').then((m) => m.KitFormView));
const PairGauge = byNeed(() => import('@/ui/kit/pair-gauge').then((m) => m.PairGauge));
const LogPart = byNeed(() => import('./log-part').then((m) => m.LogPart));

export interface GaugeLine {
  readonly gauge: Gauge;
  readonly standing: Standing;
  readonly log: readonly DatedEntry[];
}
export interface KitLine {
  readonly item: KitFacts;
  readonly standing: Standing;
  readonly log: readonly DatedEntry[];
}
const KIND_WORDS: Record<GaugeKind, string> = {
  digital: 'digital',
  dial: 'dial',
  liquid: 'water gauge',
  chart: 'chart recorder',
};
type Adding = 'gauge' | 'kit' | null;

/** Gauges and everything else that is carried: what may judge today, what is due, what happened to it. */
export function CabinetView({
  gauges,
  kit,
  may,
  now,
  zone,
}: {
  gauges: readonly GaugeLine[];
  kit: readonly KitLine[];
  may: boolean;
  now: number;
  /** Where the viewer stands: whose days are meant. */
  zone: string;
}) {
  const [adding, setAdding] = useState<Adding>(null);
  const calibrates = useMay('calibrate');
  const day = localDate(now, zone);
  const soon = addDays(day, 60);
  const kinds = (Object.keys(KIT_KINDS) as KitKind[]).filter((k) => kit.some((x) => x.item.kind === k));
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl font-bold">Cabinet</h1>
        <div className="flex flex-wrap gap-3">
          <Link prefetch={false} href="/scan" className={buttonClass('plain')}>
            Scan
          </Link>
          <Link prefetch={false} href="/cabinet/labels" className={buttonClass('plain')}>
            Labels
          </Link>
          {may && (
            <>
              {calibrates && (
                <Button
                  onClick={() => setAdding(adding === 'gauge' ? null : 'gauge')}
                  aria-expanded={adding === 'gauge'}
                >
                  New gauge
                </Button>
              )}
              <Button
                onClick={() => setAdding(adding === 'kit' ? null : 'kit')}
                aria-expanded={adding === 'kit'}
              >
                Other kit
              </Button>
            </>
          )}
        </div>
      </div>
      {adding === 'gauge' && <GaugeFormView gauge={null} onDone={() => setAdding(null)} />}
      {adding === 'kit' && <KitFormView item={null} onDone={() => setAdding(null)} />}
      <section className="mt-4">
        <h2 className="text-lg font-semibold">Gauges</h2>
        {gauges.length === 0 && (
          <p className="mt-2">No gauge is entered yet. Without one no test can begin: enter the first.</p>
        )}
        <ul className="mt-2 border-t border-ink" data-judged-in="*">
          {gauges.map((g) => (
            <GaugeRow
              key={g.gauge.id}
              line={g}
              day={day}
              zone={zone}
              soon={soon}
              may={calibrates}
              all={gauges.map((x) => x.gauge)}
            />
          ))}
        </ul>
      </section>
      {kinds.map((kind) => (
        <section key={kind} className="mt-6">
          <h2 className="text-lg font-semibold">{KIT_KINDS[kind].replace(/^./, (c) => c.toUpperCase())}</h2>
          <ul className="mt-2 border-t border-ink" data-judged-in="*">
            {kit
              .filter((k) => k.item.kind === kind)
              .map((k) => (
                <KitRow key={k.item.id} line={k} day={day} zone={zone} soon={soon} may={may} />
              ))}
          </ul>
        </section>
      ))}
    </>
  );
}
const row = 'grid gap-x-6 gap-y-1 border-b border-seam py-3 sm:grid-cols-[11rem_1fr_15rem]';

/** When something is due: a word beside the day, never the colour alone. */
function Due({ what, due, day, soon }: { what: string; due: string; day: string; soon: string }) {
  if (!due) return <span className="text-sm text-quiet">no date</span>;
  const out = due < day;
  return (
    <span
      className={`text-sm ${out ? 'font-semibold text-rust' : due < soon ? 'font-semibold text-ochre' : 'text-quiet'}`}
    >
      {what} {out ? 'ran out' : due < soon ? 'due soon:' : 'until'}{' '}
      <span className="whitespace-nowrap">{dayWords(due)}</span>
    </span>
  );
}

function GaugeRow({
  line,
  day,
  zone,
  soon,
  may,
  all,
}: {
  line: GaugeLine;
  day: string;
  zone: string;
  soon: string;
  may: boolean;
  all: readonly Gauge[];
}) {
  const [open, setOpen] = useState(false);
  const [editing, setEditing] = useState(false);
  const runs = useMay('run');
  const { gauge: g, standing: s } = line;
  const out = !calibrationHolds(g, day);
  const spares = sparesOf(g, all, day);
  return (
    <li id={`item-${g.id}`} className="scroll-mt-4 border-b border-seam" data-gauge={g.name}>
      <button
        type="button"
        aria-expanded={open}
        className={`${row} w-full border-b-0 text-left hover:text-lake`}
        onClick={() => setOpen(!open)}
      >
        <span>
          <span className="block font-semibold">{g.name}</span>
          <span className="block text-sm text-quiet">
            {KIND_WORDS[g.kind as GaugeKind]}, {g.serial}
          </span>
        </span>
        <span>
          <span className="figure-narrow">
            {showExact(g.least)} to {showExact(g.greatest)}
          </span>
          , steps of <span className="figure-narrow">{showExact(g.resolution)}</span>
          {s.withdrawn && (
            <span className="block font-semibold text-rust">Out of use: {s.withdrawn}. It cannot judge.</span>
          )}
          {s.mustZero && (
            <span className="block font-semibold text-ochre">
              Cannot judge until it shows zero: {s.mustZero}.
            </span>
          )}
        </span>
        <span className="grid content-start gap-0.5">
          <Due what="Calibration" due={g.calibrationDue} day={day} soon={soon} />
          {out && <span className="text-sm">It cannot judge: recalibrate or discard it.</span>}
          <span className="text-sm text-quiet">
            {s.lastZero ? (
              <>
                zero <span className="figure-narrow">{showExact(s.lastZero.figure)}</span>,{' '}
                {dayWords(localDate(Date.parse(s.lastZero.at), zone))}
              </>
            ) : (
              'no zero on record'
            )}
          </span>
        </span>
      </button>
      {open && (
        <div className="grid gap-4 pb-4">
          <p className="text-sm">
            {spares.length
              ? `Spare of the same size for a swap: ${spares.map((x) => `${x.name}, ${x.serial}`).join('; ')}.`
              : 'No second gauge of this size: an apparent drop could not be told from a bad gauge.'}{' '}
            Swapped {s.swaps} times, rejected {s.rejections} times.
            {g.accuracy && ` Accuracy ${g.accuracy}.`}
          </p>
          <Suspense fallback={null}>
            <LogPart id={g.id} gauge={g} log={line.log} kind="gauge" zone={zone} />
            {runs && g.kind === 'digital' && <PairGauge gauge={g.id} />}
          </Suspense>
          {may &&
            (editing ? (
              <GaugeFormView gauge={g} onDone={() => setEditing(false)} />
            ) : (
              <Button className="justify-self-start" onClick={() => setEditing(true)}>
                Change its facts
              </Button>
            ))}
        </div>
      )}
    </li>
  );
}

/** What a fan's hose passes when it is closed on itself, and how old that is. */
function HoseAlone({ of }: { of: Standing['lastThrough'] }) {
  const old = !of || of.days > BLANK_LASTS;
  return (
    <span className={`text-sm ${old ? 'text-ochre' : 'text-quiet'}`}>
      {of ? (
        <>
          hose alone: {of.below && 'less than '}
          <span className="figure-narrow">{showExact(of.flow)}</span> at{' '}
          <span className="figure-narrow">{showExact(of.pressure)}</span>, {of.days} days old
          {old && `; over ${BLANK_LASTS} days, make it again`}
        </>
      ) : (
        'hose never tested by itself'
      )}
    </span>
  );
}

function KitRow({
  line,
  day,
  zone,
  soon,
  may,
}: {
  line: KitLine;
  day: string;
  zone: string;
  soon: string;
  may: boolean;
}) {
  const [open, setOpen] = useState(false);
  const [editing, setEditing] = useState(false);
  const { item: k, standing: s } = line;
  const facts = [
    k.size,
    k.stroke && `${showExact(k.stroke)} a stroke`,
    k.rating && `rated ${showExact(k.rating)}`,
    k.resolution && `steps of ${showExact(k.resolution)}`,
    k.ranges &&
      k.ranges.map((r) => `range ${r.name}: ${showExact(r.least)} to ${showExact(r.greatest)}`).join('; '),
    k.batch && `batch ${k.batch}`,
    k.note,
  ].filter(Boolean);
  const blank = s.lastBlank;
  return (
    <li id={`item-${k.id}`} className="scroll-mt-4 border-b border-seam" data-kit={k.name}>
      <button
        type="button"
        aria-expanded={open}
        className={`${row} w-full border-b-0 text-left hover:text-lake`}
        onClick={() => setOpen(!open)}
      >
        <span>
          <span className="block font-semibold">{k.name}</span>
          <span className="block text-sm text-quiet">{k.serial}</span>
        </span>
        <span>
          {facts.join('; ') || 'no facts entered'}
          {s.withdrawn && <span className="block font-semibold text-rust">Out of use: {s.withdrawn}.</span>}
        </span>
        <span className="grid content-start gap-0.5">
          <Due what={dueWords(k.kind)} due={k.due} day={day} soon={soon} />
          {k.kind === 'fan' && <HoseAlone of={s.lastThrough} />}
          {(k.kind === 'hose' || k.kind === 'plug') && (
            <span className={`text-sm ${!blank || blank.days > BLANK_LASTS ? 'text-ochre' : 'text-quiet'}`}>
              {blank ? (
                <>
                  blank: lost <span className="figure-narrow">{showExact(blank.loss)}</span> in{' '}
                  {blank.minutes} min, {blank.days} days old
                  {blank.days > BLANK_LASTS && `; over ${BLANK_LASTS} days, make it again`}
                </>
              ) : (
                'never tested by itself'
              )}
            </span>
          )}
        </span>
      </button>
      {open && (
        <div className="grid gap-4 pb-4">
          <Suspense fallback={null}>
            <LogPart id={k.id} gauge={null} log={line.log} kind={k.kind} zone={zone} />
          </Suspense>
          {may &&
            (editing ? (
              <KitFormView item={k} onDone={() => setEditing(false)} />
            ) : (
              <Button className="justify-self-start" onClick={() => setEditing(true)}>
                Change its facts
              </Button>
            ))}
        </div>
      )}
    </li>
  );
}
