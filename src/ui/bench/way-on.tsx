'use client';
import { Button } from '@/ui/kit/button';
import type { PanelProps } from './shared';

/** The way on of a list: shut, with what is still owed, until the list is done. */
export function WayOn({ open, act, children }: { open: boolean; act: PanelProps['act']; children: string }) {
  return (
    <Button
      tone="act"
      data-primary
      className="min-h-20 w-full shrink-0 text-xl max-lg:sticky max-lg:bottom-0"
      disabled={!open}
      onClick={() => void act({ kind: 'proceed' })}
    >
      {children}
    </Button>
  );
}
