'use client';
import type { ReactNode } from 'react';
import { type Unit, unitLabel } from '@/core/quantity/unit';
import { FIELD } from './line';

/** What vessels are marked in. */
export const VESSEL_UNITS = ['l', 'ml', 'gal', 'ft3'] as const satisfies readonly Unit[];
export type VesselUnit = (typeof VESSEL_UNITS)[number];
/** Where the unit of each was last read on this device. */
export const VESSEL_KEY = 'vast-vessel-unit';

/** A figure as what measured it is marked: the number, and its unit beside it. */
export function UnitLine<U extends Unit>({
  label,
  spoken,
  value,
  unit,
  units,
  size = 'usual',
  placeholder,
  onValue,
  onUnit,
}: {
  label: ReactNode;
  /** The label in words, where it is none. */
  spoken: string;
  value: string;
  unit: U;
  units: readonly U[];
  size?: 'small' | 'usual' | 'large';
  placeholder?: string;
  onValue: (value: string) => void;
  onUnit: (unit: U) => void;
}) {
  const box = `${FIELD} ${{ small: 'min-h-12! px-2!', usual: '', large: 'min-h-16! text-2xl!' }[size]}`;
  const wide = Math.max(...units.map((u) => unitLabel(u).length)) > 4;
  return (
    <div className="grid min-w-0 grid-cols-[minmax(0,1fr)_auto] items-end gap-1">
      <label className={{ small: 'text-sm', usual: '', large: 'text-lg' }[size]}>
        {label}
        <input
          className={`figure block ${box}`}
          inputMode="decimal"
          autoComplete="off"
          value={value}
          placeholder={placeholder}
          onChange={(e) => onValue(e.target.value)}
          maxLength={16}
        />
      </label>
      <select
        aria-label={`Unit: ${spoken}`}
        className={`${box} px-1! ${wide ? 'w-24!' : 'w-18!'}`}
        value={unit}
        onChange={(e) => onUnit(e.target.value as U)}
      >
        {units.map((u) => (
          <option key={u} value={u}>
            {unitLabel(u)}
          </option>
        ))}
      </select>
    </div>
  );
}
