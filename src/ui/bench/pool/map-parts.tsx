'use client';
import { OUTLET_WORDS, type OutletType } from '@/core/installation/parts';
import { looksNow } from '@/core/kinds/map/fold';
import { lookWords, type PoolMap } from '@/core/trades/pool/ends';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import { FIELD, Line } from '../line';
import type { PanelProps } from '../shared';

/** What is known of the lines for sure, what is missing, and what is only usual. */
export function Known({ map, name }: { map: PoolMap; name: (id: string) => string }) {
  return (
    <section aria-label="Lines">
      <h2 className="font-semibold">Known for sure</h2>
      <ul className="border-t border-seam">
        {map.lines.map((l) => (
          <li key={l.key} className="border-b border-seam py-2">
            <span className="font-semibold">{l.title}</span>
            <span className="block text-sm text-quiet">
              {l.perhaps.length
                ? `not known yet: ${l.perhaps.length > 4 ? `${l.perhaps.length} ends` : l.perhaps.map(name).join(', ')}`
                : l.ends.length > 1
                  ? `${l.ends.length} ends: ${l.ends.length - 1} closed plugs and 1 open`
                  : 'joined to nothing that is listed'}
            </span>
          </li>
        ))}
      </ul>
      {map.lost.length > 0 && (
        <p className="mt-2 border-l-4 border-ochre pl-3">
          {map.lost.map((e) => e.name).join(', ')}: joined to no connection that is listed. An end at the
          equipment is missing from the list, or the pipe is capped. Look behind the equipment before anything
          is pressed.
        </p>
      )}
      {map.custom.length > 0 && (
        <details className="mt-2">
          <summary className="min-h-12 cursor-pointer py-2 font-semibold">
            Likely by custom, not seen: {map.custom.length}
          </summary>
          <ul className="text-quiet">
            {map.custom.map((c) => (
              <li key={`${c.a}${c.b}`}>
                {name(c.b)} with {name(c.a)}: {c.why}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
/** Every look that counts, those that contradict each other first. */
export function Seen({ view, act, name, map }: PanelProps & { name: (id: string) => string; map: PoolMap }) {
  const looks = looksNow(view.plan, view.state);
  const [back, setBack] = useState('');
  const [why, setWhy] = useState('');
  const clashing = (id: string) => map.joins.clashes.findIndex((c) => c.looks.includes(id));
  const own = new Set(view.state.rooms.map.seen.map((s) => s.look.id));
  if (!looks.length) return null;
  const sorted = [...looks].sort((a, b) => Number(clashing(b.id) >= 0) - Number(clashing(a.id) >= 0));
  return (
    <section aria-label="What was seen">
      <h2 className="font-semibold">What was seen</h2>
      {map.joins.clashes.map((c, i) => (
        <p key={i} role="alert" className="my-2 border-l-4 border-rust pl-3">
          These {c.looks.length} cannot all be right. Repeat one of them, the easiest first, and take back the
          one that was wrong. What the others say still stands.
        </p>
      ))}
      <ul className="border-t border-seam">
        {sorted.map((l) => (
          <li
            key={l.id}
            className="grid gap-2 border-b border-seam py-2 sm:grid-cols-[1fr_auto] sm:items-center"
          >
            <span>
              {clashing(l.id) >= 0 && <strong>Contradicted: </strong>}
              {lookWords(l, name)}
              {!own.has(l.id) && <span className="text-quiet"> (an earlier visit)</span>}
            </span>
            {back === l.id ? (
              <form
                className="grid gap-2"
                onSubmit={(e) => {
                  e.preventDefault();
                  void act({ kind: 'look-back', look: l.id, why: why.trim() }).then((a) => {
                    if (a.accepted) {
                      setBack('');
                      setWhy('');
                    }
                  });
                }}
              >
                <Line value={why} onChange={setWhy} most={300}>
                  Why was it wrong? It is kept
                </Line>
                <Button type="submit" className="min-h-14" disabled={!why.trim()}>
                  Take it back
                </Button>
              </form>
            ) : (
              <Button className="min-h-14" onClick={() => setBack(l.id)}>
                It was wrong
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
export function FoundEnd({ act, view }: PanelProps) {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [type, setType] = useState<OutletType>('return');
  const [near, setNear] = useState('');
  if (!open)
    return (
      <Button className="min-h-14" onClick={() => setOpen(true)}>
        An outlet that is not in the list
      </Button>
    );
  const n = view.state.rooms.map.found.length + 1;
  return (
    <form
      className="grid gap-3 border-l-4 border-lake pl-3"
      onSubmit={(e) => {
        e.preventDefault();
        const end = `found-${view.plan.run.slice(-6)}-${n}`;
        void act({ kind: 'end-found', end, name: name.trim(), type, near: near.trim() }).then((a) => {
          if (a.accepted) setOpen(false);
        });
      }}
    >
      <Line value={name} onChange={setName} most={80}>
        What you call it
      </Line>
      <label>
        What it is
        <select className={FIELD} value={type} onChange={(e) => setType(e.target.value as OutletType)}>
          {Object.entries(OUTLET_WORDS).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <Line value={near} onChange={setNear} most={120}>
        Where it is
      </Line>
      <div className="grid grid-cols-2 gap-3">
        <Button className="min-h-14" onClick={() => setOpen(false)}>
          Back
        </Button>
        <Button type="submit" tone="act" className="min-h-14" disabled={!name.trim()}>
          Add it
        </Button>
      </div>
    </form>
  );
}
