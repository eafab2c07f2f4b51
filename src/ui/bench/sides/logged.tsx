'use client';
import { parseFigure } from '@/core/quantity/exact';
import type { Unit } from '@/core/quantity/unit';
import { Button } from '@/ui/kit/button';
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
export const TemperatureSide = (props: SideProps) => <StartAndEnd of={TEMPERATURE} props={props} />;
export const BarometerSide = (props: SideProps) => <StartAndEnd of={BAROMETER} props={props} />;
