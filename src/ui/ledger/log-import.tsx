'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import {
  TIME_FORMATS,
  type LogMapping,
  type LogPoint,
  type LogRead,
  type TimeFormat,
} from '@/core/gauge-log/mapping';
import { unitTrouble } from '@/core/gauge-log/read-log';
import { exact, showExact } from '@/core/quantity/exact';
import { convert, unitLabel, unitsOf, type Unit } from '@/core/quantity/unit';
import { gaugeOf } from '@/core/run/read';
import { BenchEngine } from '@/device/bench';
import { readIdentity } from '@/device/identity';
import { office, type OfficeError } from '@/device/office';
import { TraceChart } from '@/ui/charts/trace';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { SelectField, TextField } from '@/ui/kit/field';
import { useSize } from '@/ui/kit/use-size';
import { moment } from '@/ui/kit/words';
import { OutsideTest } from './outside-test';
import { useLog } from './use-log';

export interface RunChoice {
  readonly id: string;
  readonly title: string;
  readonly procedure: string;
  readonly made: string;
}
const DELIMITERS = [
  [',', 'comma'],
  [';', 'semicolon'],
  ['\t', 'tab'],
  ['|', 'bar'],
] as const;
/** So many points are drawn; all are read. */
const DRAWN = 1200;
const AT_ONCE = 600;
const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

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
  const [mapping, setMapping] = useState<LogMapping | null>(null);
  const [remembered, setRemembered] = useState(false);
  const [began, setBegan] = useState('');
  const [run, setRun] = useState(runs.find((r) => r.id === chosen)?.id ?? runs[0]?.id ?? '');
  const start = began ? Date.parse(began) : NaN;
  const answer = useLog({
    text,
    mapping,
    zone: ZONE,
    unit: 'mbar',
    ...(Number.isNaN(start) ? {} : { began: start }),
  });
  const shape = answer?.shape;
  useEffect(() => {
    if (!shape || mapping) return;
    // how this kind of log was read the last time, by anybody here
    void office<{ mapping: LogMapping | null }>(`/api/log-mappings?shape=${encodeURIComponent(shape)}`).then(
      (a) => {
        if (!a.mapping) return;
        setMapping(a.mapping);
        setRemembered(true);
      },
      () => undefined, // without a signal the guess stands
    );
  }, [shape, mapping]);
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
      {read.points.length > 0 && (
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
      {read.points.length > 1 && places.length > 0 && (
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

function MappingForm({
  mapping: m,
  head,
  onChange,
  began,
  onBegan,
  remembered,
}: {
  mapping: LogMapping;
  head: readonly (readonly string[])[];
  onChange: (m: LogMapping) => void;
  began: string;
  onBegan: (text: string) => void;
  remembered: boolean;
}) {
  const width = Math.max(1, ...head.map((r) => r.length));
  const header = head[m.headerRows - 1] ?? [];
  const columns = Array.from({ length: width }, (_, i) => ({
    id: String(i),
    title: `${i + 1}${header[i]?.trim() ? `: ${header[i].trim().slice(0, 30)}` : ''}`,
  }));
  const pick = (
    label: string,
    value: string,
    options: readonly { id: string; title: string }[],
    change: (v: string) => void,
  ) => <SelectField label={label} value={value} options={options} onChange={change} />;
  const none = { id: '', title: 'none' };
  const used = new Map([
    [m.time.column, 'time'],
    ...(m.time.clock === undefined ? [] : [[m.time.clock, 'clock'] as const]),
    [m.pressure.column, 'pressure'],
    ...(m.temperature ? [[m.temperature.column, 'temperature'] as const] : []),
  ]);
  return (
    <section aria-labelledby="mapping">
      <h2 id="mapping" className="text-lg font-semibold">
        How it is read
      </h2>
      <p className="text-sm text-quiet">
        {remembered
          ? 'As a log of this shape was read here the last time. '
          : 'Guessed from the first rows. '}
        Check the units and the order of day and month: nothing in the file says them for sure.
      </p>
      <div className="mt-3 grid grid-cols-2 gap-3 md:grid-cols-4">
        {pick(
          'Columns are parted by',
          m.delimiter,
          DELIMITERS.map(([id, title]) => ({ id, title })),
          (delimiter) => onChange({ ...m, delimiter }),
        )}
        {pick(
          'Decimal sign',
          m.decimal,
          [
            { id: '.', title: 'point, 20.35' },
            { id: ',', title: 'comma, 20,35' },
          ],
          (v) => onChange({ ...m, decimal: v as '.' | ',' }),
        )}
        <TextField
          label="Rows before the first reading"
          type="number"
          min={0}
          max={1000}
          value={String(m.headerRows)}
          onChange={(v) =>
            onChange({ ...m, headerRows: Math.max(0, Math.min(1000, Math.trunc(Number(v)) || 0)) })
          }
        />
        <TextField
          label="Gauge’s clock was ahead by"
          hint="seconds; behind is minus"
          type="number"
          value={String(m.aheadSeconds)}
          onChange={(v) => onChange({ ...m, aheadSeconds: Number(v) || 0 })}
        />
        {pick('Time stands in column', String(m.time.column), columns, (v) =>
          onChange({ ...m, time: { ...m.time, column: Number(v) } }),
        )}
        {pick(
          'Time is written as',
          m.time.format,
          (Object.keys(TIME_FORMATS) as TimeFormat[]).map((id) => ({ id, title: TIME_FORMATS[id] })),
          (v) => onChange({ ...m, time: { ...m.time, format: v as TimeFormat } }),
        )}
        {pick('Clock in a column of its own', String(m.time.clock ?? ''), [none, ...columns], (v) => {
          const { clock: _old, ...time } = m.time;
          onChange({ ...m, time: v === '' ? time : { ...time, clock: Number(v) } });
        })}
        {m.time.format === 'elapsed' && (
          <TextField
            label="The log began"
            type="datetime-local"
            step={1}
            value={began}
            onChange={onBegan}
            required
          />
        )}
        {pick('Pressure stands in column', String(m.pressure.column), columns, (v) =>
          onChange({ ...m, pressure: { ...m.pressure, column: Number(v) } }),
        )}
        {pick(
          'Pressure is in',
          m.pressure.unit,
          unitsOf('pressure').map((u) => ({ id: u, title: unitLabel(u) })),
          (v) => onChange({ ...m, pressure: { ...m.pressure, unit: v as Unit } }),
        )}
        {pick(
          'Temperature stands in column',
          String(m.temperature?.column ?? ''),
          [none, ...columns],
          (v) => {
            const { temperature: old, ...rest } = m;
            onChange(
              v === '' ? rest : { ...rest, temperature: { column: Number(v), unit: old?.unit ?? 'C' } },
            );
          },
        )}
        {m.temperature &&
          pick(
            'Temperature is in',
            m.temperature.unit,
            [
              { id: 'C', title: '°C' },
              { id: 'F', title: '°F' },
            ],
            (v) => onChange({ ...m, temperature: { ...m.temperature!, unit: v as 'C' | 'F' } }),
          )}
      </div>
      <div className="mt-3 overflow-x-auto" role="region" aria-label="First rows of the file" tabIndex={0}>
        <table className="figure-narrow text-sm">
          <tbody>
            {head.map((row, i) => (
              <tr key={i} className={`border-t border-seam ${i < m.headerRows ? 'text-quiet' : ''}`}>
                <th scope="row" className="pr-3 text-right font-normal text-quiet">
                  {i + 1}
                </th>
                {row.map((cell, c) => (
                  <td key={c} className={`px-3 whitespace-nowrap ${used.has(c) ? 'bg-block' : ''}`}>
                    {cell.slice(0, 40)}
                  </td>
                ))}
              </tr>
            ))}
            <tr className="text-quiet">
              <th />
              {Array.from({ length: width }, (_, c) => (
                <td key={c} className="px-3 font-sans text-sm">
                  {used.get(c) ?? ''}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  );
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
      setSaid(await appendLog({ run, file, hash, text, mapping, ...(began === undefined ? {} : { began }) }));
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

/** Appends the readings that fall into the run, in the unit and steps of the gauge that judges. @returns what was done */
async function appendLog(log: {
  run: string;
  file: string;
  hash: string;
  text: string;
  mapping: LogMapping;
  began?: number;
}): Promise<string> {
  const who = readIdentity();
  if (!who) throw new Error('You are signed out. Sign in again.');
  const { answerLog } = await import('@/worker/gauge-log');
  const engine = await BenchEngine.open(log.run, who);
  try {
    await engine.sync();
    const { plan, state } = engine.snapshot()!;
    const gauge = gaugeOf(plan, state);
    if (!gauge || !state.gauge) throw new Error('Choose the gauge of this run on the bench first.');
    const { unit, scale } = gauge.resolution;
    const wrong = unitTrouble(log.mapping.pressure.unit, unit);
    if (wrong) throw new Error(wrong);
    const { read } = answerLog({
      text: log.text,
      mapping: log.mapping,
      zone: ZONE,
      unit,
      to: { unit, scale },
      ...(log.began === undefined ? {} : { began: log.began }),
    });
    const from = state.visits[0]?.entered ?? Infinity;
    const to = state.ending?.at ?? Infinity;
    const points = read.points.filter((p) => p.at >= from && p.at <= to);
    if (!points.length)
      throw new Error(
        'No reading of the log lies within the time of this run. Check the day, the zone and how far the gauge’s clock was ahead.',
      );
    for (let i = 0; i < points.length; i += AT_ONCE) {
      const answer = await engine.append({
        kind: 'stream',
        gauge: state.gauge,
        simulated: gauge.simulated,
        unit,
        scale,
        points: points.slice(i, i + AT_ONCE).map((p) => [p.at, p.digits] as const),
        imported: { file: log.file, hash: log.hash },
      });
      if (!answer.accepted) throw new Error(answer.text);
    }
    await engine.sync();
    return `${points.length} readings of ${log.file} stand in the run now.`;
  } finally {
    engine.close();
  }
}
