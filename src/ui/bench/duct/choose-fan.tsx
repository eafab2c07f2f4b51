'use client';
import { type FanStage, flowOf, rangesFor, type RangeFit } from '@/core/kinds/fan/asked';
import type { OwnKit } from '@/core/instrument/kit';
import { parseFigure, showExact } from '@/core/quantity/exact';
import type { Unit } from '@/core/quantity/unit';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import { FIELD, Line } from '../line';
import type { PanelProps } from '../shared';

const FLOWS: readonly Unit[] = ['CFM', 'l/s', 'm3/h'];
const fitWords = ({ fits, pressure }: RangeFit): string =>
  fits === 'reads'
    ? 'reads the limit'
    : fits === 'raise'
      ? `begins above the limit: nothing read at ${Math.ceil(pressure)} Pa is within it`
      : 'ends below the limit: shows only what passes';

/** Which fan, in which range: the ones of the cabinet with how each serves for this limit, the best first. */
export function ChooseFan({
  view,
  stage,
  limit,
  reference,
  act,
  onDone,
}: Pick<PanelProps, 'view' | 'act'> & {
  stage: FanStage;
  limit: number | null;
  reference: number;
  onDone: () => void;
}) {
  const fans = (view.plan.ownKit ?? []).filter((k): k is OwnKit & { ranges: NonNullable<OwnKit['ranges']> } =>
    Boolean(k.kind === 'fan' && k.ranges?.length),
  );
  const [bySheet, setBySheet] = useState(fans.length === 0);
  const { chosen } = view.state.rooms.fan;
  const take = async (kit: OwnKit, fit: RangeFit) => {
    const { name, least, greatest } = fit.range;
    const answer = await act({
      kind: 'fan-chosen',
      kit: kit.id,
      name: kit.name,
      range: name,
      least,
      greatest,
    });
    if (answer.accepted) onDone();
  };
  return (
    <div className="grid content-start gap-3">
      <h3 className="text-lg font-semibold">Which fan, with which ring?</h3>
      {fans.map((kit) => (
        <div key={kit.id} role="group" aria-label={kit.name} className="grid gap-2">
          <p>
            {kit.name}, {kit.serial}
          </p>
          {rangesFor(kit.ranges, limit, reference).map((fit, i) => (
            <Button
              key={fit.range.name}
              className="min-h-16"
              tone={i === 0 && fit.fits === 'reads' ? 'act' : 'plain'}
              aria-pressed={chosen?.kit === kit.id && chosen.range.name === fit.range.name}
              onClick={() => void take(kit, fit)}
            >
              <span className="grid w-full text-left">
                <span>
                  {fit.range.name}:{' '}
                  <span className="figure">
                    {showExact(fit.range.least)} to {showExact(fit.range.greatest)}
                  </span>
                </span>
                {limit !== null && stage.of === 'system' && (
                  <span className="text-sm font-normal">{fitWords(fit)}</span>
                )}
              </span>
            </Button>
          ))}
        </div>
      ))}
      {bySheet ? (
        <BySheet act={act} onDone={onDone} stage={stage} />
      ) : (
        <Button className="min-h-14" onClick={() => setBySheet(true)}>
          Another fan, by its own sheet
        </Button>
      )}
    </div>
  );
}
/** A fan that is in no cabinet: what its sheet says of the range in use. */
function BySheet({ act, onDone, stage }: Pick<PanelProps, 'act'> & { onDone: () => void; stage: FanStage }) {
  const [name, setName] = useState('');
  const [range, setRange] = useState('');
  const [least, setLeast] = useState('');
  const [greatest, setGreatest] = useState('');
  const [unit, setUnit] = useState<Unit>('CFM');
  const [trouble, setTrouble] = useState('');
  const save = async () => {
    try {
      const [from, to] = [parseFigure(least, unit), parseFigure(greatest, unit)];
      if (flowOf(to) <= flowOf(from)) throw new Error('The range must end above where it begins.');
      const answer = await act({
        kind: 'fan-chosen',
        name: name.trim(),
        range: range.trim(),
        least: from,
        greatest: to,
      });
      if (answer.accepted) onDone();
      else setTrouble(answer.text);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <div className="grid gap-2 border border-seam bg-panel p-3 sm:grid-cols-2">
      <Line value={name} onChange={setName} most={60}>
        Fan, name and serial number
      </Line>
      <Line value={range} onChange={setRange} most={40}>
        Ring or plate
      </Line>
      <Line figure value={least} onChange={setLeast} most={8}>
        Reads from
      </Line>
      <Line figure value={greatest} onChange={setGreatest} most={8}>
        to
      </Line>
      <label>
        Unit of its flow
        <select className={FIELD} value={unit} onChange={(e) => setUnit(e.target.value as Unit)}>
          {FLOWS.map((u) => (
            <option key={u} value={u}>
              {u}
            </option>
          ))}
        </select>
      </label>
      <p className="self-end text-sm text-quiet">
        Its flows are taken as known to {stage.accuracy} %: no sheet of it is in the cabinet.
      </p>
      <p role="alert" className="text-rust empty:hidden sm:col-span-2">
        {trouble}
      </p>
      <Button
        className="min-h-14 sm:col-span-2"
        disabled={!name.trim() || !range.trim()}
        onClick={() => void save()}
      >
        Take this fan
      </Button>
    </div>
  );
}
