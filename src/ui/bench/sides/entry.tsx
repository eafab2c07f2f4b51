'use client';
import { parseReading } from '@/core/instrument/gauge';
import type { Exact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { gaugeOf } from '@/core/run/read';
import { Button } from '@/ui/kit/button';
import { useTextDraft } from '@/ui/kit/use-draft';
import { useState } from 'react';
import { Line } from '../line';
import type { PanelProps } from '../shared';

export type Side =
  | 'reading'
  | 'top-up'
  | 'disturbance'
  | 'note'
  | 'more'
  | 'late'
  | 'correct'
  | 'temperature'
  | 'skip'
  | 'gauge'
  | 'barometer'
  | 'joints'
  | 'observation'
  | 'inventory'
  | 'kit'
  | 'photo'
  | 'plug'
  | 'look'
  | 'search'
  | 'extend';
export type SideProps = PanelProps & {
  readonly side: Side;
  readonly onDone: () => void;
  readonly onSide?: (side: Side) => void;
};

/** What every entry has: words kept while they are typed, what was refused, the way to send. */
export function useEntry({ view, side, act, onDone }: SideProps) {
  const gauge = gaugeOf(view.plan, view.state);
  const [trouble, setTrouble] = useState('');
  const [text, setText, textTaken] = useTextDraft(`run/${view.plan.run}/${side}`);
  const go = async (payload: Parameters<typeof act>[0]) => {
    const answer = await act(payload);
    if (answer.accepted) {
      textTaken();
      onDone();
    } else setTrouble(answer.text);
    return answer;
  };
  /** Makes the payload of a figure that was typed, and sends it; what is wrong with the figure is said. */
  const goFigure = (read: () => Parameters<typeof act>[0]) => {
    try {
      void go(read());
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  const figureOf = (typed: string): Exact => parseReading(typed, gauge!);
  return {
    gauge,
    unit: gauge ? unitLabel(gauge.resolution.unit) : '',
    text,
    setText,
    trouble,
    go,
    goFigure,
    figureOf,
  };
}
export const Back = ({ onDone }: { onDone: () => void }) => (
  <Button className="min-h-14" onClick={onDone}>
    Back
  </Button>
);
export const Wrong = ({ trouble }: { trouble: string }) => (
  <p role="alert" className="min-h-6 text-rust">
    {trouble}
  </p>
);
/** What went wrong, the way back, and the one thing to do. */
export function Ends({
  trouble,
  onDone,
  word,
  onClick,
  disabled = false,
}: {
  trouble: string;
  onDone: () => void;
  word: string;
  onClick: () => void;
  disabled?: boolean;
}) {
  return (
    <>
      <Wrong trouble={trouble} />
      <div className="grid grid-cols-2 gap-3">
        <Back onDone={onDone} />
        <Button tone="act" className="min-h-16" disabled={disabled} onClick={onClick}>
          {word}
        </Button>
      </div>
    </>
  );
}
export function FewWords({ text, setText }: { text: string; setText: (text: string) => void }) {
  return (
    <Line value={text} onChange={setText} most={500}>
      In a few words
    </Line>
  );
}
