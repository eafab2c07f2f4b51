'use client';
import { known } from '@/core/formula';
import type { DialStage } from '@/core/kinds';
import { type Exact, parseFigure, showExact } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import { minutesFor } from '@/core/run/hold-spec';
import { Button, HoldButton } from '@/ui/kit/button';
import { Why } from '@/ui/kit/why';
import { countdown, minutesWords } from '@/ui/kit/words';
import { useMemo, useState } from 'react';
import { FIELD, Line } from '../line';
import type { PanelProps } from '../shared';

/** The meter's own dial: marked and watched for a leak, or counted for what an appliance takes. */
export function DialPanel(props: PanelProps) {
  return (props.stage as DialStage).role === 'leak' ? <Watch {...props} /> : <Input {...props} />;
}

function Watch({ view, visit, stage, at, act }: PanelProps) {
  const { plan, state } = view;
  const dial = visit.dial;
  const [moving, setMoving] = useState(false);
  const [short, setShort] = useState('');
  const watched = stage as DialStage;
  const found = useMemo(
    () => known(() => minutesFor(plan, state, stage.part, watched.minutes, watched.minutesSource, false)),
    [plan, state, stage, watched],
  );
  if ('missing' in found)
    return (
      <p role="alert" className="border-l-4 border-ochre pl-3 text-lg">
        {found.missing}
      </p>
    );
  if (!dial) return <MarkFirst perTurn={plan.system.meter.testDial} times={found.value} act={act} />;
  const end = dial.startedAt + dial.minutes * 60000;
  const over = at >= end;
  const rule = at >= dial.startedAt + dial.rule * 60000;
  return (
    <div className="grid content-start gap-3 lg:flex-1">
      <p className="text-sm text-quiet">{over ? 'time is up: look at the mark' : 'time left'}</p>
      <p
        className={`figure-narrow text-[64px] leading-none lg:text-[96px] ${over ? 'text-ochre' : ''}`}
        role="timer"
        aria-label={`time left ${countdown(end - at)}`}
        data-hold={over ? 'over' : 'running'}
      >
        {countdown(end - at)}
      </p>
      <p>Mark: {dial.mark}. Any movement is a leak, however small; it can be said at any time.</p>
      {moving ? (
        <HowFar act={act} onBack={() => setMoving(false)} />
      ) : (
        <>
          {/* what appears by itself stands below what may be pressed at that moment: nothing moves away under a finger */}
          <Button className="min-h-20 text-xl" onClick={() => setMoving(true)}>
            It moved
          </Button>
          {!over && rule && (
            <Line value={short} onChange={setShort} most={500}>
              To end before the planned {minutesWords(dial.minutes)}, say why; it is printed
            </Line>
          )}
          <HoldButton
            className="min-h-20 text-xl"
            disabled={!over && !(rule && short.trim())}
            onHeld={() =>
              void act({ kind: 'dial-end', moved: false, ...(over ? {} : { short: short.trim() }) })
            }
          >
            {over || rule ? 'Exactly at its mark' : `Look again in ${countdown(end - at)}`}
          </HoldButton>
        </>
      )}
    </div>
  );
}

