'use client';
import type { Offer } from '@/core/plan/offer';
import { HIDDEN } from '@/core/simulation/simulation';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';

/** Practice beside the test for real: what is wrong with the simulated installation is drawn, or chosen to look at. */
export function Practise({
  procedure,
  busy,
  onStart,
}: {
  procedure: Offer;
  busy: boolean;
  onStart: (fault: string) => void;
}) {
  const [chosen, setFault] = useState('surprise');
  // what needs a valve inside is for the Yard, where the drawing is known
  const faults = Object.entries(HIDDEN[procedure.simulates]).filter(
    ([key]) => procedure.simulates !== 'liquid' || key !== 'closed',
  );
  // what was chosen for another test is no fault of this one
  const fault = chosen in HIDDEN[procedure.simulates] ? chosen : 'surprise';
  return (
    <fieldset className="mt-4 border-t border-seam pt-3">
      <legend className="sr-only">Practice</legend>
      <p className="text-sm">
        Or practise: a simulated installation and gauge, worked by hand. Seals as a practice record only.
      </p>
      {faults.length > 0 && (
        <label className="mt-2 block text-sm">
          Hidden fault
          <select
            className="mt-1 block min-h-11 w-full border border-edge bg-panel px-2"
            value={fault}
            onChange={(e) => setFault(e.target.value)}
          >
            <option value="surprise">Surprise me</option>
            {faults.map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </label>
      )}
      <Button className="mt-2 w-full" disabled={busy} onClick={() => onStart(fault)}>
        Practise on the simulated installation
      </Button>
    </fieldset>
  );
}
