'use client';
import type { ObserveStage } from '@/core/kinds';
import { Button, HoldButton } from '@/ui/kit/button';
import { useState } from 'react';
import { HiddenBehind } from '@/ui/analysis/hidden-behind';
import { LeftIn } from '../left-in';
import { Line } from '../line';
import { QuickPhoto } from '../quick-photo';
import type { PanelProps } from '../shared';

/** A question that eyes answer; the answer decides what follows, so it is pressed and held. */
export function ObservePanel(props: PanelProps) {
  const { stage, act, view } = props;
  const observe = stage as ObserveStage;
  const [asking, setAsking] = useState<string | null>(null);
  const [why, setWhy] = useState('');
  const [trouble, setTrouble] = useState('');
  return (
    <div className="grid shrink-0 content-start gap-3 lg:min-h-0 lg:flex-1 lg:shrink lg:overflow-auto">
      <p className="text-xl font-semibold">{observe.question}</p>
      {observe.shows === 'left-in' && <LeftIn plan={view.plan} />}
      {observe.shows === 'hidden' && <HiddenBehind view={view} />}
      {observe.photo && <QuickPhoto {...props} asks={observe.photo} />}
      {view.state.fails > 0 && (
        <p className="text-quiet">Repeats made since the last mend: {view.state.repeats} of 3.</p>
      )}
      {observe.results.map((r) => (
        <HoldButton
          key={r.key}
          tone="plain"
          className="min-h-20 w-full text-lg"
          onHeld={() =>
            (r.reasonBefore ?? 0) > view.state.repeats
              ? setAsking(r.key)
              : void act({ kind: 'observe', result: r.key })
          }
        >
          {r.text}
          {r.note && <span className="block text-sm font-normal">{r.note}</span>}
        </HoldButton>
      ))}
      {asking && (
        <form
          className="grid gap-3 border-l-4 border-ochre pl-3"
          onSubmit={(e) => {
            e.preventDefault();
            void act({ kind: 'observe', result: asking, text: why.trim() }).then((a) =>
              setTrouble(a.accepted ? '' : a.text),
            );
          }}
        >
          <Line value={why} onChange={setWhy} most={500}>
            The rule asks for repeats first. Why does the result stand now? It is printed
          </Line>
          <p role="alert" className="min-h-6 text-rust">
            {trouble}
          </p>
          <div className="grid grid-cols-2 gap-3">
            <Button className="min-h-16" onClick={() => setAsking(null)}>
              Back
            </Button>
            <Button type="submit" tone="act" className="min-h-16" disabled={!why.trim()}>
              The result stands
            </Button>
          </div>
        </form>
      )}
    </div>
  );
}
