'use client';
import { deviceZone } from '@/device/clock';
import { type LogMapping, type LogPoint, type LogRead } from '@/core/gauge-log/mapping';
import { unitTrouble } from '@/core/gauge-log/read-log';
import { exact, showExact } from '@/core/quantity/exact';
import { convert, type Unit, unitLabel } from '@/core/quantity/unit';
import { office, type OfficeError } from '@/device/office';
import { TraceChart } from '@/ui/charts/trace';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { SelectField } from '@/ui/kit/field';
import { useSize } from '@/ui/kit/use-size';
import { moment } from '@/ui/kit/words';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { appendLog } from './append-log';
import { MappingForm } from './mapping-form';
import { OutsideTest } from './outside-test';
import { useReadBefore } from '@/ui/tables/use-read-before';
import { useLog } from './use-log';

export interface RunChoice {
  readonly id: string;
  readonly title: string;
  readonly procedure: string;
  readonly made: string;
}
/** So many points are drawn; all are read. */
const DRAWN = 1200;
const ZONE = deviceZone();

/** A gauge's log: how it is read, what could not be read, what it shows, and the run it belongs to. */
export function LogImport({
  name,
  text,
  hash,
  runs,
  places,
  chosen,
}: {
  name: string;
  text: string;
  hash: string;
  runs: readonly RunChoice[];
  places: readonly { readonly id: string; readonly title: string }[];
  chosen: string | null;
}) {
  const { mapping, setMapping, remembered, ask, known } = useReadBefore<LogMapping>('/api/log-mappings');
  const [began, setBegan] = useState('');
  const [run, setRun] = useState(runs.find((r) => r.id === chosen)?.id ?? runs[0]?.id ?? '');
  const start = began ? Date.parse(began) : NaN;
  const { answer, settled } = useLog({
    text,
    mapping,
    zone: ZONE,
    unit: 'mbar',
    ...(Number.isNaN(start) ? {} : { began: start }),
  });
  const shape = answer?.shape;
  useEffect(() => ask(shape), [ask, shape]);
  if (!answer) return <p role="status">Reading the log …</p>;
  const { read } = answer;
  return (
    <div className="grid gap-6">
      <MappingForm
        key={remembered ? 'remembered' : 'guessed'}
        mapping={mapping ?? answer.mapping}
        head={answer.head}
        onChange={setMapping}
        began={began}
        onBegan={setBegan}
        remembered={remembered}
      />
      <Errors read={read} ms={answer.ms} />
      {read.points.length > 1 && <LogChart read={read} />}
      {!known && <p role="status">Asking how such a log was read before …</p>}
      {known && read.points.length > 0 && (
        <IntoRun
          runs={runs}
          run={run}
          onRun={setRun}
          file={name}
          hash={hash}
          text={text}
          mapping={mapping ?? answer.mapping}
          shape={answer.shape}
          {...(Number.isNaN(start) ? {} : { began: start })}
        />
      )}
      {known && settled && read.points.length > 1 && places.length > 0 && (
        <OutsideTest
          places={places}
          zone={ZONE}
          file={name}
          hash={hash}
          mapping={mapping ?? answer.mapping}
          read={({ unit, scale }) => inSteps(read, unit, scale)}
        />
      )}
    </div>
  );
}

/** The readings as they were read, in the unit and steps of a gauge. */
function inSteps(read: LogRead, unit: Unit, scale: number): readonly LogPoint[] {
  if (unitTrouble(read.unit, unit)) return [];
  if (read.unit === unit && read.scale === scale) return read.points;
  const factor = 10 ** scale / 10 ** read.scale;
  return read.points.map((p) => ({
    ...p,
    digits: Math.round(
      read.unit === unit
        ? p.digits * factor
        : convert(p.digits / 10 ** read.scale, read.unit, unit) * 10 ** scale,
    ),
  }));
}

