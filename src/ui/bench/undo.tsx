'use client';
import { undoable } from '@/core/run/undo';
import type { BenchView } from '@/device/bench';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import type { PanelProps } from './shared';
import { useNow } from './use-bench';

/** What is opened to be typed into has the cursor. */
const focus = (field: HTMLInputElement | null): void => field?.focus();
type Step = NonNullable<ReturnType<typeof lastStep>>;
/** The step just made on this device, for as long as it can be taken back; null otherwise. */
export const lastStep = (view: BenchView, id: string | null, at: number) => {
  if (!id || view.sealed) return null;
  const found = undoable(view.state, id, at);
  if (!found) return null;
  const steps = view.state.back.slice(view.state.back.findIndex((b) => b.id === id));
  const more = steps.length - 1;
  return { ...found, id, words: `${steps[0]!.words}${more ? `, and ${more} more` : ''}` };
};

/** What was just pressed, with the way back: in the header, on a phone over the line below it, so that nothing moves. */
export function Undo({
  wide,
  view,
  id,
  act,
  onOver,
}: {
  wide: boolean;
  view: BenchView;
  /** The first entry of the last press. */
  id: string | null;
  act: PanelProps['act'];
  onOver: () => void;
}) {
  const at = useNow(false);
  // a reason that is being typed keeps the way back open
  const [why, setWhy] = useState<{ readonly of: Step; readonly text: string } | null>(null);
  const step = why?.of.id === id ? why.of : lastStep(view, id, at);
  if (!step) return null;
  const back = (reason?: string) =>
    void act({ kind: 'undo', of: step.id, ...(reason ? { reason } : {}) }).then((a) => {
      setWhy(null);
      if (a.accepted) onOver();
    });
  return (
    <div
      className={wide ? 'min-w-0' : 'absolute inset-x-0 top-0 z-20 border-b border-edge bg-panel px-3 py-0.5'}
      data-undo
    >
      <div className="flex items-center gap-3">
        <p className="line-clamp-2 min-w-0 flex-1 text-sm lg:max-w-64" role="status">
          {step.words}
        </p>
        <Button
          className="min-h-12 shrink-0 lg:min-h-10"
          aria-expanded={step.sign ? why !== null : undefined}
          onClick={() => (step.sign ? setWhy(why ? null : { of: step, text: '' }) : back())}
        >
          Take back
          {!why && (
            <span className="figure-narrow ml-2 text-quiet">
              {Math.max(0, Math.ceil((step.until - at) / 1000))} s
            </span>
          )}
        </Button>
      </div>
      {why && (
        <form
          className={`flex items-end gap-3 py-2 ${wide ? 'absolute top-full right-0 z-20 w-[34rem] border border-edge bg-panel px-3' : ''}`}
          onSubmit={(e) => {
            e.preventDefault();
            back(why.text.trim());
          }}
        >
          <label className="min-w-0 flex-1 text-sm">
            Why it is taken back. It is printed
            <input
              ref={focus}
              className="mt-1 min-h-14 w-full border border-edge bg-ground px-3 text-lg"
              value={why.text}
              maxLength={500}
              onChange={(e) => setWhy({ ...why, text: e.target.value })}
            />
          </label>
          <Button type="submit" tone="act" className="min-h-14" disabled={!why.text.trim()}>
            Take it back
          </Button>
        </form>
      )}
    </div>
  );
}
