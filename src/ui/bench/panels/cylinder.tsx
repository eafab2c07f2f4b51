'use client';
import type { OwnKit } from '@/core/instrument/kit';
import type { CylinderStage } from '@/core/kinds';
import { LABELS, type Label } from '@/core/kinds/cylinder/entries';
import { cylinderNeeds, WRONG } from '@/core/kinds/cylinder/fold';
import { wanted } from '@/core/formula';
import { compare, type Exact, parseFigure, showExact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { Button } from '@/ui/kit/button';
import { Why } from '@/ui/kit/why';
import { useState } from 'react';
import { FIELD, Line } from '../line';
import type { PanelProps } from '../shared';

const STAMPED = '';
const SHORT: Readonly<Record<Label, string>> = {
  nitrogen: 'Nitrogen, oxygen-free, dry',
  air: 'Compressed air',
  oxygen: 'Oxygen',
  acetylene: 'Acetylene, fuel gas',
  refrigerant: 'A refrigerant',
  other: 'Other, or cannot be read',
};
/** What the label says, what regulator and hose are made for; only then is a cylinder opened. */
export function CylinderPanel({ view, act, ...props }: PanelProps) {
  const stage = props.stage as CylinderStage;
  const { plan } = view;
  const found = cylinderNeeds(plan, stage);
  const kit = plan.ownKit ?? [];
  const regulators = kit.filter((k) => k.kind === 'regulator' && k.rating);
  const hoses = kit.filter((k) => k.kind === 'hose' && k.rating);
  const [label, setLabel] = useState<Label | ''>('');
  const needs = 'value' in found ? found.value : null;
  const regulator = useThing(regulators, (most) => !!needs && fits(most, needs.test, needs.regulator));
  const hose = useThing(hoses, (most) => !!needs && fits(most, needs.test, null));
  const [out, setOut] = useState(false);
  const [tied, setTied] = useState(false);
  const [trouble, setTrouble] = useState('');
  if ('missing' in found)
    return (
      <p role="alert" className="border-l-4 border-ochre pl-3 text-lg">
        {found.missing}
      </p>
    );
  const { test, regulator: most } = found.value;
  const open = async () => {
    try {
      const answer = await act({
        kind: 'cylinder',
        label: label as Label,
        ...(regulator.id ? { regulator: regulator.id } : {}),
        regulatorMost: regulator.most(test),
        ...(hose.id ? { hose: hose.id } : {}),
        hoseMost: hose.most(test),
        woundOut: true,
        ...(tied ? { tied: true } : {}),
      });
      // what the bench refuses it says itself
      if (answer.accepted) setTrouble('');
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3 lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <div role="group" aria-label="What does its label say?" className="grid gap-2 sm:grid-cols-3">
          <p className="text-lg font-semibold sm:col-span-3">What does its label say?</p>
          {(Object.keys(LABELS) as Label[]).map((key) => (
            <Button
              key={key}
              className="min-h-14"
              tone={key === label ? 'act' : 'plain'}
              aria-pressed={key === label}
              onClick={() => setLabel(key)}
            >
              {SHORT[key]}
            </Button>
          ))}
        </div>
        {label && label !== 'nitrogen' && (
          <p role="alert" className="border-l-4 border-rust pl-3 text-lg">
            {WRONG[label]} Take another cylinder: oxygen-free dry nitrogen and nothing else.
          </p>
        )}
        <div className="grid gap-3 sm:grid-cols-2">
          <Thing title="Regulator, gives at most" of={regulator} kit={regulators} unit={test}>
            <Why
              guide="regulator"
              facts={{ title: 'Regulator', source: stage.source, text: stage.why ?? '' }}
            >
              <span className="text-sm">
                between <span className="figure">{showExact(test)}</span> and{' '}
                <span className="figure">{showExact(most)}</span>
              </span>
            </Why>
          </Thing>
          <Thing title="Hose, made for" of={hose} kit={hoses} unit={test}>
            <span className="text-sm">
              at least <span className="figure">{showExact(test)}</span>
            </span>
          </Thing>
        </div>
        <Tick on={out} onChange={setOut}>
          Regulator wound right out, cylinder still shut
        </Tick>
        <Tick on={tied} onChange={setTied}>
          Hose tied at both ends
        </Tick>
        <p role="alert" className="border-l-4 border-rust pl-3 text-lg empty:hidden">
          {trouble}
        </p>
        <Button className="min-h-14" onClick={() => void act({ kind: 'no-cylinder' })}>
          Nothing that fits is at hand
        </Button>
      </div>
      <Button
        tone="act"
        data-primary
        className="min-h-20 w-full shrink-0 text-xl max-lg:sticky max-lg:bottom-0"
        disabled={label !== 'nitrogen' || !out || !tied || !regulator.said || !hose.said}
        onClick={() => void open()}
      >
        {!label
          ? 'Read the label first'
          : label !== 'nitrogen'
            ? 'Not with this gas'
            : !regulator.said || !hose.said
              ? 'Regulator and hose first'
              : !out || !tied
                ? 'Wound out and tied first'
                : 'Open it slowly: go on'}
      </Button>
    </div>
  );
}
const fits = (most: Exact, test: Exact, highest: Exact | null): boolean =>
  compare(wanted(most, test.unit, 'down'), test) >= 0 &&
  (!highest || compare(wanted(most, highest.unit, 'up'), highest) <= 0);
/** A thing of the cabinet that fits, or what is stamped on one that is not in it. */
function useThing(kit: readonly OwnKit[], fit: (most: Exact) => boolean) {
  const [id, setId] = useState(() => (kit.find((k) => fit(k.rating!)) ?? kit[0])?.id ?? STAMPED);
  const [typed, setTyped] = useState('');
  const own = kit.find((k) => k.id === id);
  return {
    id,
    setId,
    typed,
    setTyped,
    said: own !== undefined || typed.trim() !== '',
    /** @throws FigureError */
    most: (like: Exact): Exact => own?.rating ?? parseFigure(typed, like.unit),
  };
}
function Thing({
  title,
  of,
  kit,
  unit,
  children,
}: {
  title: string;
  of: ReturnType<typeof useThing>;
  kit: readonly OwnKit[];
  unit: Exact;
  children: React.ReactNode;
}) {
  return (
    <div>
      <label>
        {title}
        <select className={FIELD} value={of.id} onChange={(e) => of.setId(e.target.value)}>
          {kit.map((k) => (
            <option key={k.id} value={k.id}>
              {k.name}, {showExact(k.rating!)}
            </option>
          ))}
          <option value={STAMPED}>not in the cabinet: as stamped</option>
        </select>
      </label>
      {of.id === STAMPED && (
        <Line figure value={of.typed} onChange={of.setTyped} most={8}>
          {`${title}, ${unitLabel(unit.unit)}`}
        </Line>
      )}
      {children}
    </div>
  );
}
function Tick({
  on,
  onChange,
  children,
}: {
  on: boolean;
  onChange: (on: boolean) => void;
  children: string;
}) {
  return (
    <label className="flex min-h-14 items-center gap-3 border border-seam bg-panel px-3">
      <input
        type="checkbox"
        className="size-6 shrink-0 accent-lake"
        checked={on}
        onChange={(e) => onChange(e.target.checked)}
      />
      {children}
    </label>
  );
}
