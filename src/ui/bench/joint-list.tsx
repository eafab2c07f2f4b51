'use client';
import { BUBBLE_SIZES } from '@/core/kinds/joints/entries';
import { now } from '@/device/clock';
import { Button, HoldButton } from '@/ui/kit/button';
import { clockTime } from '@/ui/kit/words';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';
import { FIELD, Line } from './line';
import type { PanelProps } from './shared';

const FOUND = {
  none: 'no bubble',
  foam: 'fine foam: wipe and look again',
  growing: 'bubbles that grow',
} as const;

/** Joints disturbed today and what leak fluid showed on each. Usable during a hold, when there is time for it. */
export function JointList({ view, act }: Pick<PanelProps, 'view' | 'act'>) {
  const { plan, state } = view;
  const [name, setName] = useState('');
  const [whose, setWhose] = useState<'' | 'own' | 'boundary'>('');
  const [growing, setGrowing] = useState<string | null>(null);
  const [trouble, setTrouble] = useState('');
  const send = async (payload: Parameters<typeof act>[0]) => {
    const answer = await act(payload);
    setTrouble(answer.accepted ? '' : answer.text);
    return answer.accepted;
  };
  const known = (plan.system.joints ?? []).filter((j) => !state.joints.some((s) => s.id === j.id));
  return (
    <div className="grid gap-3">
      <ul aria-label="Joints touched today">
        {state.joints.map((j) => {
          const last = j.looks[j.looks.length - 1];
          return (
            <li key={j.id} className="grid gap-2 border-t border-seam py-2 sm:grid-cols-[1fr_auto]">
              <span>
                <strong>{j.name}</strong>
                {j.place && <span className="text-quiet">, {j.place}</span>}
                <span
                  className={`block ${last?.found === 'none' ? 'text-moss' : last ? 'text-rust' : 'text-quiet'}`}
                >
                  {last
                    ? `${FOUND[last.found]}${last.size ? `, ${last.size}` : ''}, ${clockTime(last.at, plan.made.zone)}`
                    : 'not looked at yet'}
                </span>
              </span>
              {growing === j.id ? (
                <span
                  className="grid grid-cols-3 gap-3"
                  role="group"
                  aria-label={`${j.name}: how large do they grow?`}
                >
                  {BUBBLE_SIZES.map((size) => (
                    <HoldButton
                      key={size}
                      className="min-h-16"
                      onHeld={() =>
                        void send({ kind: 'joint-look', joint: j.id, found: 'growing', size }).then(() =>
                          setGrowing(null),
                        )
                      }
                    >
                      {size}
                    </HoldButton>
                  ))}
                </span>
              ) : (
                <span
                  className="grid grid-cols-3 gap-3"
                  role="group"
                  aria-label={`${j.name}: leak fluid shows`}
                >
                  <Button
                    className="min-h-16"
                    tone={last?.found === 'none' ? 'act' : 'plain'}
                    onClick={() => void send({ kind: 'joint-look', joint: j.id, found: 'none' })}
                  >
                    No bubble
                  </Button>
                  <Button
                    className="min-h-16"
                    onClick={() => void send({ kind: 'joint-look', joint: j.id, found: 'foam' })}
                  >
                    Fine foam
                  </Button>
                  <Button className="min-h-16" onClick={() => setGrowing(j.id)}>
                    They grow
                  </Button>
                </span>
              )}
            </li>
          );
        })}
      </ul>
      {known.length > 0 && (
        <div>
          <p className="text-sm text-quiet">From the system page</p>
          <div className="mt-1 flex flex-wrap gap-3">
            {known.map((j) => (
              <Button
                key={j.id}
                className="min-h-14"
                onClick={() => void send({ kind: 'joint', joint: j.id, name: j.name, place: j.place })}
              >
                {[j.name, j.place].filter(Boolean).join(', ')}
              </Button>
            ))}
          </div>
        </div>
      )}
      <form
        className="grid grid-cols-[1fr_auto] items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim())
            void send({
              kind: 'joint',
              joint: uuid7(now()),
              name: name.trim(),
              place: '',
              ...(whose ? { whose } : {}),
            }).then((ok) => ok && setName(''));
        }}
      >
        <Line value={name} onChange={setName} most={120} placeholder="union behind the kiln">
          Another joint touched today
        </Line>
        <label className="col-span-2">
          Whose is it? Bubbles on your own kit or on a boundary accuse no pipe
          <select className={FIELD} value={whose} onChange={(e) => setWhose(e.target.value as 'own')}>
            <option value="">the installation’s</option>
            <option value="own">my own hose, adaptor or gauge</option>
            <option value="boundary">a valve, cap or plug that bounds the section</option>
          </select>
        </label>
        <Button type="submit" className="min-h-14" disabled={!name.trim()}>
          Add
        </Button>
      </form>
      <p role="alert" className="min-h-6 font-semibold text-rust">
        {trouble}
      </p>
    </div>
  );
}
