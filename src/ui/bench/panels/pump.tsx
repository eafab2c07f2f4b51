'use client';
import { useState } from 'react';
import type { PumpStage } from '@/core/kinds';
import { showChange, showExact } from '@/core/quantity/exact';
import { firstStepDrops } from '@/core/kinds/pump/fold';
import { pumpBand } from '@/core/kinds/pump/fold';
import { pumpStepNow } from '@/core/kinds/pump/fold';
import { tooMuchAir } from '@/core/kinds/pump/fold';
import { stageBand } from '@/core/run/hold-spec';
import { gaugeOf } from '@/core/run/read';
import { Button } from '@/ui/kit/button';
import { Why } from '@/ui/kit/why';
import { countdown } from '@/ui/kit/words';
import { Keypad } from '../keypad';
import { PumpedWater, type Pumped } from '../pumped';
import type { PanelProps } from '../shared';

const NONE: Pumped = { added: null, strokes: null, wrong: '' };

/** Raising in stages: pump to the step, stop, look at every joint, read again, next step. */
export function PumpPanel({ view, visit, stage, at, act }: PanelProps) {
  const pump = stage as PumpStage;
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  const [pumped, setPumped] = useState<Pumped>(NONE);
  const [where, setWhere] = useState('');
  const [dripping, setDripping] = useState(false);
  const [failing, setFailing] = useState(false);
  const [why, setWhy] = useState('');
  const [trouble, setTrouble] = useState('');
  const found = stageBand(plan, state, pump);
  if (!gauge) return <p role="alert">Choose and zero the gauge first.</p>;
  if ('missing' in found)
    return (
      <p role="alert" className="border-l-4 border-ochre pl-3 text-lg">
        {found.missing}
      </p>
    );
  const index = pumpStepNow(visit);
  const step = visit.pumped[index];
  const band = pumpBand(pump, found.value, index);
  const drop = firstStepDrops(plan, state, visit);
  const air = tooMuchAir(plan, visit, pump);
  const trapped = [...visit.pumped].reverse().find((p) => p.air)?.air;
  const due = step ? step.reached.readMoment + pump.steps[index]!.minutes * 60_000 : 0;
  const over = step !== undefined && at >= due;
  return (
    <div className="flex flex-[1_0_auto] flex-col gap-1 lg:gap-2">
      <ol
        className="grid gap-px border border-seam bg-seam"
        style={{ gridTemplateColumns: `repeat(${pump.steps.length}, minmax(0, 1fr))` }}
      >
        {pump.steps.map((s, i) => {
          const done = visit.pumped[i];
          const own = pumpBand(pump, found.value, i);
          return (
            <li
              key={i}
              aria-current={i === index ? 'step' : undefined}
              className={`px-2 text-sm lg:py-1 ${i === index ? 'bg-block' : 'bg-panel'}`}
            >
              <span className="block text-quiet max-lg:sr-only">
                {done?.look ? 'looked at' : i === index ? (done ? 'look now' : 'pump to') : 'later'}
              </span>
              <span className="figure-narrow block text-base whitespace-nowrap">
                {done
                  ? showExact((done.look?.reading ?? done.reached).figure)
                  : s.percent === 100
                    ? showExact(own.low)
                    : `${s.percent} %`}
              </span>
            </li>
          );
        })}
      </ol>
      {drop && (
        <p className="border-l-4 border-ochre pl-3">
          The first step dropped by <span className="figure">{showChange(drop)}</span>: most often a joint
          that was never made or pressed. Look at each before you pump on.
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
      {failing ? (
        <div className="grid gap-3">
          <label>
            Why can it not be reached? It is printed
            <input
              className="mt-1 min-h-14 w-full border border-edge bg-panel px-3 text-lg"
              value={why}
              onChange={(e) => setWhy(e.target.value)}
              maxLength={500}
            />
          </label>
          <div className="grid grid-cols-2 gap-3">
            <Button className="min-h-16" onClick={() => setFailing(false)}>
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
      ) : !step ? (
        <>
          <p>
            Pump to{' '}
            <Why
              facts={{
                title: index + 1 === pump.steps.length ? 'Test pressure' : 'Step of raising',
                source: pump.source,
                text: found.value.working?.text ?? stage.why ?? '',
                ...(found.value.working
                  ? { formula: found.value.working.formula, inputs: found.value.working.inputs }
                  : {}),
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
            label="Pump stopped. The gauge shows"
            save="Reached: look at the joints"
            live={view.live}
            aside={<PumpedWater onChange={setPumped} />}
            {...(index + 1 === pump.steps.length ? { confirm: pump.confirms } : {})}
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
          <Button className="min-h-14" onClick={() => setFailing(true)}>
            It cannot be reached
          </Button>
        </>
      ) : (
        <>
          <p className="leading-tight lg:text-lg">
            Look at every joint.{' '}
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
            <div className="grid gap-3">
              <label>
                Where does it drip?
                <input
                  className="mt-1 min-h-14 w-full border border-edge bg-panel px-3 text-lg"
                  value={where}
                  onChange={(e) => setWhere(e.target.value)}
                  maxLength={200}
                />
              </label>
              <p role="alert" className="min-h-6 text-rust">
                {trouble}
              </p>
              <Keypad
                gauge={gauge}
                label="The gauge shows"
                save="It drips: release and remake"
                live={view.live}
                previous={step.reached.figure}
                onCancel={() => setDripping(false)}
                onSave={async (entered) => {
                  const answer = await act({
                    kind: 'pump-look',
                    ...entered,
                    joints: 'drips',
                    where: where.trim(),
                  });
                  if (answer.accepted) setDripping(false);
                  else setTrouble(answer.text);
                  return answer.accepted ? null : answer.text;
                }}
              />
            </div>
          ) : (
            <>
              <Keypad
                gauge={gauge}
                label={over ? 'After the pause the gauge shows' : 'The pause is not over'}
                save="All joints dry: go on"
                live={view.live}
                previous={step.reached.figure}
                onSave={async (entered) => {
                  const answer = await act({ kind: 'pump-look', ...entered, joints: 'dry', where: '' });
                  return answer.accepted ? null : answer.text;
                }}
              />
              <Button className="min-h-16" onClick={() => setDripping(true)}>
                A joint drips
              </Button>
            </>
          )}
        </>
      )}
    </div>
  );
}
