'use client';
import type { BucketStage } from '@/core/kinds';
import { bucketOf, bucketWords } from '@/core/kinds/bucket/fold';
import { parseFigure } from '@/core/quantity/exact';
import { inZone } from '@/core/quantity/in-zone';
import type { Unit } from '@/core/quantity/unit';
import { useLastUnit } from '@/ui/frame/usage';
import { Button } from '@/ui/kit/button';
import { countdown } from '@/ui/kit/words';
import { useState } from 'react';
import { UnitLine } from '../unit-line';
import type { PanelProps } from '../shared';

const SPOILT = { rain: 'It rained', filled: 'Water was added', bathers: 'Somebody bathed' } as const;
type Spoilt = keyof typeof SPOILT;

/** Pool and bucket marked together, read together a day later. */
export function BucketPanel({ view, visit, stage, act, at }: PanelProps) {
  const bucket = stage as BucketStage;
  const open = bucketOf(view.state, visit.ordinal);
  const before = view.state.rooms.buckets.filter((b) => b.read);
  return (
    <div className="grid shrink-0 content-start gap-3 lg:min-h-0 lg:flex-1 lg:shrink lg:overflow-auto">
      {before.map((b, i) => (
        <p key={i} className="text-quiet">
          {b.title}: {bucketWords(b)}
        </p>
      ))}
      {open ? (
        <Reading bucket={bucket} setAt={open.setAt} at={at} zone={view.plan.made.zone} act={act} />
      ) : (
        <>
          <Picture />
          <Button
            tone="act"
            data-primary
            className="min-h-20 text-xl max-lg:sticky max-lg:bottom-0"
            onClick={() => void act({ kind: 'bucket-set' })}
          >
            Both marks made: the day begins
          </Button>
        </>
      )}
    </div>
  );
}
/** Pool and bucket, their marks, and the two falls that are compared. */
function Picture() {
  return (
    <svg
      viewBox="0 0 420 165"
      role="img"
      aria-label="A bucket on a step of the pool: both marked at their level"
      className="max-h-56 w-full"
    >
      <path d="M15,40 V150 H230 V108 H335 V40" fill="none" stroke="var(--ink)" strokeWidth={3} />
      <path d="M15,76 H335" stroke="var(--lake)" strokeWidth={2} />
      <path d="M255,58 L262,108 H305 L312,58" fill="var(--panel)" stroke="var(--ink)" strokeWidth={2} />
      <path d="M258,76 H309" stroke="var(--lake)" strokeWidth={2} />
      <path d="M15,64 H50 M256,66 H280" stroke="var(--ink)" strokeWidth={3} />
      <text x={56} y={68} fontSize={17} fill="var(--ink)">
        mark on the wall
      </text>
      <text x={244} y={34} fontSize={17} fill="var(--ink)">
        mark in the bucket
      </text>
      <path d="M268,40 V60" stroke="var(--quiet)" strokeWidth={1} />
      <text x={30} y={104} fontSize={16} fill="var(--quiet)">
        evaporates and leaks
      </text>
      <text x={240} y={132} fontSize={16} fill="var(--quiet)">
        only evaporates
      </text>
    </svg>
  );
}
/** What a rule is marked in. */
const RULE_UNITS = ['mm', 'in'] as const satisfies readonly Unit[];
const RULE_KEY = 'vast-rule-unit';
function Reading({
  bucket,
  setAt,
  at,
  zone,
  act,
}: {
  bucket: BucketStage;
  setAt: number;
  at: number;
  zone: string;
  act: PanelProps['act'];
}) {
  const [pool, setPool] = useState('');
  const [inside, setInside] = useState('');
  const [unit, setUnit] = useLastUnit(RULE_KEY, RULE_UNITS);
  const [spoilt, setSpoilt] = useState<readonly Spoilt[]>([]);
  const [trouble, setTrouble] = useState('');
  const due = setAt + bucket.minutes * 60_000;
  const left = due - at;
  const early = left > 5000;
  const enter = async () => {
    try {
      const answer = await act({
        kind: 'bucket-read',
        pool: parseFigure(pool || (spoilt.length ? '0' : ''), unit),
        bucket: parseFigure(inside || (spoilt.length ? '0' : ''), unit),
        rain: spoilt.includes('rain'),
        filled: spoilt.includes('filled'),
        bathers: spoilt.includes('bathers'),
      });
      setTrouble(answer.accepted ? '' : answer.text);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <>
      <p className="text-lg">
        Marks made {inZone(setAt, zone)}. {early ? 'Read both' : 'To be read since'} {inZone(due, zone)}
        {early && (
          <>
            , in <span className="figure">{countdown(left)}</span>
          </>
        )}
        . This page may be closed meanwhile.
      </p>
      <div className="grid gap-3 sm:grid-cols-2">
        <UnitLine
          label="Pool below its mark (above it: minus)"
          spoken="Pool"
          value={pool}
          unit={unit}
          units={RULE_UNITS}
          onValue={setPool}
          onUnit={setUnit}
        />
        <UnitLine
          label="Bucket below its mark"
          spoken="Bucket"
          value={inside}
          unit={unit}
          units={RULE_UNITS}
          onValue={setInside}
          onUnit={setUnit}
        />
      </div>
      <div role="group" aria-label="What would spoil it" className="grid gap-3 sm:grid-cols-3">
        {(Object.entries(SPOILT) as [Spoilt, string][]).map(([key, words]) => (
          <Button
            key={key}
            className="min-h-16"
            tone={spoilt.includes(key) ? 'act' : 'plain'}
            aria-pressed={spoilt.includes(key)}
            onClick={() =>
              setSpoilt(spoilt.includes(key) ? spoilt.filter((s) => s !== key) : [...spoilt, key])
            }
          >
            {words}
          </Button>
        ))}
      </div>
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <Button
        tone="act"
        data-primary
        className="min-h-20 text-xl max-lg:sticky max-lg:bottom-0"
        disabled={!spoilt.length && (early || !pool.trim() || !inside.trim())}
        onClick={() => void enter()}
      >
        {spoilt.length ? 'It says nothing: set new marks' : early ? 'Not yet: a whole day' : 'Both read'}
      </Button>
    </>
  );
}
