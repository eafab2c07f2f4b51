'use client';
import { Button } from '@/ui/kit/button';
import { Plus, Trash2 } from 'lucide-react';

export type ErrorOf = { message?: string } | undefined;
/** One line of a list on a form. */
export const ROW = 'grid gap-3 border border-seam bg-panel p-3';

export function Remove({ what, onClick }: { what: string; onClick: () => void }) {
  return (
    <Button className="min-h-12 self-end" aria-label={`Remove ${what}`} onClick={onClick}>
      <Trash2 size={18} aria-hidden /> Remove
    </Button>
  );
}
export function Add({ children, onClick }: { children: string; onClick: () => void }) {
  return (
    <Button className="justify-self-start" onClick={onClick}>
      <Plus size={18} aria-hidden /> {children}
    </Button>
  );
}
