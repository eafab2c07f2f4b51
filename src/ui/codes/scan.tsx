'use client';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { type ComponentProps, Suspense, useState } from 'react';
import type { Looking as LookingView } from './looking';

// the camera and its reader come when they are asked for; the button stands at once, so that nothing moves
const Looking = byNeed(() => import('./looking').then((m) => m.Looking));

/** A button behind which the camera reads a code. */
export function Scan({
  label = 'Scan a code',
  open: atOnce = false,
  onCode,
}: {
  label?: string;
  /** The camera looks at once. */
  open?: boolean;
} & Pick<ComponentProps<typeof LookingView>, 'onCode'>) {
  const [open, setOpen] = useState(atOnce);
  if (!open)
    return (
      <Button className="min-h-14" onClick={() => setOpen(true)}>
        {label}
      </Button>
    );
  return (
    <Suspense fallback={<p className="min-h-14">Opening the camera …</p>}>
      <Looking label={label} onCode={onCode} onBack={atOnce ? undefined : () => setOpen(false)} />
    </Suspense>
  );
}
