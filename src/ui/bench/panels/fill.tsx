'use client';
import { lower } from '@/core/quantity/words';
import { useState } from 'react';
import type { FillStage, IsolateStage } from '@/core/kinds';
import { showExact } from '@/core/quantity/exact';
import { stageBand } from '@/core/run/hold-spec';
import { holdAhead } from '@/core/run/follow-on';
import { unheldWays } from '@/core/run/unheld';
import { gaugeOf } from '@/core/run/read';
import { Why } from '@/ui/kit/why';
import { countdown } from '@/ui/kit/words';
import { Keypad } from '../keypad';
import { LevelWords } from '../level-words';
import { AheadWords, beginWith, startWords } from './ahead';
import { WillNotStand } from './unheld';
import type { PanelProps } from '../shared';

/** Raises the pressure into a band; the reading must lie inside it and the source be shut. */
export function FillPanel(props: PanelProps) {
  const { view, visit, stage, act, at } = props;
  const [unheld, setUnheld] = useState(false);
  const gauge = gaugeOf(view.plan, view.state)!;
  const found = stageBand(view.plan, view.state, stage as FillStage | IsolateStage);
  const source = stage.kind === 'fill' ? stage.source : (stage as IsolateStage).minutesSource;
  const last = visit.fills[visit.fills.length - 1];
  if ('missing' in found)
    return (
      <p role="alert" className="border-l-4 border-ochre pl-3 text-lg">
        {found.missing}
      </p>
    );
  const { low, high, working } = found.value;
  if (unheld) return <WillNotStand {...props} gauge={gauge} onBack={() => setUnheld(false)} />;
  const ways = unheldWays(view.state, stage);
  const ahead = holdAhead(view.plan, view.state);
  // before a let-by the one thing to say is that its valve is shut: the press itself says it
  const saidByPress = ahead?.role === 'let-by' && stage.kind === 'fill' ? stage.confirms : '';
  return (
    <div className="flex flex-[1_0_auto] flex-col">
      <p className="mb-2">
        Band:{' '}
        <Why
          guide="band"
          facts={{
            title: 'Pressure band',
            source,
            text: working?.text ?? stage.why ?? 'Start inside this band: both ends count as inside.',
            ...(working ? { formula: working.formula, inputs: working.inputs } : {}),
          }}
        >
          <span className="figure text-2xl">
            {showExact(low)} to {showExact(high)}
          </span>
        </Why>
        {view.live && view.live.gauge === gauge.id && (
          <span className="ml-4">
            gauge now{' '}
            <span className="figure text-2xl">
              {showExact({ digits: view.live.digits, scale: view.live.scale, unit: gauge.resolution.unit })}
            </span>
            {view.live.simulated ? ' simulated' : ''}
          </span>
        )}
      </p>
      {gauge.kind === 'level' && <LevelWords plan={view.plan} />}
      <AheadWords
        plan={view.plan}
        state={view.state}
        gauge={gauge}
        part={stage.part}
        start={low}
        ahead={ahead}
      />
      {stage.kind === 'fill' && stage.within && <Within stage={stage} entered={visit.entered} at={at} />}
      <Keypad
        gauge={gauge}
        label={
          gauge.kind === 'level'
            ? `Height of the water over the ${view.plan.procedure.levelOver ?? 'slab'}`
            : 'The gauge shows'
        }
        save={
          !ahead
            ? 'In the band: go on'
            : saidByPress
              ? `${saidByPress}: ${lower(startWords(ahead))}`
              : startWords(ahead)
        }
        live={view.live}
        previous={last?.figure ?? null}
        {...(saidByPress ? {} : { confirm: stage.kind === 'fill' ? stage.confirms : 'Source is shut' })}
        onSave={async (entered) => {
          const answer = await act(
            { kind: 'fill', confirmed: true, ...entered },
            beginWith(view.plan, entered, ahead),
          );
          return answer.accepted ? null : answer.text;
        }}
        {...(ways.length > 0
          ? {
              other: {
                words: ways.includes('low')
                  ? 'Will not come up or stand'
                  : ways.includes('rises')
                    ? 'It will not come down'
                    : 'It will not stand',
                onClick: () => setUnheld(true),
              },
            }
          : {})}
      />
    </div>
  );
}

/** How long is left to reach the band where the rule gives a time. */
function Within({ stage, entered, at }: { stage: FillStage; entered: number; at: number }) {
  const left = entered + stage.within!.minutes * 60_000 - at;
  return (
    <p className={left < 0 ? 'text-ochre' : ''} role="timer">
      {left < 0 ? (
        'The time is over: save it all the same, the way on is the pack’s.'
      ) : (
        <>
          <span className="figure text-2xl">{countdown(left)}</span> left to be down ({stage.within!.source}).
        </>
      )}
    </p>
  );
}
