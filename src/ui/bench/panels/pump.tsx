'use client';
import type { Gauge } from '@/core/instrument/gauge';
import type { PumpStage } from '@/core/kinds';
import { firstStepDrops, pumpBand, pumpStepNow, raisingSteps, tooMuchAir } from '@/core/kinds/pump/fold';
import { fillingOf } from '@/core/plan/filling';
import { type Exact, showChange, showExact, toNumber } from '@/core/quantity/exact';
import { stageBand } from '@/core/run/hold-spec';
import { gaugeOf } from '@/core/run/read';
import { Button } from '@/ui/kit/button';
import { Why } from '@/ui/kit/why';
import { countdown } from '@/ui/kit/words';
import { useState } from 'react';
import { Keypad } from '../keypad';
import { Line } from '../line';
import { type Pumped, PumpedWater } from '../pumped';
import type { PanelProps } from '../shared';

const NONE: Pumped = { added: null, strokes: null, wrong: '' };
type Band = NonNullable<Extract<ReturnType<typeof stageBand>, { value: unknown }>['value']>;
interface Raising extends PanelProps {
  readonly pump: PumpStage;
  readonly gauge: Gauge;
  readonly whole: Band;
}

/** Raising in stages: pump to the step, stop, look at every joint, read again, next step. */
export function PumpPanel(props: PanelProps) {
  const pump = props.stage as PumpStage;
  const { plan, state } = props.view;
  const gauge = gaugeOf(plan, state);
  const [failing, setFailing] = useState(false);
  const found = stageBand(plan, state, pump);
  if (!gauge) return <p role="alert">Choose and zero the gauge first.</p>;
  if ('missing' in found)
    return (
      <p role="alert" className="border-l-4 border-ochre pl-3 text-lg">
        {found.missing}
      </p>
    );
  const own: Raising = { ...props, pump, gauge, whole: found.value };
  return (
    <div className="flex flex-[1_0_auto] flex-col gap-1 lg:gap-2">
      <Steps {...own} />
      <Noticed {...own} />
      {failing ? (
        <CannotReach act={props.act} onBack={() => setFailing(false)} />
      ) : props.visit.pumped[pumpStepNow(props.visit)] ? (
        <Look {...own} />
      ) : (
        <PumpTo {...own} onFail={() => setFailing(true)} />
      )}
    </div>
  );
}

