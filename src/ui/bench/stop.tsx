'use client';
import { useState } from 'react';
import type { Payload } from '@/core/run/events';
import { Button } from '@/ui/kit/button';

type Reason = Extract<Payload, { kind: 'stop-reason' }>['reason'];
const REASONS: [Reason, string][] = [
  ['smell', 'Smell of gas'],
  ['voltage', 'Voltage on the pipework'],
  ['movement', 'Hose, plug or fitting moved'],
  ['mistake', 'A mistake in the procedure'],
  ['abandoned', 'The test is given up'],
];
/** After STOP has acted: why, and for a smell the steps that come first. */
export function StopReason({
  act,
  emergency,
  caution,
}: {
  act: (p: Payload) => Promise<unknown>;
  emergency: string;
  caution: string;
}) {
  const [text, setText] = useState('');
  return (
    <section className="grid gap-3" aria-labelledby="stopped">
      <h2 id="stopped" className="text-2xl font-bold text-rust">
        Stopped
      </h2>
      <p className="border-l-4 border-rust pl-3">
        {caution} Emergency line noted on the meter: <span className="figure">{emergency}</span>.
      </p>
      <p className="text-lg">Why was it stopped?</p>
      <div className="grid gap-3 sm:grid-cols-2">
        {REASONS.map(([key, words]) => (
          <Button
            key={key}
            className="min-h-16 text-lg"
            onClick={() => void act({ kind: 'stop-reason', reason: key, text })}
          >
            {words}
          </Button>
        ))}
      </div>
      <label>
        Words to go with it, if there is time: type them before choosing
        <input
          className="mt-1 min-h-14 w-full border border-edge bg-panel px-3"
          value={text}
          onChange={(e) => setText(e.target.value)}
          maxLength={500}
        />
      </label>
    </section>
  );
}
