'use client';
import { HEARD } from '@/core/kinds/knock/entries';
import { Button } from '@/ui/kit/button';
import type { PanelProps } from '../shared';

export function KnockPanel({ stage, act }: PanelProps) {
  if (stage.kind !== 'knock') return null;
  return (
    <div className="grid gap-3">
      <p>Rap {stage.times} times. What do you hear?</p>
      {HEARD.map((heard) => (
        <Button key={heard} className="min-h-16" onClick={() => void act({ kind: 'knock', heard })}>
          {heard}
        </Button>
      ))}
    </div>
  );
}
