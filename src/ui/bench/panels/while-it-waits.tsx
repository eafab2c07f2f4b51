'use client';
import { type Meanwhile, meanwhile } from '@/core/run/meanwhile';
import { openJoints } from '@/core/run/read';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import type { PanelProps } from '../shared';
import type { Side } from '../side-entry';

const SIDE: Readonly<Record<Meanwhile['what'], Side>> = {
  joints: 'joints',
  plates: 'inventory',
  photo: 'photo',
};
const OPEN: Readonly<Record<Meanwhile['what'], string>> = {
  joints: 'All joints',
  plates: 'Write them down',
  photo: 'Photograph',
};

/** What can be done while the hold runs: a line each, a joint without a bubble ticked where it stands. */
export function WhileItWaits({
  view,
  visit,
  stage,
  act,
  onSide,
}: Pick<PanelProps, 'view' | 'visit' | 'stage' | 'act'> & { onSide: (side: Side) => void }) {
  const [trouble, setTrouble] = useState('');
  const list = meanwhile(view.plan, view.state, visit, stage.part ?? null);
  const left = list.reduce((n, m) => n + m.left.length, 0);
  const joints = openJoints(view.state);
  return (
    <details className="group border-t border-seam" data-while>
      <summary className="flex min-h-11 cursor-pointer items-center justify-between gap-3 text-sm">
        <span className="text-lake underline">While it waits</span>
        <span className="text-quiet">{left ? `${left} to do` : 'all done'}</span>
      </summary>
      <ul className="grid max-h-64 gap-1 overflow-y-auto pb-2">
        {list.map((m) => (
          <li key={m.what} className="grid gap-1 border-t border-seam pt-1">
            <span className="flex flex-wrap items-center justify-between gap-x-3">
              <span>
                {m.words}{' '}
                <span className="text-sm text-quiet">
                  {m.of ? (
                    <>
                      <span className="figure-narrow">{m.done}</span> of{' '}
                      <span className="figure-narrow">{m.of}</span>
                    </>
                  ) : (
                    'none named yet'
                  )}
                </span>
              </span>
              <Button className="min-h-11" onClick={() => onSide(SIDE[m.what])}>
                {OPEN[m.what]}
              </Button>
            </span>
            {m.what === 'joints' &&
              joints.map((j) => (
                <span key={j.id} className="flex items-center justify-between gap-3 pl-3">
                  <span className="text-sm">{[j.name, j.place].filter(Boolean).join(', ')}</span>
                  <Button
                    className="min-h-11"
                    aria-label={`${j.name}: no bubble`}
                    onClick={() =>
                      void act({ kind: 'joint-look', joint: j.id, found: 'none' }).then((a) =>
                        setTrouble(a.accepted ? '' : a.text),
                      )
                    }
                  >
                    No bubble
                  </Button>
                </span>
              ))}
            {m.what === 'plates' && m.left.length > 0 && (
              <span className="pl-3 text-sm text-quiet">{m.left.join(', ')}</span>
            )}
          </li>
        ))}
      </ul>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </details>
  );
}
