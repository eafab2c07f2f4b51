'use client';
import type { IsolateStage } from '@/core/kinds';
import { currentCycle, positionLines, stepOf } from '@/core/run/read';
import { showChange } from '@/core/quantity/exact';
import { Button } from '@/ui/kit/button';
import { ValveFigure } from '@/ui/kit/look-figure';
import type { PanelProps } from '../shared';
import { FillPanel } from './fill';
import { HoldPanel } from './hold';

/** Isolates, raises, settles and holds again: for the pipework alone, or for one appliance after the other. */
export function IsolatePanel(props: PanelProps) {
  const { view, visit, act } = props;
  const stage = props.stage as IsolateStage;
  const cycle = currentCycle(visit)!;
  const step = stepOf(view.state);
  const done = visit.cycles.filter((c) => c.hold?.judgement);
  return (
    <div className="flex flex-1 flex-col lg:min-h-0 gap-3">
      <p>
        Now: <strong>{cycle.name}</strong>
        {done.length > 0 && (
          <span className="text-quiet">
            {' '}
            · so far {done.map((c) => `${c.name} ${showChange(c.hold!.judgement!.change)}`).join(', ')}
          </span>
        )}
      </p>
      {step === 'positions' ? (
        <ul className="lg:min-h-0 lg:flex-1 lg:overflow-auto border-t border-seam">
          {positionLines(view.plan, stage, cycle).map((l) => {
            const said = visit.answers[l.id]?.answer === 'done';
            const [item, subject] = l.id.split('/') as [string, string];
            return (
              <li
                key={l.id}
                className="grid items-center gap-3 border-b border-seam py-2 sm:grid-cols-[1fr_auto]"
              >
                <span className="flex items-center gap-3">
                  <ValveFigure position={l.position} />
                  <span>
                    <strong>{l.name}: </strong>
                    {l.text}
                  </span>
                </span>
                <Button
                  className="min-h-16 min-w-[13rem]"
                  tone={said ? 'act' : 'plain'}
                  aria-pressed={said}
                  aria-label={`${l.name}: ${l.text}`}
                  onClick={() => void act({ kind: 'check', item, subject, answer: 'done' })}
                >
                  {said ? 'Done' : 'Tap when done'}
                </Button>
              </li>
            );
          })}
        </ul>
      ) : step === 'fill' ? (
        <FillPanel {...props} />
      ) : (
        <HoldPanel {...props} />
      )}
    </div>
  );
}
