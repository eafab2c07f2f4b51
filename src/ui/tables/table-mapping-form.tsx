'use client';
import { unitLabel, unitsOf } from '@/core/quantity/unit';
import { SelectField, TextField } from '@/ui/kit/field';
import { columnsOf, TABLE_KEYS, type TableKey, type TableMapping, TABLES } from '@/wire/bring-in/tables';
import { columnChoices, DELIMITERS, FirstRows } from './first-rows';

const DAYS = [
  { id: 'iso', title: '2026-11-24' },
  { id: 'dmy', title: '24.11.2026' },
  { id: 'mdy', title: '11/24/2026' },
] as const;

/** How a table is read: guessed, or as it was read the last time; every part of it can be changed. */
export function TableMappingForm({
  mapping: m,
  head,
  remembered,
  busy,
  onTable,
  onChange,
}: {
  mapping: TableMapping;
  head: readonly (readonly string[])[];
  remembered: boolean;
  /** Its rows are being entered: as they were read. */
  busy: boolean;
  onTable: (table: TableKey) => void;
  onChange: (m: TableMapping) => void;
}) {
  const places = columnChoices(head, m.headerRows);
  const columns = columnsOf(m.table);
  const at = (key: string, value: string) => {
    const { [key]: _old, ...rest } = m.at;
    onChange({ ...m, at: value === '' ? rest : { ...rest, [key]: Number(value) } });
  };
  const unit = (key: string, value: string) => {
    const { [key]: _old, ...rest } = m.units;
    onChange({ ...m, units: value === '' ? rest : { ...rest, [key]: value } });
  };
  return (
    <section aria-labelledby="mapping">
      <h2 id="mapping" className="text-lg font-semibold">
        How it is read
      </h2>
      <p className="text-sm text-quiet">
        {remembered
          ? 'As a table with these headings was read here the last time.'
          : 'Guessed from the headings.'}
      </p>
      <fieldset disabled={busy} className="min-w-0">
        <div className="mt-3 grid max-w-xl gap-3">
          <SelectField
            label="It holds"
            value={m.table}
            options={TABLE_KEYS.map((id) => ({ id, title: TABLES[id].title }))}
            onChange={(v) => onTable(v as TableKey)}
          />
        </div>
        <FirstRows
          head={head}
          headerRows={m.headerRows}
          used={new Map(columns.flatMap((c) => (m.at[c.key] === undefined ? [] : [[m.at[c.key]!, c.title]])))}
        />
        <details className="mt-2" open={columns.some((c) => c.needed && m.at[c.key] === undefined)}>
          <summary className="min-h-11 cursor-pointer py-2 text-lake underline">
            Which column is which
          </summary>
          <div className="mt-3 grid grid-cols-2 gap-3 md:grid-cols-4">
            {columns.map((c) => (
              <div key={c.key} className="grid content-start gap-1">
                <SelectField
                  label={c.needed ? `${c.title} (needed)` : c.title}
                  value={String(m.at[c.key] ?? '')}
                  none="no column"
                  options={places}
                  onChange={(v) => at(c.key, v)}
                />
                {c.unit && m.at[c.key] !== undefined && (
                  <SelectField
                    label={`${c.title} is in`}
                    value={m.units[c.key] ?? ''}
                    none="the unit is in the cell"
                    options={[...unitsOf(c.unit), ...(m.table === 'gauges' ? unitsOf('absolute') : [])].map(
                      (u) => ({
                        id: u,
                        title: unitLabel(u),
                      }),
                    )}
                    onChange={(v) => unit(c.key, v)}
                  />
                )}
              </div>
            ))}
          </div>
        </details>
        <details className="mt-2">
          <summary className="min-h-11 cursor-pointer py-2 text-lake underline">
            How the file is written
          </summary>
          <div className="grid grid-cols-2 gap-3 md:grid-cols-4">
            <SelectField
              label="Columns are parted by"
              value={m.delimiter}
              options={DELIMITERS}
              onChange={(delimiter) => onChange({ ...m, delimiter })}
            />
            <SelectField
              label="Decimal sign"
              value={m.decimal}
              options={[
                { id: '.', title: 'point, 20.35' },
                { id: ',', title: 'comma, 20,35' },
              ]}
              onChange={(v) => onChange({ ...m, decimal: v as '.' | ',' })}
            />
            <SelectField
              label="Days are written"
              value={m.day}
              options={DAYS}
              onChange={(v) => onChange({ ...m, day: v as TableMapping['day'] })}
            />
            <TextField
              label="Rows of headings"
              type="number"
              min={0}
              max={100}
              value={String(m.headerRows)}
              onChange={(v) =>
                onChange({ ...m, headerRows: Math.max(0, Math.min(100, Math.trunc(Number(v)) || 0)) })
              }
            />
          </div>
        </details>
      </fieldset>
    </section>
  );
}
