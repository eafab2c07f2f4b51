'use client';
import { plugsIn } from '@/core/kinds/plugs/fold';
import { runningHold } from '@/core/run/read';
import { tradeOf } from '@/core/trades';
import { guideProcedure } from '@/ui/guide/address';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { useState } from 'react';
import { OwnKitChoice } from '../own-kit';
import { Back, Ends, FewWords, type Side, type SideProps, useEntry, Wrong } from './entry';

export function SkipSide(props: SideProps) {
  const { text, setText, trouble, go } = useEntry(props);
  const [pick, setPick] = useState('');
  const reasons =
    props.stage.kind === 'hold'
      ? (props.stage.skip?.reasons ?? [])
      : [{ key: 'not-done', text: 'Not done', sound: true }];
  return (
    <div className="grid gap-3">
      <p>Why is this stage left out? The reason is printed.</p>
      {reasons.map((r) => (
        <Button
          key={r.key}
          className="min-h-16"
          tone={pick === r.key ? 'act' : 'plain'}
          onClick={() => setPick(r.key)}
        >
          {r.text}
        </Button>
      ))}
      <FewWords text={text} setText={setText} />
      <Ends
        trouble={trouble}
        onDone={props.onDone}
        word="Leave it out"
        disabled={!pick || !text.trim()}
        onClick={() => void go({ kind: 'skip', reason: pick, text: text.trim() })}
      />
    </div>
  );
}

export function GaugeSide(props: SideProps) {
  const { view, onDone } = props;
  const { trouble, go } = useEntry(props);
  return (
    <div className="grid gap-3">
      <p>
        Another gauge is another test: it is zeroed, and the run begins again from there. What was done stays
        in the record.
      </p>
      {view.plan.gauges
        .filter((g) => g.id !== view.state.gauge)
        .map((g) => (
          <Button key={g.id} className="min-h-16" onClick={() => void go({ kind: 'gauge', gauge: g.id })}>
            Change to {g.name} ({g.serial})
          </Button>
        ))}
      <Wrong trouble={trouble} />
      <Back onDone={onDone} />
    </div>
  );
}

export const KitSide = ({ view, act, onDone }: SideProps) => (
  <div className="grid gap-3">
    <OwnKitChoice view={view} act={act} opened />
    <Back onDone={onDone} />
  </div>
);

/** Everything that can be entered here, by name. */
export function MoreSide({ view, visit, stage, onSide, onDone }: SideProps) {
  const hold = runningHold(view.state);
  const offer: readonly (readonly [Side, string, boolean])[] = [
    ['disturbance', 'Disturbance', true],
    ['note', 'Note', true],
    ['photo', 'Photo', true],
    ['temperature', 'Temperature', true],
    ['barometer', 'Barometer', true],
    ['joints', 'Joints and leak fluid', true],
    ['observation', 'Seen, smelt, heard', true],
    ['inventory', 'Inventory', !!view.plan.procedure.inventory?.length],
    ['kit', 'Own hose or rig', !!view.plan.ownKit?.length && !tradeOf(view.plan.system).unpiped],
    ['plug', 'A plug does not hold', plugsIn(view.state).length > 0],
    [
      'look',
      'It bubbles where it should not',
      tradeOf(view.plan.system).parted === 'lines' && stage.kind !== 'map',
    ],
    ['extend', 'Hold it longer', !!hold && hold.role !== 'settle'],
    ['late', 'Reading from earlier', true],
    ['correct', 'Correct a reading', view.state.visits.some((v) => v.readings.length)],
    ['gauge', 'Change the gauge', view.plan.gauges.length > 1],
    ['skip', 'Skip this stage', !!((stage.kind === 'hold' && stage.skip) || stage.optional)],
  ];
  return (
    <div className="grid grid-cols-2 gap-3">
      {offer
        .filter(([, , here]) => here)
        .map(([side, words]) => (
          <Button key={side} className="min-h-16" onClick={() => onSide?.(side)}>
            {words}
          </Button>
        ))}
      <a
        className={buttonClass('plain', 'min-h-16')}
        href={guideProcedure(view.plan.pack.id, view.plan.procedure.id, visit.stage)}
        target="_blank"
        rel="noreferrer"
      >
        The guide on this stage
      </a>
      <Back onDone={onDone} />
    </div>
  );
}
