'use client';
import type { Hold } from '@/core/run/state';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import { Line } from './line';
import type { PanelProps } from './shared';

const SEEN = [
  ['same', 'Unchanged'],
  ['fell', 'It fell'],
  ['rose', 'It rose'],
] as const;

/** The level at a second place: described at the start, looked at again before the end. */
export function SecondPlace({ act, hold, place }: { act: PanelProps['act']; hold: Hold; place: string }) {
  const [text, setText] = useState('');
  const [open, setOpen] = useState(false);
  const { start, end } = hold.witness;
  const when = start ? 'end' : 'start';
  const say = async (seen: 'same' | 'fell' | 'rose') => {
    const answer = await act({ kind: 'witness', when, seen, text: text.trim() });
    if (answer.accepted) {
      setText('');
      setOpen(false);
    }
  };
  return (
    <section aria-label="Second place" className="shrink-0 border-l-4 border-seam pl-3">
      <p className="flex items-center justify-between gap-3">
        <span>
          Second place, {place}:{' '}
          {end ? (
            <strong>{SEEN.find(([k]) => k === end.seen)![1].toLowerCase()} at the end</strong>
          ) : start ? (
            'marked; look again before the end'
          ) : (
            'mark its level now'
          )}
        </span>
        {!open && (
          <Button className="min-h-12 shrink-0" onClick={() => setOpen(true)}>
            {start ? 'Look at it' : 'Mark it'}
          </Button>
        )}
      </p>
      {open && (
        <div className="mt-2 grid gap-3">
          <Line
            value={text}
            onChange={setText}
            most={300}
            placeholder={start ? '' : 'trap in the wash-up room, 12 mm under the rim'}
          >
            {start ? 'In a few words' : 'Where, and where its level stands'}
          </Line>
          {start ? (
            <div className="grid grid-cols-3 gap-3">
              {SEEN.map(([key, words]) => (
                <Button key={key} className="min-h-16" onClick={() => void say(key)}>
                  {words}
                </Button>
              ))}
            </div>
          ) : (
            <Button tone="act" className="min-h-16" disabled={!text.trim()} onClick={() => void say('same')}>
              Marked
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
