'use client';
import { useState } from 'react';
import type { Gauge } from '@/core/instrument/gauge';
import type { Exact } from '@/core/quantity/exact';
import type { Hold } from '@/core/run/state';
import { Button } from '@/ui/kit/button';
import { minutesWords } from '@/ui/kit/words';
import { holdAhead } from '@/core/run/follow-on';
import { type Entered, Keypad } from '../keypad';
import type { Side } from '../side-entry';
import type { PanelProps } from '../shared';
import { AheadWords, beginWith, startWords } from './ahead';

/** Ends the hold, and begins the one it leads into with the same reading. @returns what was wrong, or null */
export async function endHold(props: PanelProps, entered: Entered, short = ''): Promise<string | null> {
  const { plan, state } = props.view;
  const answer = await props.act(
    { kind: 'hold-end', ...entered, ...(short ? { short } : {}) },
    beginWith(plan, entered, holdAhead(plan, state)),
  );
  return answer.accepted ? null : answer.text;
}

/** The end reading; before the planned minutes only with a reason that prints. */
export function HoldEnd(
  props: PanelProps & {
    readonly gauge: Gauge;
    readonly hold: Hold;
    readonly shown: Exact;
    readonly over: boolean;
    readonly onBack: () => void;
    readonly onSide: (side: Side) => void;
  },
) {
  const { view, gauge, hold, shown, over, onBack, onSide } = props;
  const ahead = holdAhead(view.plan, view.state);
  const [why, setWhy] = useState('');
  // a leak rate may be read early where the fall alone decides the worst class; the rule says whether it does
  const early = !over && hold.role !== 'leak-rate';
  return (
    <div className="flex flex-[1_0_auto] flex-col">
      <Keypad
        gauge={gauge}
        label={over ? 'Time is up. Read the gauge now' : 'Read the gauge now'}
        save={
          hold.role !== 'settle'
            ? 'This is the end reading'
            : ahead
              ? `Settled: ${startWords(ahead).toLowerCase()}`
              : 'Settled: go on'
        }
        previous={shown}
        sameHeld={hold.role !== 'settle'}
        live={view.live}
        onCancel={onBack}
        onSave={async (entered) => {
          const wrong = await endHold(props, entered, early ? why.trim() : '');
          if (!wrong) onBack();
          return wrong;
        }}
        extra={
          <>
            <AheadWords
              plan={view.plan}
              state={view.state}
              gauge={gauge}
              part={props.stage.part}
              start={shown}
              ahead={ahead}
              brief
            />
            {early && (
              <label className="block">
                Before the planned {minutesWords(hold.minutes)}: a word why, if you like. It is printed
                <input
                  className="mt-1 min-h-14 w-full border border-edge bg-panel px-3 text-lg"
                  value={why}
                  onChange={(e) => setWhy(e.target.value)}
                  maxLength={500}
                />
                <span className="text-sm text-quiet">
                  The rule’s own {minutesWords(hold.rule)} are kept. What this hold could not have seen is
                  printed beside the result.
                </span>
              </label>
            )}
            {hold.role === 'settle' && (
              <Button className="min-h-14" onClick={() => onSide('top-up')}>
                Outside the band: re-adjust
              </Button>
            )}
          </>
        }
      />
    </div>
  );
}
