'use client';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { PopProps } from './pop';

/** Button and card from the moment the card was first asked for. */
export default function PopCard({ trigger, className, cardClass, side, onOpen, children }: PopProps) {
  const [open, setOpen] = useState(true);
  return (
    <Popover.Root
      open={open}
      onOpenChange={(to) => {
        if (to) onOpen?.();
        setOpen(to);
      }}
    >
      <Popover.Trigger className={className}>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          {...(side ? { side } : {})}
          sideOffset={side ? 0 : 6}
          collisionPadding={10}
          className={`z-50 border border-ink bg-panel text-ink ${cardClass}`}
        >
          {children(() => setOpen(false))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
