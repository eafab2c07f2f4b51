'use client';
import { parseReading } from '@/core/instrument/gauge';
import { fillingOf } from '@/core/plan/filling';
import { type Exact, parseFigure, showExact } from '@/core/quantity/exact';
import { type Unit, unitLabel } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import type { ObservationKind } from '@/core/run/events';
import { gaugeOf, runningHold } from '@/core/run/read';
import { now } from '@/device/clock';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { useTextDraft } from '@/ui/kit/use-draft';
import { clockTime } from '@/ui/kit/words';
import { useState } from 'react';
import { Keypad } from './keypad';
import { OwnKitChoice } from './own-kit';
import type { Pumped } from './pumped';
import { timeRead } from './time-read';

import type { PanelProps } from './shared';

const JointList = byNeed(() => import('./panels/extra').then((m) => m.JointList));
const PumpedWater = byNeed(() => import('./panels/extra').then((m) => m.PumpedWater));
const PhotoEntry = byNeed(() => import('./panels/extra').then((m) => m.PhotoEntry));
const InventoryForm = byNeed(() => import('./panels/extra').then((m) => m.InventoryForm));

export type Side =
  | 'reading'
  | 'top-up'
  | 'disturbance'
  | 'note'
  | 'more'
  | 'late'
  | 'correct'
  | 'temperature'
  | 'skip'
  | 'gauge'
  | 'barometer'
  | 'joints'
  | 'observation'
  | 'inventory'
  | 'kit'
  | 'photo';
type Props = PanelProps & {
  readonly side: Side;
  readonly onDone: () => void;
  readonly onSide?: (side: Side) => void;
};

const DISTURBANCES = [
  'Water was drawn or flushed',
  'A valve was touched',
  'An appliance was used or touched',
  'The gauge or hose was touched',
  'Somebody else interfered',
  'Something else',
];
const OBSERVATIONS: [ObservationKind, string][] = [
  ['smell', 'Smell'],
  ['dial', 'Meter dial'],
  ['flame', 'Flame'],
  ['indicator', 'Meter indicator'],
  ['sound', 'Sound'],
];
const field = 'mt-1 w-full min-h-14 border border-edge bg-panel px-3 text-lg';

