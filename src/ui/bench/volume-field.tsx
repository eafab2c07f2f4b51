'use client';
import { useEffect, useState } from 'react';
import type { Unit } from '@/core/quantity/unit';
import { unitLabel } from '@/core/quantity/unit';

const KEY = 'vast-vessel-unit';
/** What vessels are marked in. */
const UNITS = ['l', 'ml', 'gal'] as const satisfies readonly Unit[];
export type VesselUnit = (typeof UNITS)[number];

/** The unit vessels were last read in on this device; litres until somebody said otherwise. */
export function useVesselUnit(): readonly [VesselUnit, (unit: VesselUnit) => void] {
  const [unit, setUnit] = useState<VesselUnit>('l');
  useEffect(() => {
    const kept = localStorage.getItem(KEY);
    if (UNITS.some((u) => u === kept)) setUnit(kept as VesselUnit);
  }, []);
  return [
    unit,
    (next) => {
      localStorage.setItem(KEY, next);
      setUnit(next);
    },
  ];
}

/** A volume as its vessel is marked: the figure, and its unit beside it. */
export function VolumeField({
  label,
  value,
  unit,
  large = false,
  onChange,
}: {
  label: string;
  value: string;
  unit: VesselUnit;
  large?: boolean;
  onChange: (value: string, unit: VesselUnit) => void;
}) {
  const box = `mt-1 border border-edge bg-panel ${large ? 'min-h-16 px-3 text-2xl' : 'min-h-12 px-2 text-lg'}`;
  return (
    <div className="grid min-w-0 grid-cols-[minmax(0,1fr)_auto] items-end gap-1">
      <label className={large ? 'text-lg' : 'text-sm'}>
        {label}
        <input
          className={`figure block w-full ${box}`}
          inputMode="decimal"
          value={value}
          onChange={(e) => onChange(e.target.value, unit)}
          maxLength={10}
        />
      </label>
      <select
        aria-label={`Unit: ${label}`}
        className={`${box} w-16`}
        value={unit}
        onChange={(e) => onChange(value, e.target.value as VesselUnit)}
      >
        {UNITS.map((u) => (
          <option key={u} value={u}>
            {unitLabel(u)}
          </option>
        ))}
      </select>
    </div>
  );
}
