'use client';
import { dayWords } from '@/ui/visit/times';
import { useMay } from '@/ui/frame/may';
import type { Gauge } from '@/core/instrument/gauge';
import type { DatedEntry, KitKind } from '@/core/instrument/kit';
import { showExact, toNumber } from '@/core/quantity/exact';
import { localDate } from '@/core/quantity/local-date';
import { type Unit, unitLabel } from '@/core/quantity/unit';
import { now } from '@/device/clock';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Field, FIELD, TRADE_UNITS } from '@/ui/kit/field';
import { FigureField, WordsField } from '@/ui/kit/figure-field';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import type { LogForm } from '@/wire/cabinet';
import { uuid7 } from '@/wire/uuid7';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

type What = LogForm['what'];
const WORDS: Record<string, string> = {
  zero: 'Zero check',
  blank: 'Tested by itself',
  through: 'Tested by itself',
  calibrated: 'Calibrated',
  dropped: 'Dropped',
  'over-ranged': 'Over-ranged',
  rejected: 'Take out of use',
  returned: 'Back in use',
  note: 'Note',
};
/** Only who may calibrate writes these. */
const CALIBRATES: ReadonlySet<What> = new Set(['calibrated', 'returned']);
const offered = (kind: KitKind | 'gauge'): What[] =>
  kind === 'gauge'
    ? ['zero', 'calibrated', 'dropped', 'over-ranged', 'rejected', 'returned', 'note']
    : kind === 'hose' || kind === 'plug' || kind === 'pump'
      ? ['blank', 'rejected', 'returned', 'note']
      : kind === 'fan'
        ? ['through', 'calibrated', 'dropped', 'rejected', 'returned', 'note']
        : ['calibrated', 'dropped', 'rejected', 'returned', 'note'];

const lineOf = ({ entry: e }: DatedEntry): string => {
  switch (e.what) {
    case 'zero':
      return `Zero ${showExact(e.figure)}${e.good ? '' : ', off zero'}${e.run ? ', in a run' : ''}`;
    case 'blank':
      return `By itself: lost ${showExact(e.loss)} in ${e.minutes} min at ${showExact(e.pressure)}`;
    case 'through':
      return `By itself: ${e.below ? 'less than ' : ''}${showExact(e.flow)} passed at ${showExact(e.pressure)}${e.run ? ', in a run' : ''}`;
    case 'calibrated':
      return `Calibrated ${dayWords(e.on)}, until ${dayWords(e.due)}${e.certificate ? `, ${e.certificate}` : ''}`;
    case 'swapped':
      return `Swapped for ${e.forName}`;
    case 'dropped':
    case 'over-ranged':
      return `${WORDS[e.what]}${e.text ? `: ${e.text}` : ''}. It must show zero before it judges.`;
    case 'rejected':
      return `Out of use: ${e.text}`;
    case 'returned':
      return `Back in use: ${e.text}`;
    case 'note':
      return e.text;
  }
};