/** The hand is marked on the glass before it is watched. */
function MarkFirst({
  perTurn,
  times,
  act,
}: Pick<PanelProps, 'act'> & { perTurn: Exact | undefined; times: ReturnType<typeof minutesFor> }) {
  const [mark, setMark] = useState('');
  return (
    <div className="grid content-start gap-3 lg:flex-1">
      <p>
        Smallest test dial: <span className="figure">{perTurn ? showExact(perTurn) : 'not entered'}</span> a
        turn. Watch it for{' '}
        <Why
          guide="dial-watch"
          facts={{
            title: 'Length of the watch',
            source: times.source,
            text: times.working?.text ?? '',
            ...(times.working ? { formula: times.working.formula, inputs: times.working.inputs } : {}),
          }}
        >
          <span className="figure">{minutesWords(times.planned)}</span>
        </Why>{' '}
        (published least {minutesWords(times.rule)}
        {times.house !== null && <>, house {minutesWords(times.house)}</>}).
      </p>
      <Line value={mark} onChange={setMark} most={120} placeholder="just past the 3, tape on the glass">
        Where does its hand stand? Mark the glass and describe it
      </Line>
      <Button
        tone="act"
        data-primary
        className="min-h-20 text-xl"
        disabled={!mark.trim()}
        onClick={() => void act({ kind: 'dial-start', mark: mark.trim() })}
      >
        Marked: start watching
      </Button>
    </div>
  );
}
/** How far the hand went, and which way. */
function HowFar({ act, onBack }: Pick<PanelProps, 'act'> & { onBack: () => void }) {
  const [turns, setTurns] = useState('');
  const [direction, setDirection] = useState<'forward' | 'backward'>('forward');
  const [trouble, setTrouble] = useState('');
  const save = async () => {
    try {
      const answer = await act({ kind: 'dial-end', moved: true, turns: parseFigure(turns, '1'), direction });
      if (!answer.accepted) setTrouble(answer.text);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <div className="grid gap-3">
      <Line figure value={turns} onChange={setTurns} placeholder="0.1">
        What part of a turn?
      </Line>
      <div className="grid grid-cols-2 gap-3" role="group" aria-label="Direction">
        {(['forward', 'backward'] as const).map((d) => (
          <Button
            key={d}
            className="min-h-16"
            tone={direction === d ? 'act' : 'plain'}
            aria-pressed={direction === d}
            onClick={() => setDirection(d)}
          >
            {d === 'forward' ? 'Forward: gas taken' : 'Backward'}
          </Button>
        ))}
      </div>
      <p role="alert" className="min-h-6 font-semibold text-rust">
        {trouble}
      </p>
      <div className="grid grid-cols-2 gap-3">
        <Button className="min-h-16" onClick={onBack}>
          Back
        </Button>
        <Button tone="act" className="min-h-16" onClick={() => void save()}>
          The dial moved
        </Button>
      </div>
    </div>
  );
}

function Input({ view, visit, act }: PanelProps) {
  const { plan } = view;
  const [appliance, setAppliance] = useState(plan.system.appliances[0]?.id ?? '');
  const [turns, setTurns] = useState('1');
  const [seconds, setSeconds] = useState('');
  const [why, setWhy] = useState('');
  const [trouble, setTrouble] = useState('');
  const save = async () => {
    try {
      const answer = await act({
        kind: 'dial-input',
        appliance,
        turns: parseFigure(turns, '1'),
        seconds: parseFigure(seconds, 's'),
      });
      setTrouble(answer.accepted ? '' : answer.text);
      if (answer.accepted) setSeconds('');
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  const plate = plan.system.appliances.find((a) => a.id === appliance)?.input;
  return (
    <div className="grid content-start gap-3 lg:flex-1">
      <ul>
        {visit.inputs.map((i, n) => (
          <li key={n} className="border-t border-seam py-2">
            {plan.system.appliances.find((a) => a.id === i.appliance)?.name}:{' '}
            <Why guide="appliance-input" facts={{ title: (i.input ?? i.flow).name, ...(i.input ?? i.flow) }}>
              <span className="figure">{showFigure(i.input ?? i.flow)}</span>
            </Why>
          </li>
        ))}
      </ul>
      <label>
        Appliance running alone
        <select className={FIELD} value={appliance} onChange={(e) => setAppliance(e.target.value)}>
          {plan.system.appliances.map((a) => (
            <option key={a.id} value={a.id}>
              {[a.name, a.place].filter(Boolean).join(', ')}
            </option>
          ))}
        </select>
      </label>
      {plate && (
        <p className="text-quiet">
          On its plate: <span className="figure">{showExact(plate)}</span>.
        </p>
      )}
      <div className="grid grid-cols-2 gap-3">
        <Line figure value={turns} onChange={setTurns}>
          Turns of the dial
        </Line>
        <Line figure value={seconds} onChange={setSeconds}>
          Time, s
        </Line>
      </div>
      <p role="alert" className="min-h-6 font-semibold text-rust">
        {trouble}
      </p>
      <Button className="min-h-16" onClick={() => void save()} disabled={!seconds}>
        Save this input
      </Button>
      {visit.inputs.length === 0 && (
        <Line value={why} onChange={setWhy} most={500}>
          To leave it out, say why; it is printed
        </Line>
      )}
      <Button
        tone="act"
        data-primary
        className="min-h-20 text-xl"
        disabled={!visit.inputs.length && !why.trim()}
        onClick={() =>
          void act(
            visit.inputs.length
              ? { kind: 'proceed' }
              : { kind: 'skip', reason: 'not-done', text: why.trim() },
          )
        }
      >
        {visit.inputs.length ? 'Measured: go on' : 'Leave it out'}
      </Button>
    </div>
  );
}
