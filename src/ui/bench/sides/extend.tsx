'use client';
import { runningHold } from '@/core/run/read';
import { UNWITNESSED } from '@/core/run/long-hold';
import { Button } from '@/ui/kit/button';
import { clockTime, minutesWords } from '@/ui/kit/words';
import { useState } from 'react';
import { Line } from '../line';
import { Ends, type SideProps, useEntry } from './entry';

const MINUTE = 60_000;
/** Minutes from the end of a hold to the next seven in the morning, by this device's own clock. */
function untilMorning(end: number): number {
  const morning = new Date(end);
  morning.setHours(7, 0, 0, 0);
  if (morning.getTime() <= end) morning.setDate(morning.getDate() + 1);
  return Math.max(1, Math.round((morning.getTime() - end) / MINUTE));
}
/** A hold goes on for longer than planned: by how much, and why. It is judged over all of its time. */
export function ExtendSide(props: SideProps) {
  const { text, setText, trouble, go } = useEntry(props);
  const [minutes, setMinutes] = useState('');
  const { plan, state } = props.view;
  const hold = runningHold(state);
  if (!hold) return <p>The hold is over.</p>;
  const end = hold.startedAt + hold.minutes * MINUTE;
  const offer = [
    ['30 min', 30],
    ['2 h', 120],
    ['until 7 in the morning', untilMorning(end)],
  ] as const;
  const more = /^\d{1,4}$/.test(minutes) ? Number(minutes) : 0;
  const allowance = props.stage.kind === 'hold' && props.stage.allowance;
  return (
    <div className="grid gap-3">
      <p>
        Planned: {minutesWords(hold.minutes)}, to{' '}
        <span className="figure">{clockTime(end, plan.made.zone)}</span>. How much longer?
      </p>
      <div className="grid grid-cols-3 gap-3">
        {offer.map(([words, n]) => (
          <Button
            key={words}
            className="min-h-16 px-2"
            tone={more === n ? 'act' : 'plain'}
            aria-pressed={more === n}
            onClick={() => setMinutes(String(n))}
          >
            {words}
          </Button>
        ))}
      </div>
      <Line figure value={minutes} onChange={setMinutes} most={4}>
        Minutes more
      </Line>
      <Line value={text} onChange={setText} most={300}>
        Why, in a few words
      </Line>
      <p className="text-sm text-quiet">
        {more > 0 && (
          <>
            It then ends at <span className="figure">{clockTime(end + more * MINUTE, plan.made.zone)}</span>,
            and is judged over all of its time.{' '}
          </>
        )}
        Where nobody reads it for {UNWITNESSED / MINUTE} min the record marks it; a logger&rsquo;s file can be
        read in afterwards.
        {allowance &&
          ' A permitted drop belongs to the minutes that were planned: later only no movement ends well.'}
      </p>
      <Ends
        trouble={trouble}
        onDone={props.onDone}
        word="Hold it longer"
        disabled={!more || !text.trim()}
        onClick={() => void go({ kind: 'extend', minutes: more, why: text.trim() })}
      />
    </div>
  );
}
