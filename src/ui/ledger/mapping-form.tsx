'use client';
import { type LogMapping, TIME_FORMATS, type TimeFormat } from '@/core/gauge-log/mapping';
import { type Unit, unitLabel, unitsOf } from '@/core/quantity/unit';
import { SelectField, TextField } from '@/ui/kit/field';
import { columnChoices, DELIMITERS, FirstRows } from '@/ui/tables/first-rows';

interface Choice {
  readonly id: string;
  readonly title: string;
}
const NONE: Choice = { id: '', title: 'none' };
/** A choice among few, said shortly. */
const pick = (label: string, value: string, options: readonly Choice[], change: (v: string) => void) => (
  <SelectField label={label} value={value} options={options} onChange={change} />
);

/** How a log is read: guessed, or as it was read the last time; every part of it can be changed. */
export function MappingForm({
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
  const columns = columnChoices(head, m.headerRows);
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
        {pick('Columns are parted by', m.delimiter, DELIMITERS, (delimiter) => onChange({ ...m, delimiter }))}
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
        <TimeFields {...{ mapping: m, columns, onChange, began, onBegan }} />
        <FigureFields {...{ mapping: m, columns, onChange }} />
      </div>
      <FirstRows head={head} headerRows={m.headerRows} used={usedBy(m)} />
    </section>
  );
}

/** Where the time stands, and how it is written. */
function TimeFields({
  mapping: m,
  columns,
  onChange,
  began,
  onBegan,
}: {
  mapping: LogMapping;
  columns: readonly Choice[];
  onChange: (m: LogMapping) => void;
  began: string;
  onBegan: (text: string) => void;
}) {
  return (
    <>
      {pick('Time stands in column', String(m.time.column), columns, (v) =>
        onChange({ ...m, time: { ...m.time, column: Number(v) } }),
      )}
      {pick(
        'Time is written as',
        m.time.format,
        (Object.keys(TIME_FORMATS) as TimeFormat[]).map((id) => ({ id, title: TIME_FORMATS[id] })),
        (v) => onChange({ ...m, time: { ...m.time, format: v as TimeFormat } }),
      )}
      {pick('Clock in a column of its own', String(m.time.clock ?? ''), [NONE, ...columns], (v) => {
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
    </>
  );
}

/** Where pressure and temperature stand, and their units. */
function FigureFields({
  mapping: m,
  columns,
  onChange,
}: {
  mapping: LogMapping;
  columns: readonly Choice[];
  onChange: (m: LogMapping) => void;
}) {
  return (
    <>
      {pick('Pressure stands in column', String(m.pressure.column), columns, (v) =>
        onChange({ ...m, pressure: { ...m.pressure, column: Number(v) } }),
      )}
      {pick(
        'Pressure is in',
        m.pressure.unit,
        unitsOf('pressure').map((u) => ({ id: u, title: unitLabel(u) })),
        (v) => onChange({ ...m, pressure: { ...m.pressure, unit: v as Unit } }),
      )}
      {pick('Temperature stands in column', String(m.temperature?.column ?? ''), [NONE, ...columns], (v) => {
        const { temperature: old, ...rest } = m;
        onChange(v === '' ? rest : { ...rest, temperature: { column: Number(v), unit: old?.unit ?? 'C' } });
      })}
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
    </>
  );
}

/** What is read of each column. */
const usedBy = (m: LogMapping): ReadonlyMap<number, string> =>
  new Map([
    [m.time.column, 'time'],
    ...(m.time.clock === undefined ? [] : [[m.time.clock, 'clock'] as const]),
    [m.pressure.column, 'pressure'],
    ...(m.temperature ? [[m.temperature.column, 'temperature'] as const] : []),
  ]);
