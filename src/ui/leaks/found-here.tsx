'use client';
import { networkOf } from '@/core/network/enter';
import type { Plan } from '@/core/plan/plan';
import { now } from '@/device/clock';
import { enterLeak } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';
import { FoundForm } from './found-form';

/** On the bench: what was found goes into the leak book of the place, with or without a signal. */
export function FoundHere({ plan, joint = '' }: { plan: Plan; joint?: string }) {
  const [open, setOpen] = useState(false);
  const [part, setPart] = useState('');
  const [done, setDone] = useState('');
  // what is practised leaves nothing in a book, and own kit has none
  if (plan.practice || plan.procedure.ofKit) return null;
  if (!open)
    return (
      <div className="flex flex-wrap items-center gap-3">
        <Button className="min-h-14" onClick={() => setOpen(true)}>
          Found it: into the leak book
        </Button>
        <span role="status">{done}</span>
      </div>
    );
  return (
    <FoundForm
      system={plan.system.id}
      network={networkOf(plan.system)}
      part={part}
      onPart={setPart}
      photos={null}
      begin={{ run: plan.run, joint }}
      say={async (body) => {
        const id = uuid7(now());
        try {
          const how = await enterLeak(
            plan.system.id,
            { id, leak: id, body },
            body.kind === 'found' ? body.joint : '',
          );
          setDone(
            how === 'kept' ? 'It waits on this device and is sent by itself.' : 'It stands in the book.',
          );
          return null;
        } catch (error) {
          return (error as OfficeError).message;
        }
      }}
      onDone={() => setOpen(false)}
    />
  );
}
