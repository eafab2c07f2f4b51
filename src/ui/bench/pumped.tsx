'use client';
import { useEffect, useState } from 'react';
import { exact, parseFigure, showExact, type Exact } from '@/core/quantity/exact';
import { Button } from '@/ui/kit/button';
import type { Unit } from '@/core/quantity/unit';
import { useLastUnit } from '@/ui/frame/usage';
import { UnitLine, VESSEL_KEY, VESSEL_UNITS, type VesselUnit } from './unit-line';

const KEY = 'vast-stroke';
/** What pumps say of their stroke. */
const STROKE_UNITS = ['ml', 'in3', 'floz'] as const satisfies readonly Unit[];
export type StrokeUnit = (typeof STROKE_UNITS)[number];
const field = 'figure mt-1 min-h-12 w-full border border-edge bg-panel px-2 text-lg';

export interface Pumped {
  readonly added: Exact | null;
  readonly strokes: number | null;
  readonly wrong: string;
}
/** What was typed as strokes and what one delivers, or as a measured volume. @returns nothing where nothing was typed */
export function readPumped(
  strokes: string,
  stroke: string,
  measured: string,
  unit: VesselUnit = 'l',
  strokeUnit: StrokeUnit = 'ml',
): Pumped {
  const none = { added: null, strokes: null, wrong: '' };
  try {
    if (measured.trim()) return { ...none, added: parseFigure(measured, unit) };
    if (!strokes.trim()) return none;
    if (!/^\d+$/.test(strokes.trim())) return { ...none, wrong: 'Strokes are a whole number.' };
    const count = Number(strokes);
    if (!stroke.trim())
      return {
        added: null,
        strokes: count,
        wrong: 'Type what one stroke delivers (it stands on the pump), or the volume measured.',
      };
    const one = parseFigure(stroke, strokeUnit);
    return { added: exact(one.digits * count, one.scale, strokeUnit), strokes: count, wrong: '' };
  } catch (error) {
    return { ...none, wrong: (error as Error).message };
  }
}

/** Water pumped in: strokes and what one delivers, or a volume by a measure. */
export function PumpedWater({
  onChange,
  wanted = false,
}: {
  onChange: (pumped: Pumped) => void;
  wanted?: boolean;
}) {
  const [strokes, setStrokes] = useState('');
  const [stroke, setStroke] = useState('');
  const [measured, setMeasured] = useState('');
  const [unit, setUnit] = useLastUnit(VESSEL_KEY, VESSEL_UNITS);
  const [strokeUnit, setStrokeUnit] = useLastUnit(`${KEY}-unit`, STROKE_UNITS);
  useEffect(() => setStroke(localStorage.getItem(KEY) ?? ''), []);
  // where it need not be counted a phone keeps the place for the keys until somebody counts
  const [open, setOpen] = useState(wanted);
  const said = readPumped(strokes, stroke, measured, unit, strokeUnit);
  const tell = (next: {
    strokes?: string;
    stroke?: string;
    measured?: string;
    unit?: VesselUnit;
    strokeUnit?: StrokeUnit;
  }) => {
    const s = next.strokes ?? strokes;
    const one = next.stroke ?? stroke;
    const m = next.measured ?? measured;
    const u = next.unit ?? unit;
    const su = next.strokeUnit ?? strokeUnit;
    setStrokes(s);
    setStroke(one);
    setMeasured(m);
    if (next.unit) setUnit(next.unit);
    if (next.strokeUnit) setStrokeUnit(next.strokeUnit);
    if (next.stroke !== undefined) localStorage.setItem(KEY, next.stroke);
    onChange(readPumped(s, one, m, u, su));
  };
  return (
    <>
      {!open && (
        <Button type="button" className="min-h-12 w-full lg:hidden" onClick={() => setOpen(true)}>
          Count the water pumped in
        </Button>
      )}
      <fieldset className={`border-l-4 border-seam pl-3 ${open ? '' : 'max-lg:hidden'}`}>
        <legend className="text-sm text-quiet">Water pumped in{wanted ? '' : ', if counted'}</legend>
        <div className="grid grid-cols-[4rem_minmax(0,1.5fr)_minmax(0,1.7fr)] items-end gap-2">
          <label className="text-sm">
            Strokes
            <input
              className={field}
              inputMode="numeric"
              value={strokes}
              onChange={(e) => tell({ strokes: e.target.value })}
              maxLength={6}
            />
          </label>
          <UnitLine
            label="Stroke"
            spoken="Stroke"
            size="small"
            value={stroke}
            unit={strokeUnit}
            units={STROKE_UNITS}
            onValue={(value) => tell({ stroke: value })}
            onUnit={(u) => tell({ strokeUnit: u })}
          />
          <UnitLine
            label="or measured"
            spoken="or measured"
            size="small"
            value={measured}
            unit={unit}
            units={VESSEL_UNITS}
            onValue={(value) => tell({ measured: value })}
            onUnit={(u) => tell({ unit: u })}
          />
        </div>
        <p className={`min-h-6 text-sm ${said.wrong ? 'text-rust' : 'text-quiet'}`} aria-live="polite">
          {said.wrong || (said.added ? `in all ${showExact(said.added)}` : '')}
        </p>
      </fieldset>
    </>
  );
}
