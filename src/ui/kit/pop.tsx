'use client';
import { lazy, type ReactNode, Suspense, useState } from 'react';

export interface PopProps {
  /** What stands on the button. */
  readonly trigger: ReactNode;
  readonly className?: string;
  readonly cardClass: string;
  readonly side?: 'top' | 'right' | 'bottom';
  readonly onOpen?: () => void;
  /** The card; it may close itself. */
  readonly children: (close: () => void) => ReactNode;
}
const load = () => import('./pop-card').catch(() => ({ default: PlainCard }));
const Card = lazy(load);
/** Fetches what opens cards ahead of its first use, so that they open without a signal too. */
export const preparePop = (): Promise<unknown> => load();

/** A button that opens a card beside it. What places the card is fetched when one is first asked for: no page waits for it. */
export function Pop(props: PopProps) {
  const [asked, setAsked] = useState(false);
  const closed = (
    <button
      type="button"
      className={props.className}
      aria-haspopup="dialog"
      aria-expanded={false}
      onClick={() => {
        props.onOpen?.();
        setAsked(true);
      }}
    >
      {props.trigger}
    </button>
  );
  if (!asked) return closed;
  return (
    <Suspense fallback={closed}>
      <Card {...props} />
    </Suspense>
  );
}

/** The card where its own code could not be had (no signal, never loaded): at the foot of the screen, and all there. */
function PlainCard({ trigger, className, cardClass, onOpen, children }: PopProps) {
  const [open, setOpen] = useState(true);
  return (
    <>
      <button
        type="button"
        className={className}
        aria-expanded={open}
        onClick={() => {
          if (!open) onOpen?.();
          setOpen(!open);
        }}
      >
        {trigger}
      </button>
      {open && (
        <div
          role="dialog"
          className={`fixed bottom-20 left-2 z-50 border border-ink bg-panel text-ink ${cardClass}`}
        >
          {children(() => setOpen(false))}
        </div>
      )}
    </>
  );
}
