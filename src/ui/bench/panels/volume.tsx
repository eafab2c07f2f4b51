'use client';
import { useState } from 'react';
import { parseReading } from '@/core/instrument/gauge';
import type { VolumeStage } from '@/core/kinds';
import { planVolume } from '@/core/plan/plan';
import { parseFigure } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import { useLastUnit } from '@/ui/frame/usage';
import { UnitLine, VESSEL_KEY, VESSEL_UNITS } from '../unit-line';
import { unitLabel } from '@/core/quantity/unit';
import { gaugeOf } from '@/core/run/read';
import { Button } from '@/ui/kit/button';
import { Why } from '@/ui/kit/why';
import type { PanelProps } from '../shared';

const field = 'figure mt-1 min-h-14 w-full border border-edge bg-panel px-3 text-xl';

/** The volume under test: measured by a metered draw, or taken from the pipe list. */
export function VolumePanel({ view, stage, act }: PanelProps) {
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  const listed = planVolume(plan, stage.part);
  const [drawn, setDrawn] = useState('');
  const [drawnUnit, setDrawnUnit] = useLastUnit(VESSEL_KEY, VESSEL_UNITS);
  const [before, setBefore] = useState('');
  const [after, setAfter] = useState('');
  const [trouble, setTrouble] = useState('');
  if (!gauge) return <p role="alert">Choose and zero the gauge first.</p>;
  const unit = unitLabel(gauge.resolution.unit);
  const measure = async () => {
    try {
      const answer = await act({
        kind: 'volume',
        drawn: parseFigure(drawn, drawnUnit),
        before: parseReading(before, gauge),
        after: parseReading(after, gauge),
      });
      if (!answer.accepted) setTrouble(answer.text);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <div className="grid content-start gap-4 lg:flex-1">
      <p>
        From the pipe list:{' '}
        <Why guide="volume" facts={{ title: listed.name, ...listed }}>
          <span className="figure">{(listed.value * 1000).toFixed(1)} l</span>
        </Why>{' '}
        <span className="text-quiet">({showFigure(listed)}, lengths about ± 10 %)</span>
      </p>
      <fieldset className="grid gap-3 border border-seam p-3">
        <legend className="px-1 font-semibold">
          Measured: supply shut, draw gas through the meter or a graduated pump
        </legend>
        <div className="grid gap-3 sm:grid-cols-3">
          <UnitLine
            label="Drawn"
            spoken="Drawn"
            value={drawn}
            unit={drawnUnit}
            units={VESSEL_UNITS}
            onValue={setDrawn}
            onUnit={setDrawnUnit}
          />
          <label>
            Pressure before, {unit}
            <input
              className={field}
              inputMode="decimal"
              value={before}
              onChange={(e) => setBefore(e.target.value)}
            />
          </label>
          <label>
            Pressure after, {unit}
            <input
              className={field}
              inputMode="decimal"
              value={after}
              onChange={(e) => setAfter(e.target.value)}
            />
          </label>
        </div>
        <p className="text-sm text-quiet">{(stage as VolumeStage).source}</p>
        <p role="alert" className="min-h-6 font-semibold text-rust">
          {trouble}
        </p>
        <Button
          tone="act"
          className="min-h-16"
          disabled={!drawn || !before || !after}
          onClick={() => void measure()}
        >
          Use the measured volume
        </Button>
      </fieldset>
      <Button className="min-h-16" onClick={() => void act({ kind: 'volume' })}>
        Use the pipe list
      </Button>
    </div>
  );
}
