'use client';
import { useState } from 'react';
import type { DrawDownStage } from '@/core/kinds';
import { parseFigure, showExact } from '@/core/quantity/exact';
import { gaugeOf } from '@/core/run/read';
import { Keypad } from '../keypad';
import { useLastUnit } from '@/ui/frame/usage';
import { UnitLine, VESSEL_KEY, VESSEL_UNITS } from '../unit-line';
import type { PanelProps } from '../shared';

/** The decay loss: drained into a vessel from the first figure to where it had fallen. */
export function DrawDownPanel({ view, stage, act }: PanelProps) {
  const { from, to } = stage as DrawDownStage;
  const gauge = gaugeOf(view.plan, view.state);
  const [measured, setMeasured] = useState('');
  const [unit, setUnit] = useLastUnit(VESSEL_KEY, VESSEL_UNITS);
  const first = view.state.kept[from];
  const last = view.state.kept[to];
  if (!gauge || !first || !last) return <p role="alert">The two pressures of the fall have not been read.</p>;
  return (
    <div className="flex flex-[1_0_auto] flex-col gap-2">
      <p className="text-lg">
        From <span className="figure">{showExact(first)}</span> drain down to{' '}
        <span className="figure">{showExact(last)}</span>, all of it into the measured vessel.
      </p>
      <UnitLine
        label="In the vessel"
        spoken="In the vessel"
        value={measured}
        unit={unit}
        units={VESSEL_UNITS}
        size="large"
        onValue={setMeasured}
        onUnit={setUnit}
      />
      <Keypad
        gauge={gauge}
        label="The gauge now shows"
        save="Drained and measured"
        live={view.live}
        previous={last}
        onSave={async (entered) => {
          try {
            const answer = await act({ kind: 'draw-down', ...entered, volume: parseFigure(measured, unit) });
            return answer.accepted ? null : answer.text;
          } catch (error) {
            return measured.trim() ? (error as Error).message : 'Type first how much ran into the vessel.';
          }
        }}
      />
      <p className="text-sm text-quiet">
        This is the decay loss. It averages over the fall and understates; the record carries it to the test
        pressure by both laws. Only make-up at test pressure is compared with a limit.
      </p>
    </div>
  );
}