function Errors({ read, ms }: { read: LogRead; ms: number }) {
  const first = read.points[0];
  const last = read.points[read.points.length - 1];
  return (
    <section aria-labelledby="rows">
      <h2 id="rows" className="text-lg font-semibold">
        What was read
      </h2>
      <p role="status" data-ms={Math.round(ms)}>
        <span className="figure-narrow">{read.points.length}</span> of{' '}
        <span className="figure-narrow">{read.rows}</span> rows
        {first && last ? `, from ${moment(first.at, ZONE)} to ${moment(last.at, ZONE)}` : ''}
        {first ? `, first ${showExact(exact(first.digits, read.scale, read.unit))}` : ''}.
      </p>
      {read.errorCount > 0 && (
        <details className="mt-1" open={read.points.length === 0}>
          <summary className="min-h-11 cursor-pointer py-2 text-rust">
            {read.errorCount} row{read.errorCount === 1 ? '' : 's'} could not be read and{' '}
            {read.errorCount === 1 ? 'is' : 'are'} left out
          </summary>
          <ul className="max-h-72 overflow-y-auto text-sm">
            {read.errors.map((e, i) => (
              <li key={i} className="border-t border-seam py-1">
                Row <span className="figure-narrow">{e.row}</span>, {e.column}: {e.text}
              </li>
            ))}
            {read.errorCount > read.errors.length && (
              <li className="border-t border-seam py-1">and {read.errorCount - read.errors.length} more</li>
            )}
          </ul>
        </details>
      )}
    </section>
  );
}

function LogChart({ read }: { read: LogRead }) {
  const [setEl, { width }] = useSize();
  const from = read.points[0]!.at;
  const every = Math.max(1, Math.ceil(read.points.length / DRAWN));
  const factor = 10 ** read.scale;
  const points = read.points
    .filter((_, i) => i % every === 0 || i === read.points.length - 1)
    .map((p) => ({ t: p.at - from, p: p.digits / factor }));
  return (
    <div ref={setEl}>
      {width > 0 && (
        <TraceChart
          request={{
            width,
            height: 220,
            points,
            marks: [],
            from: 0,
            to: read.points[read.points.length - 1]!.at - from,
            decimals: read.scale,
            streamed: true,
          }}
          unit={unitLabel(read.unit)}
          title="The log"
        />
      )}
    </div>
  );
}

function IntoRun({
  runs,
  run,
  onRun,
  file,
  hash,
  text,
  mapping,
  shape,
  began,
}: {
  runs: readonly RunChoice[];
  run: string;
  onRun: (run: string) => void;
  file: string;
  hash: string;
  text: string;
  mapping: LogMapping;
  shape: string;
  began?: number;
}) {
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const take = async () => {
    setBusy(true);
    setSaid('');
    setTrouble('');
    try {
      setSaid(
        await appendLog({
          run,
          file,
          hash,
          text,
          mapping,
          zone: ZONE,
          ...(began === undefined ? {} : { began }),
        }),
      );
      await office('/api/log-mappings', { body: { shape, mapping } });
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
    setBusy(false);
  };
  return (
    <section aria-labelledby="into" className="max-w-3xl">
      <h2 id="into" className="text-lg font-semibold">
        Into a run
      </h2>
      <p className="text-sm text-quiet">
        Readings that fall into the time of the run stand in its trace, marked as read in afterwards. They may
        speak against a result; no hold is judged again by them.
      </p>
      {runs.length === 0 ? (
        <p className="mt-2">
          No run waits for readings: a log is read in after the gauge is chosen and before anyone signs.
        </p>
      ) : (
        <div className="mt-2 grid gap-3 sm:grid-cols-[1fr_auto]">
          <SelectField
            label="Run"
            value={run}
            options={runs.map((r) => ({
              id: r.id,
              title: `${r.title}, ${r.procedure}, ${moment(r.made, ZONE)}`,
            }))}
            onChange={onRun}
          />
          <Button tone="act" className="self-end" disabled={busy} onClick={() => void take()}>
            {busy ? 'Reading in …' : 'Read into this run'}
          </Button>
        </div>
      )}
      <p role="status" className="mt-2">
        {said && (
          <>
            {said}{' '}
            <Link
              prefetch={false}
              className={buttonClass('plain', 'min-h-11 text-sm')}
              href={`/bench/${run}`}
            >
              To the bench
            </Link>
          </>
        )}
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