/** What can be entered beside the main line of a stage. It takes the place of the trace, never a box over it. */
export const SideEntry = (props: Props) => <Entry key={props.side} {...props} />;
function Entry(props: Props) {
  const { side, view, act, visit, onDone, onSide } = props;
  const gauge = gaugeOf(view.plan, view.state);
  const unit = gauge ? unitLabel(gauge.resolution.unit) : '';
  const [trouble, setTrouble] = useState('');
  const [text, setText, textTaken] = useTextDraft(`run/${view.plan.run}/${side}`);
  const [first, setFirst] = useState<Exact | null>(null);
  const [asNote, setAsNote] = useState<string | null>(null);
  const [pick, setPick] = useState('');
  const [time, setTime] = useState('');
  const [pumped, setPumped] = useState<Pumped | null>(null);
  const filling = fillingOf(view.plan, props.stage.part);
  const counting = runningHold(view.state)?.role === 'make-up';
  const go = async (payload: Parameters<typeof act>[0]) => {
    const answer = await act(payload);
    if (answer.accepted) {
      textTaken();
      onDone();
    } else setTrouble(answer.text);
    return answer;
  };
  const back = (
    <Button className="min-h-14" onClick={onDone}>
      Back
    </Button>
  );
  const alert = (
    <p role="alert" className="min-h-6 text-rust">
      {trouble}
    </p>
  );
  /** What went wrong, the way back, and the one thing to do. */
  const ends = (word: string, onClick: () => void, disabled = false) => (
    <>
      {alert}
      <div className="grid grid-cols-2 gap-3">
        {back}
        <Button tone="act" className="min-h-16" disabled={disabled} onClick={onClick}>
          {word}
        </Button>
      </div>
    </>
  );
  /** What is logged at the start and at the end of a hold beside the gauge. */
  const startAndEnd = (of: {
    kind: 'temperature' | 'barometer';
    label: string;
    unit: Unit;
    explain: string;
    placeholder?: string;
    /** It may be said once that there is none at hand. */
    none?: true;
  }) => {
    const save = (when: 'start' | 'end') => {
      try {
        void go({ kind: of.kind, when, figure: parseFigure(text, of.unit) });
      } catch (error) {
        setTrouble((error as Error).message);
      }
    };
    return (
      <div className="grid gap-3">
        <p>{of.explain}</p>
        <label>
          {of.label}
          <input
            className={`figure ${field}`}
            inputMode="decimal"
            value={text}
            placeholder={of.placeholder}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        {alert}
        <div className={`grid gap-3 ${of.none ? 'grid-cols-2 sm:grid-cols-4' : 'grid-cols-3'}`}>
          {back}
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
  };
  switch (side) {
    case 'reading':
      return asNote ? (
        <div className="grid gap-3">
          <p>This reading was meant for a stage that has ended. Keep it as a note?</p>
          <p className="figure">{asNote}</p>
          <Button tone="act" className="min-h-16" onClick={() => void go({ kind: 'note', text: asNote })}>
            Keep it as a note
          </Button>
          {back}
        </div>
      ) : (
        gauge && (
          <Keypad
            gauge={gauge}
            label="The gauge shows"
            save="Save the reading"
            live={view.live}
            previous={runningHold(view.state)?.start.figure ?? null}
            onCancel={onDone}
            onSave={async (entered) => {
              const answer = await act({ kind: 'reading', ...entered });
              if (answer.accepted) onDone();
              else if (answer.code === 'wrong-stage')
                setAsNote(`Reading for ${visit.title}: ${showExact(entered.figure)}`);
              return answer.accepted ? null : answer.text;
            }}
          />
        )
      );
    case 'top-up':
      return (
        gauge && (
          <Keypad
            key={first ? 'after' : 'before'}
            gauge={gauge}
            live={view.live}
            onCancel={onDone}
            label={first ? 'After re-adjusting the gauge shows' : 'Before re-adjusting the gauge shows'}
            save={first ? 'Save the re-adjustment' : 'Next: re-adjust, then read again'}
            aside={
              filling.pumped && first && (counting || runningHold(view.state)?.role === 'settle') ? (
                <PumpedWater onChange={setPumped} wanted={counting} />
              ) : null
            }
            extra={
              runningHold(view.state) && !roleOf(runningHold(view.state)!.role).adjusts ? (
                <p className="text-ochre">
                  Re-adjusting during this hold ends it as void; it is raised, settled and held again.
                </p>
              ) : null
            }
            onSave={async ({ figure }) => {
              if (!first) {
                setFirst(figure);
                return null;
              }
              if (pumped?.wrong) return pumped.wrong;
              const answer = await go({
                kind: 'top-up',
                before: first,
                after: figure,
                ...(pumped?.added ? { added: pumped.added } : {}),
              });
              return answer.accepted ? null : answer.text;
            }}
          />
        )
      );
    case 'disturbance':
      return (
        <div className="grid gap-3">
          <p>
            What happened? A running let-by or tightness hold ends as void and is repeated; it stays in the
            record.
          </p>
          {DISTURBANCES.filter((d) => d !== DISTURBANCES[0] || filling.of === 'water').map((d) => (
            <Button
              key={d}
              className="min-h-16"
              tone={pick === d ? 'act' : 'plain'}
              onClick={() => setPick(d)}
            >
              {d}
            </Button>
          ))}
          <label>
            In a few words
            <input className={field} value={text} onChange={(e) => setText(e.target.value)} maxLength={500} />
          </label>
          {ends('Log it', () => void go({ kind: 'disturbance', what: pick, text }), !pick)}
        </div>
      );
    case 'note':
      return (
        <div className="grid gap-3">
          <label>
            Note
            <textarea
              className={`${field} min-h-28 py-2`}
              value={text}
              onChange={(e) => setText(e.target.value)}
              maxLength={2000}
            />
          </label>
          {ends('Save the note', () => void go({ kind: 'note', text: text.trim() }), !text.trim())}
        </div>
      );
    case 'temperature':
      return startAndEnd({
        kind: 'temperature',
        label: 'Temperature, °C',
        unit: 'C',
        explain:
          'Pipe temperature. With one at the start and one at the end, the corrected change is compared; it can make a result Inconclusive, never Tight.',
      });
    case 'barometer':
      return startAndEnd({
        kind: 'barometer',
        label: 'Barometer, mbar',
        unit: 'mbar',
        explain:
          'The gauge reads above the atmosphere: a barometer that rises by 1 mbar takes 1 mbar off the gauge. It drifts about 1 mbar an hour. Read the same barometer at start and end.',
        placeholder: '1013.25',
        none: true,
      });
    case 'photo':
      return <PhotoEntry view={view} engine={props.engine} act={act} visit={visit} onDone={onDone} />;
    case 'joints':
      return (
        <div className="grid gap-3">
          <JointList {...props} />
          {back}
        </div>
      );
    case 'inventory':
      return (
        <div className="grid gap-3">
          <InventoryForm {...props} />
          {back}
        </div>
      );
    case 'observation':
      return (
        <div className="grid gap-3">
          <p>Seen, smelt or heard: kept as an observation, never as a reading.</p>
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
            {OBSERVATIONS.map(([key, words]) => (
              <Button
                key={key}
                className="min-h-16"
                tone={pick === key ? 'act' : 'plain'}
                aria-pressed={pick === key}
                onClick={() => setPick(key)}
              >
                {words}
              </Button>
            ))}
          </div>
          {pick === 'smell' && (
            <p className="border-l-4 border-rust pl-3">
              {view.plan.procedure.cautions.smell} A smell makes the result Not tight, whatever the gauge
              says. STOP ends the run at once.
            </p>
          )}
          <label>
            In a few words
            <input className={field} value={text} onChange={(e) => setText(e.target.value)} maxLength={500} />
          </label>
          {ends(
            'Keep it',
            () => void go({ kind: 'observation', what: pick as 'smell', text: text.trim() }),
            !pick || (pick !== 'smell' && !text.trim()),
          )}
        </div>
      );
    case 'late': {
      const save = () => {
        try {
          const readAt = timeRead(time, now(), Date.parse(view.plan.made.at));
          void go({ kind: 'reading', figure: parseReading(text, gauge!), readAt, late: true });
        } catch (error) {
          setTrouble((error as Error).message);
        }
      };
      return (
        <div className="grid gap-3">
          <p>
            A reading from earlier is kept with both times and marked late. It never starts or ends a judged
            hold.
          </p>
          <label>
            Time it was read
            <input
              type="time"
              step={1}
              className={`figure ${field}`}
              value={time}
              onChange={(e) => setTime(e.target.value)}
            />
          </label>
          <label>
            The gauge showed, {unit}
            <input
              className={`figure ${field}`}
              inputMode="decimal"
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          </label>
          {ends('Save as late', save)}
        </div>
      );
    }
    case 'correct': {
      const readings = view.state.visits.flatMap((v) => v.readings);
      const save = () => {
        try {
          void go({ kind: 'correction', of: pick, figure: parseReading(text, gauge!), reason: time.trim() });
        } catch (error) {
          setTrouble((error as Error).message);
        }
      };
      return (
        <div className="grid gap-3">
          <label>
            Which reading
            <select className={field} value={pick} onChange={(e) => setPick(e.target.value)}>
              <option value="">Choose</option>
              {readings.map((r) => (
                <option key={r.id} value={r.id}>
                  {clockTime(r.readMoment, view.plan.made.zone)}: {showExact((r.corrected ?? r).figure)}
                </option>
              ))}
            </select>
          </label>
          <label>
            Right figure, {unit}
            <input
              className={`figure ${field}`}
              inputMode="decimal"
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          </label>
          <label>
            Why
            <input className={field} value={time} onChange={(e) => setTime(e.target.value)} maxLength={500} />
          </label>
          <p className="text-sm text-quiet">
            The old value stays in the record with your name and reason. Readings that started or ended a hold
            cannot be changed.
          </p>
          {ends('Correct it', save, !pick || !time.trim())}
        </div>
      );
    }
    case 'skip': {
      const reasons =
        props.stage.kind === 'hold'
          ? (props.stage.skip?.reasons ?? [])
          : [{ key: 'not-done', text: 'Not done', sound: true }];
      return (
        <div className="grid gap-3">
          <p>Why is this stage left out? The reason is printed.</p>
          {reasons.map((r) => (
            <Button
              key={r.key}
              className="min-h-16"
              tone={pick === r.key ? 'act' : 'plain'}
              onClick={() => setPick(r.key)}
            >
              {r.text}
            </Button>
          ))}
          <label>
            In a few words
            <input className={field} value={text} onChange={(e) => setText(e.target.value)} maxLength={500} />
          </label>
          {ends(
            'Leave it out',
            () => void go({ kind: 'skip', reason: pick, text: text.trim() }),
            !pick || !text.trim(),
          )}
        </div>
      );
    }
    case 'gauge':
      return (
        <div className="grid gap-3">
          <p>
            Another gauge is another test: it is zeroed, and the run begins again from there. What was done
            stays in the record.
          </p>
          {view.plan.gauges
            .filter((g) => g.id !== view.state.gauge)
            .map((g) => (
              <Button key={g.id} className="min-h-16" onClick={() => void go({ kind: 'gauge', gauge: g.id })}>
                Change to {g.name} ({g.serial})
              </Button>
            ))}
          {alert}
          {back}
        </div>
      );
    case 'kit':
      return (
        <div className="grid gap-3">
          <OwnKitChoice view={view} act={act} opened />
          {back}
        </div>
      );
    case 'more': {
      const offer: [Side, string][] = [
        ['disturbance', 'Disturbance'],
        ['note', 'Note'],
        ['photo', 'Photo'],
        ['temperature', 'Temperature'],
        ['barometer', 'Barometer'],
        ['joints', 'Joints and leak fluid'],
        ['observation', 'Seen, smelt, heard'],
        ...(view.plan.procedure.inventory?.length ? [['inventory', 'Inventory'] as [Side, string]] : []),
        ...(view.plan.ownKit?.length ? [['kit', 'Own hose or rig'] as [Side, string]] : []),
        ['late', 'Reading from earlier'],
        ...(view.state.visits.some((v) => v.readings.length)
          ? [['correct', 'Correct a reading'] as [Side, string]]
          : []),
        ...(view.plan.gauges.length > 1 ? [['gauge', 'Change the gauge'] as [Side, string]] : []),
        ...((props.stage.kind === 'hold' && props.stage.skip) || props.stage.optional
          ? [['skip', 'Skip this stage'] as [Side, string]]
          : []),
      ];
      return (
        <div className="grid grid-cols-2 gap-3">
          {offer.map(([s, w]) => (
            <Button key={s} className="min-h-16" onClick={() => onSide?.(s)}>
              {w}
            </Button>
          ))}
          {back}
        </div>
      );
    }
  }
}