/** What happened to a thing, and the entry of what happened now. */
export function LogPart({
  id,
  gauge,
  log,
  kind,
  zone,
}: {
  id: string;
  gauge: Gauge | null;
  log: readonly DatedEntry[];
  kind: KitKind | 'gauge';
  zone: string;
}) {
  const calibrates = useMay('calibrate');
  const [what, setWhat] = useState<What | null>(null);
  const [said, setSaid] = useState('');
  const zeros = log.flatMap((e) => (e.entry.what === 'zero' ? [e] : [])).reverse();
  return (
    <div className="grid gap-3">
      {gauge && zeros.length > 1 && <Zeros entries={zeros} gauge={gauge} />}
      <div className="flex flex-wrap gap-2">
        {offered(kind)
          .filter((w) => calibrates || !CALIBRATES.has(w))
          .map((w) => (
            <Button
              key={w}
              aria-pressed={what === w}
              className={what === w ? 'border-2 border-lake' : ''}
              onClick={() => {
                setWhat(what === w ? null : w);
                setSaid('');
              }}
            >
              {WORDS[w]}
            </Button>
          ))}
      </div>
      {what && (
        <Entry
          key={what}
          id={id}
          what={what}
          gauge={gauge}
          onWritten={(words) => {
            setSaid(words);
            setWhat(null);
          }}
        />
      )}
      <p role="status">{said}</p>
      {log.length > 0 && (
        <ul className="max-h-72 overflow-auto border-t border-seam text-sm">
          {log.map((e) => (
            <li key={e.id} className="grid grid-cols-[6.5rem_1fr] gap-3 border-b border-seam py-1.5">
              <span className="figure-narrow text-quiet">{localDate(Date.parse(e.at), zone)}</span>
              <span>
                {lineOf(e)} <span className="text-quiet">{e.by}</span>
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** What happened now, in the fields that it needs. */
function Entry({
  id,
  what,
  gauge,
  onWritten,
}: {
  id: string;
  what: What;
  gauge: Gauge | null;
  onWritten: (words: string) => void;
}) {
  const router = useRouter();
  const { register, control, submit, trouble, formState } = useOfficeForm<LogForm>({
    schema: () => import('@/wire/cabinet').then((m) => m.logSchema),
    values: {
      id: uuid7(now()),
      what,
      figure: '',
      pressure: '',
      loss: '',
      flow: '',
      on: '',
      due: '',
      text: '',
    },
    send: async (value) => {
      const { good } = await office<{ good: boolean | null }>(`/api/cabinet/${id}/log`, { body: value });
      onWritten(good === false ? 'Off zero: it cannot judge until it shows zero again.' : 'Written down.');
      router.refresh();
    },
  });
  const figure = (name: 'figure' | 'pressure' | 'loss', label: string, units?: readonly Unit[]) => (
    <FigureField
      control={control}
      name={name}
      label={label}
      units={units ?? (gauge ? [gauge.resolution.unit] : TRADE_UNITS.pressure)}
    />
  );
  const day = (name: 'on' | 'due', label: string) => (
    <WordsField control={control} name={name} label={label} type="date" />
  );
  return (
    <form className="grid gap-3 border border-seam bg-panel p-3 sm:grid-cols-2" noValidate onSubmit={submit}>
      {what === 'zero' && (
        <>
          {figure('figure', 'What it shows')}
          <label className="flex min-h-12 items-center gap-3 self-end">
            <input type="checkbox" className="size-5 accent-lake" {...register('openToAir')} />
            Open to air, nothing connected
          </label>
        </>
      )}
      {what === 'blank' && (
        <>
          {figure('pressure', 'Pressure')}
          {figure('loss', 'Lost')}
          <Field label="Minutes" wrong={formState.errors.minutes?.message}>
            {(ids) => (
              <input
                {...ids}
                type="number"
                min={0.5}
                step={0.5}
                className={FIELD}
                {...register('minutes', { setValueAs: (v) => (v === '' ? undefined : Number(v)) })}
              />
            )}
          </Field>
        </>
      )}
      {what === 'through' && (
        <>
          {figure('pressure', 'Pressure in the hose, closed on itself', ['Pa', 'inWC', 'mbar'])}
          <FigureField
            control={control}
            name="flow"
            label="Flow that still passed"
            units={TRADE_UNITS.flow}
          />
          <label className="flex min-h-12 items-center gap-3 self-end">
            <input type="checkbox" className="size-5 accent-lake" {...register('below')} />
            Below the range: the figure is the least it reads
          </label>
        </>
      )}
      {what === 'calibrated' && (
        <>
          {day('on', 'On')}
          {day('due', 'Holds until')}
        </>
      )}
      <WordsField
        control={control}
        name="text"
        label={what === 'calibrated' ? 'Certificate number' : 'In words'}
        className="sm:col-span-2"
        maxLength={200}
      />
      <div className="sm:col-span-2">
        <p role="alert" className="text-rust">
          {formState.errors.openToAir?.message ?? trouble}
        </p>
        <Button type="submit" tone="act">
          Write it down
        </Button>
      </div>
    </form>
  );
}

/** Zero checks over time, in display steps: a gauge that wanders shows here first. */
function Zeros({ entries, gauge }: { entries: readonly DatedEntry[]; gauge: Gauge }) {
  const step = toNumber(gauge.resolution);
  const shown = entries.slice(-24).flatMap((e) =>
    e.entry.what === 'zero'
      ? [
          {
            id: e.id,
            at: e.at,
            steps: toNumber(e.entry.figure) / step,
            good: e.entry.good,
            text: showExact(e.entry.figure),
          },
        ]
      : [],
  );
  const most = Math.max(2, ...shown.map((s) => Math.abs(s.steps)));
  const [width, height] = [Math.max(160, shown.length * 18), 64];
  const y = (steps: number) => height / 2 - (steps / most) * (height / 2 - 8);
  return (
    <figure className="m-0">
      <div className="overflow-x-auto">
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`Last zero checks in ${unitLabel(gauge.resolution.unit)}: ${shown.map((s) => s.text).join(', ')}`}
        >
          <line x1={0} x2={width} y1={height / 2} y2={height / 2} stroke="var(--ink)" />
          {[1, -1].map((s) => (
            <line key={s} x1={0} x2={width} y1={y(s)} y2={y(s)} stroke="var(--moss)" strokeDasharray="5 4" />
          ))}
          {shown.map((s, i) => (
            <rect
              key={s.id}
              x={i * 18 + 5}
              y={y(s.steps) - 4}
              width={8}
              height={8}
              fill={s.good ? 'var(--ink)' : 'var(--rust)'}
            />
          ))}
        </svg>
      </div>
      <figcaption className="text-sm text-quiet">
        Last zero checks; the broken lines are one display step, {showExact(gauge.resolution)}.
      </figcaption>
    </figure>
  );
}
