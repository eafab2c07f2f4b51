'use client';
import { useState } from 'react';
import { entryWords } from '@/core/record/story';
import { inZone } from '@/core/quantity/in-zone';
import type { BenchView } from '@/device/bench';
import { Button } from '@/ui/kit/button';

/** Entries that the office will not have: each with its reason, to be read and copied, so that nothing typed is lost. */
export function SetAsideLine({ view }: { view: BenchView }) {
  const [open, setOpen] = useState(false);
  const [copied, setCopied] = useState('');
  const { refused, plan, state } = view;
  const lines = refused.map(
    ({ event, reason }) =>
      `${inZone(event.at, event.zone)}, ${event.byName}: ${entryWords(plan, state, event)} (not taken: ${reason})`,
  );
  const text = `${plan.site.name}, ${plan.procedure.title}, run ${plan.run}\n${lines.join('\n')}\n`;
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setCopied('Copied.');
    } catch {
      setCopied('This browser does not copy: mark the text above and copy it.');
    }
  };
  return (
    <div role="alert" className="border-b border-seam bg-panel px-4 py-2">
      <p className="flex flex-wrap items-center gap-3 text-rust">
        {refused.length === 1 ? 'One entry was' : `${refused.length} entries were`} not taken by the office.
        {refused.length === 1 ? ' It stays' : ' They stay'} on this device.
        <Button className="min-h-12" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Hide' : 'Show and copy'}
        </Button>
      </p>
      {open && (
        <>
          <ul className="mt-2 max-h-60 overflow-auto text-sm select-text">
            {lines.map((line, i) => (
              <li key={refused[i]!.event.id} className="border-t border-seam py-1.5">
                {line}
              </li>
            ))}
          </ul>
          <p className="mt-2 flex flex-wrap items-center gap-3">
            <Button className="min-h-12" onClick={() => void copy()}>
              Copy
            </Button>
            <span aria-live="polite">{copied}</span>
          </p>
        </>
      )}
    </div>
  );
}
