'use client';
import type { CureStage } from '@/core/kinds';
import { curedAt, cureOf, madeWords } from '@/core/kinds/cure/fold';
import { capital } from '@/core/quantity/words';
import { inZone } from '@/core/quantity/in-zone';
import { Button } from '@/ui/kit/button';
import { countdown } from '@/ui/kit/words';
import { useState } from 'react';
import { Line } from '../line';
import { QuickPhoto } from '../quick-photo';
import type { PanelProps } from '../shared';
import { WayOn } from '../way-on';

/** What was cut and coupled, counted; the clock from the last joint; and the way on for who will not wait. */
export function CurePanel(props: PanelProps) {
  const { view, visit, at, act } = props;
  const cure = props.stage as CureStage;
  const now = cureOf(view.state, visit.ordinal);
  const [over, setOver] = useState(false);
  const left = now ? curedAt(now) - at : 0;
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3 lg:min-h-0 lg:flex-1 lg:overflow-auto">
        {now && !over ? (
          <>
            <p className="text-lg">{capital(madeWords(now))}.</p>
            <p className="text-xl">
              {left > 0 ? (
                <>
                  No pressure for{' '}
                  <span className="figure text-4xl" role="timer">
                    {countdown(left)}
                  </span>
                  , until {inZone(curedAt(now), view.plan.made.zone)}. This page may be closed meanwhile.
                </>
              ) : (
                <>Cured since {inZone(curedAt(now), view.plan.made.zone)}.</>
              )}
            </p>
            <Button className="min-h-14" onClick={() => setOver(true)}>
              A joint was made over, or one more: count again
            </Button>
          </>
        ) : (
          <Counted {...props} onDone={() => setOver(false)} />
        )}
        {cure.photo && <QuickPhoto {...props} asks={cure.photo} />}
        <Button className="min-h-14" onClick={() => void act({ kind: 'cure-later' })}>
          Leave it for another day
        </Button>
      </div>
      <WayOn open={now !== undefined && !over && left <= 0} act={act}>
        {!now || over
          ? 'Count first what was cut and coupled'
          : left > 0
            ? `It cures ${countdown(left)} more`
            : 'Cured: go on'}
      </WayOn>
    </div>
  );
}
const whole = (typed: string): number => (/^\d{1,3}$/.test(typed.trim()) ? Number(typed) : Number.NaN);
function Counted({ stage, act, onDone }: PanelProps & { onDone: () => void }) {
  const { minutes: rule, minutesSource } = stage as CureStage;
  const [cuts, setCuts] = useState('1');
  const [couplings, setCouplings] = useState('2');
  const [means, setMeans] = useState('');
  const [hours, setHours] = useState(String(rule / 60));
  const [table, setTable] = useState('');
  const [trouble, setTrouble] = useState('');
  const minutes = Math.round(Number(hours.replace(',', '.')) * 60);
  const shorter = minutes > 0 && minutes < rule;
  const enter = async () => {
    const [c, j] = [whole(cuts), whole(couplings)];
    if (Number.isNaN(c) || Number.isNaN(j))
      return setTrouble('Cuts and couplings are whole numbers: 0, 1, 2 …');
    if (!(minutes >= 1 && minutes <= 20160))
      return setTrouble('The cure time is a time in hours, like 2 or 0.5.');
    const answer = await act({
      kind: 'joints-made',
      cuts: c,
      couplings: j,
      means: means.trim(),
      minutes,
      table: table.trim(),
    });
    setTrouble(answer.accepted ? '' : answer.text);
    if (answer.accepted) onDone();
  };
  return (
    <section aria-label="What was cut and coupled" className="grid gap-3">
      <div className="grid grid-cols-2 gap-3">
        <Line value={cuts} onChange={setCuts} most={3} figure>
          Cut points
        </Line>
        <Line value={couplings} onChange={setCouplings} most={3} figure>
          Couplings
        </Line>
      </div>
      <Line value={means} onChange={setMeans} most={200}>
        Primer and cement, or what holds the joints
      </Line>
      <Line value={hours} onChange={setHours} most={6} figure>
        Cures for, h
      </Line>
      <p className="text-sm text-quiet">
        {minutesSource}. More in the cold, for wide pipe and for more pressure: read the can.
      </p>
      {shorter && (
        <Line value={table} onChange={setTable} most={200}>
          By which table is it less? (name the cement, bore and weather)
        </Line>
      )}
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
      <Button
        tone="act"
        className="min-h-16"
        disabled={!means.trim() || (shorter && !table.trim())}
        onClick={() => void enter()}
      >
        The last joint is made: the time runs
      </Button>
    </section>
  );
}
