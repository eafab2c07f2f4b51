'use client';
import { fillingOf } from '@/core/plan/filling';
import type { ObservationKind } from '@/core/run/events';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import { FIELD } from '../line';
import { Ends, FewWords, type SideProps, useEntry } from './entry';

const DRAWN = 'Water was drawn or flushed';
const DISTURBANCES = [
  DRAWN,
  'A valve was touched',
  'An appliance was used or touched',
  'The gauge or hose was touched',
  'Somebody else interfered',
  'Something else',
];
const OBSERVATIONS: readonly (readonly [ObservationKind, string])[] = [
  ['smell', 'Smell'],
  ['dial', 'Meter dial'],
  ['flame', 'Flame'],
  ['indicator', 'Meter indicator'],
  ['sound', 'Sound'],
];

export function DisturbanceSide(props: SideProps) {
  const { text, setText, trouble, go } = useEntry(props);
  const [pick, setPick] = useState('');
  const { of } = fillingOf(props.view.plan, props.stage.part);
  return (
    <div className="grid gap-3">
      <p>
        What happened? A running let-by or tightness hold ends as void and is repeated; it stays in the
        record.
      </p>
      {DISTURBANCES.filter((d) => d !== DRAWN || of === 'water').map((d) => (
        <Button key={d} className="min-h-16" tone={pick === d ? 'act' : 'plain'} onClick={() => setPick(d)}>
          {d}
        </Button>
      ))}
      <FewWords text={text} setText={setText} />
      <Ends
        trouble={trouble}
        onDone={props.onDone}
        word="Log it"
        disabled={!pick}
        onClick={() => void go({ kind: 'disturbance', what: pick, text })}
      />
    </div>
  );
}

export function NoteSide(props: SideProps) {
  const { text, setText, trouble, go } = useEntry(props);
  return (
    <div className="grid gap-3">
      <label>
        Note
        <textarea
          className={`${FIELD} min-h-28 py-2`}
          value={text}
          onChange={(e) => setText(e.target.value)}
          maxLength={2000}
        />
      </label>
      <Ends
        trouble={trouble}
        onDone={props.onDone}
        word="Save the note"
        disabled={!text.trim()}
        onClick={() => void go({ kind: 'note', text: text.trim() })}
      />
    </div>
  );
}

export function ObservationSide(props: SideProps) {
  const { text, setText, trouble, go } = useEntry(props);
  const [pick, setPick] = useState<ObservationKind | null>(null);
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
          {props.view.plan.procedure.cautions.smell} A smell makes the result Not tight, whatever the gauge
          says. STOP ends the run at once.
        </p>
      )}
      <FewWords text={text} setText={setText} />
      <Ends
        trouble={trouble}
        onDone={props.onDone}
        word="Keep it"
        disabled={!pick || (pick !== 'smell' && !text.trim())}
        onClick={() => void go({ kind: 'observation', what: pick!, text: text.trim() })}
      />
    </div>
  );
}
