'use client';
import { fillingOf } from '@/core/plan/filling';
import { type Exact, showExact } from '@/core/quantity/exact';
import { roleOf } from '@/core/roles';
import { runningHold } from '@/core/run/read';
import { now } from '@/device/clock';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { clockTime } from '@/ui/kit/words';
import { useState } from 'react';
import { Keypad } from '../keypad';
import { FIELD, Line } from '../line';
import type { Pumped } from '../pumped';
import { timeRead } from '../time-read';
import { Back, Ends, type SideProps, useEntry } from './entry';

const PumpedWater = byNeed(() => import('../panels/extra').then((m) => m.PumpedWater));

export function ReadingSide(props: SideProps) {
  const { view, act, visit, onDone } = props;
  const { gauge, go } = useEntry(props);
  const [asNote, setAsNote] = useState<string | null>(null);
  if (asNote)
    return (
      <div className="grid gap-3">
        <p>This reading was meant for a stage that has ended. Keep it as a note?</p>
        <p className="figure">{asNote}</p>
        <Button tone="act" className="min-h-16" onClick={() => void go({ kind: 'note', text: asNote })}>
          Keep it as a note
        </Button>
        <Back onDone={onDone} />
      </div>
    );
  return (
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
}

export function TopUpSide(props: SideProps) {
  const { view, onDone } = props;
  const { gauge, go } = useEntry(props);
  const [first, setFirst] = useState<Exact | null>(null);
  const [pumped, setPumped] = useState<Pumped | null>(null);
  const hold = runningHold(view.state);
  const role = hold && roleOf(hold.role);
  const counting = role?.measures === 'added';
  const { pumped: pumps } = fillingOf(view.plan, props.stage.part);
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
          pumps && first && role?.adjusts ? <PumpedWater onChange={setPumped} wanted={counting} /> : null
        }
        extra={
          role && !role.adjusts ? (
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
}

/** A figure that was read earlier. */
export function LateSide(props: SideProps) {
  const { view, onDone } = props;
  const { text, setText, trouble, goFigure, figureOf, unit } = useEntry(props);
  const [time, setTime] = useState('');
  return (
    <div className="grid gap-3">
      <p>
        A reading from earlier is kept with both times and marked late. It never starts or ends a judged hold.
      </p>
      <label>
        Time it was read
        <input
          type="time"
          step={1}
          className={`figure ${FIELD}`}
          value={time}
          onChange={(e) => setTime(e.target.value)}
        />
      </label>
      <Line figure value={text} onChange={setText}>
        The gauge showed, {unit}
      </Line>
      <Ends
        trouble={trouble}
        onDone={onDone}
        word="Save as late"
        onClick={() =>
          goFigure(() => {
            const readAt = timeRead(time, now(), Date.parse(view.plan.made.at));
            return { kind: 'reading', figure: figureOf(text), readAt, late: true };
          })
        }
      />
    </div>
  );
}

/** A reading that was entered wrongly, put right with a reason. */
export function CorrectSide(props: SideProps) {
  const { view, onDone } = props;
  const { text, setText, trouble, goFigure, figureOf, unit } = useEntry(props);
  const [pick, setPick] = useState('');
  const [reason, setReason] = useState('');
  return (
    <div className="grid gap-3">
      <label>
        Which reading
        <select className={FIELD} value={pick} onChange={(e) => setPick(e.target.value)}>
          <option value="">Choose</option>
          {view.state.visits
            .flatMap((v) => v.readings)
            .map((r) => (
              <option key={r.id} value={r.id}>
                {clockTime(r.readMoment, view.plan.made.zone)}: {showExact((r.corrected ?? r).figure)}
              </option>
            ))}
        </select>
      </label>
      <Line figure value={text} onChange={setText}>
        Right figure, {unit}
      </Line>
      <Line value={reason} onChange={setReason} most={500}>
        Why
      </Line>
      <p className="text-sm text-quiet">
        The old value stays in the record with your name and reason. Readings that started or ended a hold
        cannot be changed.
      </p>
      <Ends
        trouble={trouble}
        onDone={onDone}
        word="Correct it"
        disabled={!pick || !reason.trim()}
        onClick={() =>
          goFigure(() => ({ kind: 'correction', of: pick, figure: figureOf(text), reason: reason.trim() }))
        }
      />
    </div>
  );
}
