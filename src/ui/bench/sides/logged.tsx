'use client';
import { formatExact, parseFigure } from '@/core/quantity/exact';
import { runningHold } from '@/core/run/read';
import type { Unit } from '@/core/quantity/unit';
import { Button } from '@/ui/kit/button';
import { Choice } from '@/ui/kit/choice';
import { useState } from 'react';
import { Line } from '../line';
import { Back, type SideProps, useEntry, Wrong } from './entry';

interface Logged {
  readonly kind: 'temperature' | 'barometer';
  readonly label: string;
  readonly unit: Unit;
  readonly explain: string;
  readonly placeholder?: string;
  /** It may be said once that there is none at hand. */
  readonly none?: true;
}
/** What is logged at the start and at the end of a hold beside the gauge. */
function StartAndEnd({ of, props }: { of: Logged; props: SideProps }) {
  const { text, setText, trouble, go, goFigure } = useEntry(props);
  const save = (when: 'start' | 'end') =>
    goFigure(() => ({ kind: of.kind, when, figure: parseFigure(text, of.unit) }));
  return (
    <div className="grid gap-3">
      <p>{of.explain}</p>
      <Line figure value={text} onChange={setText} placeholder={of.placeholder}>
        {of.label}
      </Line>
      <Wrong trouble={trouble} />
      <div className={`grid gap-3 ${of.none ? 'grid-cols-2 sm:grid-cols-4' : 'grid-cols-3'}`}>
        <Back onDone={props.onDone} />
        {of.none && (
          <Button
            className="min-h-16"
            onClick={() => void go({ kind: 'barometer', when: 'start', none: true })}
          >
            None at hand
          </Button>
        )}
        <Button tone="act" className="min-h-16" onClick={() => save('start')}>
          At the start
        </Button>
        <Button tone="act" className="min-h-16" onClick={() => save('end')}>
          At the end
        </Button>
      </div>
    </div>
  );
}
const TEMPERATURE: Logged = {
  kind: 'temperature',
  label: 'Temperature, °C',
  unit: 'C',
  explain:
    'Pipe temperature. With one at the start and one at the end, the corrected change is compared; it can make a result Inconclusive, never Tight.',
};
const BAROMETER: Logged = {
  kind: 'barometer',
  label: 'Barometer, mbar',
  unit: 'mbar',
  explain:
    'The gauge reads above the atmosphere: a barometer that rises by 1 mbar takes 1 mbar off the gauge. It drifts about 1 mbar an hour. Read the same barometer at start and end.',
  placeholder: '1013.25',
  none: true,
};
/** Where warmth is taken out of the reading it is logged at several places; elsewhere one figure is enough. */
export const TemperatureSide = (props: SideProps) =>
  props.stage.kind === 'hold' && props.stage.judge ? (
    <Places {...props} />
  ) : (
    <StartAndEnd of={TEMPERATURE} props={props} />
  );
const WHEN = { start: 'At the start', between: 'In between', end: 'At the end' } as const;
const USUAL_PLACES = ['pipe', 'room'];
/** Each place with what was read there; one figure more at a time. */
function Places(props: SideProps) {
  const { text, setText, trouble, goFigure, go } = useEntry(props);
  const hold = runningHold(props.view.state);
  const logged = hold?.places ?? [];
  const known = [...new Set([...USUAL_PLACES, ...logged.map((p) => p.place)])];
  const [place, setPlace] = useState(USUAL_PLACES[0]!);
  const [other, setOther] = useState('');
  const where = place === '' ? other.trim() : place;
  const save = (when: keyof typeof WHEN) =>
    goFigure(() => ({ kind: 'temperature', when, figure: parseFigure(text, 'C'), place: where }));
  return (
    <div className="grid gap-3">
      <table className="w-full text-left">
        <thead className="text-sm text-quiet">
          <tr>
            <th className="font-normal">Place, °C</th>
            {Object.values(WHEN).map((w) => (
              <th key={w} className="font-normal">
                {w.toLowerCase()}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {known.map((p) => (
            <tr key={p} className="border-t border-seam">
              <th scope="row" className="font-normal">
                {p}
              </th>
              {(Object.keys(WHEN) as (keyof typeof WHEN)[]).map((when) => (
                <td key={when} className="figure">
                  {logged
                    .filter((l) => l.place === p && l.when === when)
                    .map((l) => formatExact(l.figure))
                    .join(', ') || '–'}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <Choice
        label="Where"
        options={Object.fromEntries<string>([...known.map((p) => [p, p] as const), ['', 'another place']])}
        value={place}
        onChange={setPlace}
      />
      {place === '' && (
        <Line value={other} onChange={setOther} most={80}>
          Which place?
        </Line>
      )}
      <Line figure value={text} onChange={setText}>
        {`${where || 'There'} now, °C`}
      </Line>
      <Wrong trouble={trouble} />
      <div className="grid grid-cols-3 gap-3">
        {(Object.keys(WHEN) as (keyof typeof WHEN)[]).map((when) => (
          <Button key={when} tone="act" className="min-h-16" disabled={!where} onClick={() => save(when)}>
            {WHEN[when]}
          </Button>
        ))}
      </div>
      <div className="grid grid-cols-2 gap-3">
        <Back onDone={props.onDone} />
        <Button
          className="min-h-14"
          onClick={() => void go({ kind: 'temperature', when: 'start', none: true })}
        >
          No thermometer at hand
        </Button>
      </div>
    </div>
  );
}
export const BarometerSide = (props: SideProps) => <StartAndEnd of={BAROMETER} props={props} />;
