'use client';
import { exact, formatExact, parseFigure, showExact } from '@/core/quantity/exact';
import { runningHold } from '@/core/run/read';
import { barometerAt } from '@/core/run/weather';
import { convert, type Unit } from '@/core/quantity/unit';
import { deviceZone, serverNow } from '@/device/clock';
import { Button } from '@/ui/kit/button';
import { Choice } from '@/ui/kit/choice';
import { useState } from 'react';
import { fresh } from '../keypad';
import { useLastUnit } from '@/ui/frame/usage';
import { Line } from '../line';
import { UnitLine } from '../unit-line';
import { Back, type SideProps, useEntry, Wrong } from './entry';

/** What barometers show. */
const BAROMETER_UNITS = ['mbar', 'hPa', 'inHg', 'mmHg', 'kPa'] as const satisfies readonly Unit[];
const BAROMETER_KEY = 'vast-barometer-unit';
/** The barometer at the start and at the end of a hold, or that there is none. */
export function BarometerSide(props: SideProps) {
  const { text, setText, trouble, go, goFigure } = useEntry(props);
  const [unit, setUnit] = useLastUnit(BAROMETER_KEY, BAROMETER_UNITS);
  const save = (when: 'start' | 'end') =>
    goFigure(() => ({ kind: 'barometer', when, figure: parseFigure(text, unit) }));
  return (
    <div className="grid gap-3">
      <p>
        The gauge reads above the atmosphere: a barometer that rises by 1 mbar takes 1 mbar off the gauge. It
        drifts about 1 mbar an hour. Read the same barometer at start and end.
      </p>
      <UnitLine
        label="Barometer"
        spoken="Barometer"
        value={text}
        unit={unit}
        units={BAROMETER_UNITS}
        placeholder={{ mbar: '1013.25', hPa: '1013.25', inHg: '29.92', mmHg: '760.0', kPa: '101.325' }[unit]}
        onValue={setText}
        onUnit={setUnit}
      />
      <StationFile {...props} />
      <Wrong trouble={trouble} />
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <Back onDone={props.onDone} />
        <Button
          className="min-h-16"
          onClick={() => void go({ kind: 'barometer', when: 'start', none: true })}
        >
          None at hand
        </Button>
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
/** So close to the end of a hold a barometer reading is its end, ms. House figure: it moves by a tenth of a mbar. */
const NEARLY_OVER = 5 * 60_000;
/** The barometer at the beginning of the hold and at its end, from the file of a weather station. */
function StationFile({ view, act }: SideProps) {
  const [trouble, setTrouble] = useState('');
  const [taken, setTaken] = useState('');
  const hold = runningHold(view.state);
  if (!hold) return null;
  const read = async (file: File) => {
    setTrouble('');
    setTaken('');
    try {
      const [{ lettersOf }, { answerLog }] = await Promise.all([
        import('@/device/text-file'),
        import('@/worker/gauge-log'),
      ]);
      const text = lettersOf(await file.arrayBuffer(), 'That file is no table of a weather station.');
      const { read: log } = answerLog({ text, mapping: null, zone: deviceZone(), unit: 'hPa' });
      const per = convert(1, log.unit, 'mbar');
      const readings = log.points.map((p) => ({ at: p.at, mbar: (p.digits / 10 ** log.scale) * per }));
      // what it shows in the middle of a hold is not its end
      const over = serverNow() >= hold.startedAt + hold.minutes * 60_000 - NEARLY_OVER;
      const moments: readonly (readonly ['start' | 'end', number])[] = [
        ['start', hold.startedAt],
        ...(over ? [['end', serverNow()] as const] : []),
      ];
      const found = moments.flatMap(([when, t]) => {
        const figure = barometerAt(readings, t, log.scale);
        return figure ? [{ when, figure }] : [];
      });
      if (!found.length)
        throw new Error(
          'The file says nothing of the time of this hold: choose one of today, with a column of times and one in hPa.',
        );
      for (const f of found) {
        const answer = await act({ kind: 'barometer', ...f, from: file.name.slice(0, 120) });
        if (!answer.accepted) throw new Error(answer.text);
      }
      setTaken(
        `${found.map((f) => `${f.when === 'start' ? 'at the start' : 'now'} ${showExact(f.figure)}`).join(', ')}${found.length < moments.length ? '; the other is not in the file: read it yourself' : over ? '' : '; choose it again at the end'}.`,
      );
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <div className="grid gap-1">
      <label className="text-sm">
        Or from the file of a weather station: times and hPa
        <input
          type="file"
          accept=".csv,.txt,.tsv,text/*"
          className="mt-1 block min-h-12 w-full border border-edge bg-panel p-2"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (file) void read(file);
          }}
        />
      </label>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      <p role="status">{taken}</p>
    </div>
  );
}
const WHEN = { start: 'At the start', between: 'In between', end: 'At the end' } as const;
const USUAL_PLACES = ['pipe', 'room'];
/** What thermometers show, and where the unit was last read on this device. */
const DEGREES = ['C', 'F'] as const satisfies readonly Unit[];
const DEGREES_KEY = 'vast-thermometer-unit';
/** Temperatures at several places and at any time: each place with what was read there, one figure more at a time. */
export function TemperatureSide(props: SideProps) {
  const { text, setText, trouble, goFigure, go } = useEntry(props);
  const hold = runningHold(props.view.state);
  const logged = hold?.places ?? [];
  const known = [...new Set([...USUAL_PLACES, ...logged.map((p) => p.place)])];
  const [place, setPlace] = useState(USUAL_PLACES[0]!);
  const [other, setOther] = useState('');
  const [unit, setUnit] = useLastUnit(DEGREES_KEY, DEGREES);
  const where = place === '' ? other.trim() : place;
  const sent = fresh(props.view.live) ? props.view.live?.temperature : undefined;
  const probe = sent ? exact(sent.digits, sent.scale, sent.unit as 'C') : null;
  const save = (when: keyof typeof WHEN) =>
    goFigure(() => ({ kind: 'temperature', when, figure: parseFigure(text, unit), place: where }));
  return (
    <div className="grid gap-3">
      <p>
        Of the pipe, and where else it may warm or cool. Read at the start and at the end they are compared
        with what the gauge shows: that can make a result Inconclusive, never Tight.
      </p>
      <table className="w-full text-left">
        <thead className="text-sm text-quiet">
          <tr>
            <th className="font-normal">Place</th>
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
                    .map((l) => showExact(l.figure))
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
      {probe && (
        <Button
          className="min-h-14"
          onClick={() => {
            setUnit(probe.unit === 'F' ? 'F' : 'C');
            setText(formatExact(probe));
          }}
        >
          The probe of the gauge shows {showExact(probe)}
          {props.view.live?.simulated ? ', simulated' : ''}: take it
        </Button>
      )}
      <UnitLine
        label={`${where || 'There'} now`}
        spoken="Temperature"
        value={text}
        unit={unit}
        units={DEGREES}
        onValue={setText}
        onUnit={setUnit}
      />
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
