'use client';
import type { ObserveStage } from '@/core/pack/types';
import { HoldButton } from '@/ui/kit/button';
import type { PanelProps } from '../shared';

/** A question that eyes answer; the answer decides what follows, so it is pressed and held. */
export function ObservePanel({ stage, act, view }: PanelProps) {
  const observe = stage as ObserveStage;
  return (
    <div className="grid content-start lg:min-h-0 lg:flex-1 gap-3 overflow-auto">
      <p className="text-xl font-semibold">{observe.question}</p>
      {view.state.fails > 0 && (
        <p className="text-quiet">Repeats made since the last mend: {view.state.repeats} of 3.</p>
      )}
      {observe.results.map((r) => (
        <HoldButton
          key={r.key}
          tone="plain"
          className="min-h-20 w-full text-lg"
          onHeld={() => void act({ kind: 'observe', result: r.key })}
        >
          {r.text}
          {r.note && <span className="block text-sm font-normal">{r.note}</span>}
        </HoldButton>
      ))}
    </div>
  );
}
