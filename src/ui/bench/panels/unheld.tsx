'use client';
import { useState } from 'react';
import type { Gauge } from '@/core/instrument/gauge';
import type { Stage } from '@/core/kinds';
import { explainedFor } from '@/core/run/unheld';
import { unheldWays } from '@/core/run/unheld';
import type { UnheldWay } from '@/core/run/events';
import { runningHold } from '@/core/run/read';
import type { Hold } from '@/core/run/state';
import { Button } from '@/ui/kit/button';
import { Why } from '@/ui/kit/why';
import { countdown } from '@/ui/kit/words';
import { Keypad } from '../keypad';
import type { PanelProps } from '../shared';

const SAYS: Record<UnheldWay, { button: string; save: string; hint: string }> = {
  falls: {
    button: 'Source closed: it falls, or cannot be reached',
    save: 'It will not stand: go on with that',
    hint: 'Own kit comes first, then the result. It is a finding, not a delay.',
  },
  rises: {
    button: 'It keeps rising',
    save: 'It keeps rising: look for the cause',
    hint: 'A source, a valve or warmth feeds it: source and boundaries are proved next.',
  },
  low: {
    button: 'Source OPEN: it stays low',
    save: 'It stays low: the supply must be looked at',
    hint: 'Steady below the band with the source open is the supply’s matter.',
  },
};

/** The same of a vacuum: what will not come down, or came back up. */
const VACUUM: Record<'pumping' | 'standing', { button: string; save: string; hint: string }> = {
  pumping: {
    button: 'It will not come down',
    save: 'It stays above: pump and hoses alone',
    hint: 'Pump and hoses are tried by themselves first: then it is known whether the circuit keeps it up.',
  },
  standing: {
    button: 'It came up again',
    save: 'It came up: go on with that',
    hint: 'Own hoses come first, then the circuit.',
  },
};
const saysOf = (stage: Stage, way: UnheldWay) =>
  stage.kind === 'fill' && stage.evacuates
    ? VACUUM.pumping
    : stage.kind === 'hold' && stage.vacuum
      ? VACUUM.standing
      : SAYS[way];

/** How long warmth or stretch may still explain a fall in this period, ms; 0 when it no longer can. */
export const explainedLeft = (props: Pick<PanelProps, 'view' | 'stage'>, hold: Hold, at: number): number =>
  Math.max(0, hold.startedAt + explainedFor(props.view.plan, props.stage).minutes * 60_000 - at);

/** A pressure that will not stand: which way, what the gauge shows, and what follows. Waiting on stays possible. */
export function WillNotStand({
  gauge,
  onBack,
  ...props
}: PanelProps & { readonly gauge: Gauge; readonly onBack: () => void }) {
  const { view, stage, act, at } = props;
  const { plan, state } = view;
  const ways = unheldWays(state, stage);
  const [way, setWay] = useState<UnheldWay | null>(ways.length === 1 ? ways[0]! : null);
  const hold = runningHold(state);
  const explained = explainedFor(plan, stage);
  const left = hold ? explainedLeft(props, hold, at) : 0;
  return (
    <div className="flex flex-[1_0_auto] flex-col gap-2">
      {hold?.role === 'settle' && (
        <p className={left > 0 ? 'border-l-4 border-ochre pl-3' : 'border-l-4 border-rust pl-3'}>
          <Why
            guide="explained"
            facts={{
              title: 'How long warmth or stretch could explain it',
              source: explained.source,
              text: 'Ended before it, a fall answers nothing (Inconclusive). After it, it is a leak: own kit, repeats, then Not tight.',
            }}
          >
            <span>
              {left > 0 ? (
                <>
                  Warmth or stretch can explain a fall for <span className="figure">{countdown(left)}</span>{' '}
                  more: waiting on is the surest way.
                </>
              ) : (
                <>
                  {explained.minutes > 0 ? (
                    <>
                      Warmth or stretch no longer explain a fall (
                      <span className="figure">{explained.minutes} min</span> at most).
                    </>
                  ) : (
                    'Nothing but a leak explains that it will not stand here.'
                  )}
                </>
              )}
            </span>
          </Why>
        </p>
      )}
      {way === null ? (
        <>
          <p className="text-lg font-semibold">What does it do?</p>
          {ways.map((w) => (
            <Button key={w} className="min-h-20 text-lg" onClick={() => setWay(w)}>
              {saysOf(stage, w).button}
              <span className="block text-sm font-normal">{saysOf(stage, w).hint}</span>
            </Button>
          ))}
          <Button className="min-h-14" onClick={onBack}>
            Wait on
          </Button>
        </>
      ) : (
        <Keypad
          gauge={gauge}
          label="Read the gauge now"
          save={saysOf(stage, way).save}
          live={view.live}
          previous={null}
          onCancel={onBack}
          extra={<p className="text-sm">{saysOf(stage, way).hint}</p>}
          onSave={async (entered) => {
            const answer = await act({ kind: 'unheld', way, ...entered });
            return answer.accepted ? null : answer.text;
          }}
        />
      )}
    </div>
  );
}
