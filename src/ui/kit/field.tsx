'use client';
import { useId, type InputHTMLAttributes, type ReactNode } from 'react';
import { useUsualFirst } from '@/ui/frame/usage';
import { type Dimension, type Unit, unitLabel, UNITS } from '@/core/quantity/unit';

const BOX = 'block min-h-12 min-w-0 border border-edge bg-panel px-2 text-base';
export const FIELD = `${BOX} w-full`;

/** A labelled input with its hint and what is wrong with it. */
export function Field({
  label,
  hint,
  wrong,
  children,
  className = '',
}: {
  label: string;
  hint?: string;
  wrong?: string | undefined;
  children: (ids: { id: string; 'aria-invalid': boolean; 'aria-describedby'?: string }) => ReactNode;
  className?: string;
}) {
  const id = useId();
  return (
    <div className={`min-w-0 ${className}`}>
      <label htmlFor={id} className="text-sm">
        {label}
        {hint && <span className="text-quiet">, {hint}</span>}
      </label>
      <div className="mt-1">
        {children({
          id,
          'aria-invalid': Boolean(wrong),
          ...(wrong ? { 'aria-describedby': `${id}-wrong` } : {}),
        })}
      </div>
      {wrong && (
        <p id={`${id}-wrong`} className="mt-1 text-sm text-rust">
          {/^[a-z]/.test(wrong) ? `${label} ${wrong}.` : wrong}
        </p>
      )}
    </div>
  );
}

/** A labelled line of words, a day, a clock time or an address. */
export function TextField({
  label,
  hint,
  wrong,
  className,
  onChange,
  ...rest
}: {
  label: string;
  hint?: string;
  wrong?: string;
  className?: string;
  onChange: (value: string) => void;
} & Omit<InputHTMLAttributes<HTMLInputElement>, 'onChange' | 'className' | 'id'>) {
  return (
    <Field label={label} wrong={wrong} {...(hint ? { hint } : {})} {...(className ? { className } : {})}>
      {(ids) => <input {...ids} {...rest} className={FIELD} onChange={(e) => onChange(e.target.value)} />}
    </Field>
  );
}

/** What can be chosen, each by its key. */
export const Options = ({ of }: { of: readonly (readonly [key: string, label: string])[] }) =>
  of.map(([key, label]) => (
    <option key={key} value={key}>
      {label}
    </option>
  ));

/** Words by their key, as things known by an id. */
export const asOptions = (words: Readonly<Record<string, string>>): { id: string; title: string }[] =>
  Object.entries(words).map(([id, title]) => ({ id, title }));

/** A labelled choice among things known by an id. @param none words for choosing none of them, where that may be */
export function SelectField({
  label,
  value,
  options,
  none,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly { readonly id: string; readonly title: string }[];
  none?: string;
  onChange: (value: string) => void;
}) {
  return (
    <Field label={label}>
      {(ids) => (
        <select {...ids} className={FIELD} value={value} onChange={(e) => onChange(e.target.value)}>
          {none !== undefined && <option value="">{none}</option>}
          {options.map((o) => (
            <option key={o.id} value={o.id}>
              {o.title}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

/** So wide that the longest of its units is read whole beside the arrow. */
function roomFor(units: readonly Unit[]): string {
  const longest = Math.max(...units.map((u) => unitLabel(u).length));
  return longest > 5 ? 'w-28' : longest > 3 ? 'w-24' : 'w-20';
}
/** A figure with its unit, kept as one text: "21 mbar". An empty figure is an empty text. */
export function FigureInput({
  value,
  units: offered,
  onChange,
  label,
  ...ids
}: {
  value: string;
  units: readonly Unit[];
  onChange: (value: string) => void;
  label: string;
  id?: string;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string;
}) {
  const units = useUsualFirst(offered);
  const at = value.indexOf(' ');
  const number = at < 0 ? value : value.slice(0, at);
  const unit = (at < 0 ? units[0]! : value.slice(at + 1)) as Unit;
  const join = (n: string, u: Unit) =>
    onChange(
      n.trim() ? `${n.trim().replace(/\s+/g, '')} ${u}` : units.length > 1 && u !== units[0] ? ` ${u}` : '',
    );
  return (
    <div className="flex gap-2">
      <input
        {...ids}
        {...(ids.id ? {} : { 'aria-label': label })}
        className={`figure ${BOX} w-0 flex-1 ${ids['aria-invalid'] ? 'border-2 border-rust' : ''}`}
        inputMode="decimal"
        autoComplete="off"
        maxLength={16}
        value={number}
        onChange={(e) => join(e.target.value, unit)}
      />
      {units.length === 1 ? (
        <span className="grid min-w-12 place-items-center text-sm">{unitLabel(units[0]!)}</span>
      ) : (
        <select
          aria-label={`Unit of ${label}`}
          className={`${BOX} ${roomFor(units)} shrink-0`}
          value={unit}
          onChange={(e) => join(number, e.target.value as Unit)}
        >
          {units.map((u) => (
            <option key={u} value={u}>
              {unitLabel(u)}
            </option>
          ))}
        </select>
      )}
    </div>
  );
}
/** Units of the trade a person chooses from, the usual first. */
export const TRADE_UNITS = {
  pressure: ['mbar', 'bar', 'kPa', 'psi', 'inWC', 'Pa', 'hPa', 'MPa', 'ftWC', 'mmWC', 'at', 'atm'],
  /** What a gauge can show: a vacuum is read absolutely. */
  gauge: ['mbar', 'bar', 'kPa', 'psi', 'inWC', 'Pa', 'hPa', 'MPa', 'Pa(abs)', 'micron', 'mbar(abs)', 'Torr'],
  length: ['m', 'ft'],
  bore: ['mm', 'in'],
  volume: ['l', 'ml', 'm3', 'ft3', 'gal'],
  flow: ['l/s', 'CFM', 'm3/h'],
  power: ['kW', 'Btu/h'],
  heat: ['MJ/m3', 'Btu/ft3'],
} as const satisfies Record<string, readonly Unit[]>;
const UNITS_OF: Partial<Record<Dimension, readonly Unit[]>> = {
  pressure: TRADE_UNITS.pressure,
  volume: TRADE_UNITS.volume,
  length: TRADE_UNITS.bore,
  power: TRADE_UNITS.power,
  'heating-value': TRADE_UNITS.heat,
  mass: ['kg', 'g', 'lb'],
  area: ['m2', 'ft2'],
  flow: TRADE_UNITS.flow,
};
/** Units a figure of a dimension is entered in; where the trade has no usual ones, all there are. */
export const unitsOf = (dimension: Dimension): readonly Unit[] =>
  UNITS_OF[dimension] ?? (Object.keys(UNITS) as Unit[]).filter((u) => UNITS[u].dimension === dimension);