/** A part of a pressure as the gauge in hand can show it: upwards, so that the last one reaches the band. */
const onDisplay = (whole: Exact, percent: number, { resolution }: Gauge): string => {
  const finest = 10 ** resolution.scale;
  const shown = Math.ceil((toNumber(whole) * percent * finest) / 100 - 1e-6) / finest;
  return `${shown.toFixed(resolution.scale)} ${whole.unit}`;
};
/** The steps of raising, with what each came to. */
function Steps({ visit, pump, whole, gauge }: Raising) {
  const index = pumpStepNow(visit);
  const steps = raisingSteps(pump, whole);
  // so many side by side on a phone: the unit stands with the band beneath
  const many = steps.length > 3;
  return (
    <ol
      className="grid gap-px border border-seam bg-seam"
      style={{ gridTemplateColumns: `repeat(${steps.length}, minmax(0, 1fr))` }}
    >
      {steps.map((s, i) => {
        const done = visit.pumped[i];
        const own = pumpBand(pump, whole, i);
        const [figure, unit] = (
          done
            ? showExact((done.look?.reading ?? done.reached).figure)
            : pump.every
              ? onDisplay(whole.low, s.percent, gauge)
              : s.percent === 100
                ? showExact(own.low)
                : `${s.percent} %`
        ).split(' ');
        return (
          <li
            key={i}
            aria-current={i === index ? 'step' : undefined}
            className={`text-sm lg:px-2 lg:py-1 ${many ? 'px-1' : 'px-2'} ${i === index ? 'bg-block' : 'bg-panel'}`}
          >
            <span className="block text-quiet max-lg:sr-only">
              {done?.look ? 'looked at' : i === index ? (done ? 'look now' : 'raise to') : 'later'}
            </span>
            <span className="figure-narrow block text-base whitespace-nowrap">
              {figure}
              <span className={many ? 'max-lg:sr-only' : ''}> {unit}</span>
            </span>
          </li>
        );
      })}
    </ol>
  );
}
/** What the figures of the pump say: a first step that drops, trapped air, a step taken too fast. */
function Noticed({ view, visit, pump }: Raising) {
  const { plan, state } = view;
  const step = visit.pumped[pumpStepNow(visit)];
  const drop = firstStepDrops(plan, state, visit);
  const air = tooMuchAir(plan, visit, pump);
  const trapped = [...visit.pumped].reverse().find((p) => p.air)?.air;
  return (
    <>
      {drop && (
        <p className="border-l-4 border-ochre pl-3">
          The first step dropped by <span className="figure">{showChange(drop)}</span>: most often a joint
          that was never made or pressed. Look at each before you go on.
        </p>
      )}
      {trapped && (
        <p className={air ? 'border-l-4 border-ochre pl-3' : 'text-sm text-quiet'}>
          Trapped air by the strokes: <span className="figure">{trapped.litres.toFixed(2)} l</span>,{' '}
          <span className="figure">{trapped.percent.toFixed(1)} %</span> of the volume.{' '}
          {air && `${air} Bleed again.`}
        </p>
      )}
      {step?.fast && <p className="border-l-4 border-ochre pl-3">{step.fast}</p>}
    </>
  );
}
function CannotReach({ act, onBack }: Pick<PanelProps, 'act'> & { onBack: () => void }) {
  const [why, setWhy] = useState('');
  return (
    <div className="grid gap-3">
      <Line value={why} onChange={setWhy} most={500}>
        Why can it not be reached? It is printed
      </Line>
      <div className="grid grid-cols-2 gap-3">
        <Button className="min-h-16" onClick={onBack}>
          Back
        </Button>
        <Button
          tone="act"
          className="min-h-16"
          disabled={!why.trim()}
          onClick={() => void act({ kind: 'pump-failed', text: why.trim() })}
        >
          It cannot be reached
        </Button>
      </div>
    </div>
  );
}
function PumpTo({ view, visit, stage, act, pump, gauge, whole, onFail }: Raising & { onFail: () => void }) {
  const [pumped, setPumped] = useState<Pumped>(NONE);
  const { looks } = fillingOf(view.plan, stage.part);
  const index = pumpStepNow(visit);
  const band = pumpBand(pump, whole, index);
  const last = index + 1 === raisingSteps(pump, whole).length;
  return (
    <>
      <p>
        {looks.raised === 'pumped' ? 'Pump to' : 'Raise to'}{' '}
        <Why
          guide="test-pressure"
          facts={{
            title: last ? 'Test pressure' : 'Step of raising',
            source: pump.source,
            text: whole.working?.text ?? stage.why ?? '',
            ...(whole.working ? { formula: whole.working.formula, inputs: whole.working.inputs } : {}),
          }}
        >
          <span className="figure text-xl lg:text-2xl">
            {showExact(band.low)} to {showExact(band.high)}
          </span>
        </Why>
        <span className="max-lg:hidden">, stop, read.</span>
      </p>
      <Keypad
        gauge={gauge}
        label={`${looks.stopped} The gauge shows`}
        save="Reached: look at the joints"
        live={view.live}
        {...(looks.raised === 'pumped' ? { aside: <PumpedWater onChange={setPumped} /> } : {})}
        {...(last ? { confirm: pump.confirms } : {})}
        onSave={async (entered) => {
          if (pumped.wrong) return pumped.wrong;
          const answer = await act({
            kind: 'pump-step',
            ...entered,
            ...(pumped.added ? { added: pumped.added } : {}),
            ...(pumped.strokes === null ? {} : { strokes: pumped.strokes }),
          });
          if (answer.accepted) setPumped(NONE);
          return answer.accepted ? null : answer.text;
        }}
      />
      <Button className="min-h-14" onClick={onFail}>
        It cannot be reached
      </Button>
    </>
  );
}
/** Every joint is looked at while the step stands, then the gauge is read again. */
function Look(props: Raising) {
  const { view, visit, at, act, pump, gauge, whole } = props;
  const [dripping, setDripping] = useState(false);
  const { looks } = fillingOf(view.plan, pump.part);
  const index = pumpStepNow(visit);
  const step = visit.pumped[index]!;
  const due = step.reached.readMoment + raisingSteps(pump, whole)[index]!.minutes * 60_000;
  const over = at >= due;
  return (
    <>
      <p className="leading-tight lg:text-lg">
        {looks.how}{' '}
        {over ? (
          'Then read the gauge.'
        ) : (
          <>
            Read again in{' '}
            <span className="figure" role="timer">
              {countdown(due - at)}
            </span>
            .
          </>
        )}
      </p>
      {dripping ? (
        <Drips {...props} onBack={() => setDripping(false)} />
      ) : (
        <>
          <Keypad
            gauge={gauge}
            label={over ? 'After the pause the gauge shows' : 'The pause is not over'}
            save={looks.none === 'dry' ? 'All joints dry: go on' : 'No bubbles, no hiss: go on'}
            live={view.live}
            previous={step.reached.figure}
            onSave={async (entered) => {
              const answer = await act({ kind: 'pump-look', ...entered, joints: 'dry', where: '' });
              return answer.accepted ? null : answer.text;
            }}
          />
          <Button className="min-h-16" onClick={() => setDripping(true)}>
            {looks.some === 'drips' ? 'A joint drips' : 'A joint bubbles or hisses'}
          </Button>
        </>
      )}
    </>
  );
}
function Drips({ view, visit, act, pump, gauge, onBack }: Raising & { onBack: () => void }) {
  const { looks } = fillingOf(view.plan, pump.part);
  const [where, setWhere] = useState('');
  const [trouble, setTrouble] = useState('');
  const step = visit.pumped[pumpStepNow(visit)]!;
  return (
    <div className="grid gap-3">
      <Line value={where} onChange={setWhere} most={200}>
        {looks.where}
      </Line>
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <Keypad
        gauge={gauge}
        label="The gauge shows"
        save={looks.some === 'drips' ? 'It drips: release and remake' : 'It leaks there: vent and remake'}
        live={view.live}
        previous={step.reached.figure}
        onCancel={onBack}
        onSave={async (entered) => {
          const answer = await act({
            kind: 'pump-look',
            ...entered,
            joints: 'drips',
            where: where.trim(),
          });
          if (answer.accepted) onBack();
          else setTrouble(answer.text);
          return answer.accepted ? null : answer.text;
        }}
      />
    </div>
  );
}
