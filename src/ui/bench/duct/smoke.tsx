'use client';
import { flowWords } from '@/core/kinds/fan/asked';
import { type Place, PLACES, PRESENT, type Present, type Size, SIZES } from '@/core/kinds/smoke/entries';
import { findingWords, searchOf, warmAt } from '@/core/kinds/smoke/fold';
import type { SmokeFinding } from '@/core/kinds/smoke/state';
import { gainsOf } from '@/core/kinds/smoke/gains';
import type { SmokeStage } from '@/core/kinds';
import { parseFigure } from '@/core/quantity/exact';
import type { Unit } from '@/core/quantity/unit';
import { unitLabel } from '@/core/quantity/unit';
import { now } from '@/device/clock';
import { Button } from '@/ui/kit/button';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';
import { Line } from '../line';
import { QuickPhoto } from '../quick-photo';
import type { PanelProps } from '../shared';
import { SmokeWarm } from './smoke-warm';

const PLACE_KEYS = Object.keys(PLACES) as Place[];
/** Smoke shows where: each place found, sealed by whom, what it gained; then measured again, or another day. */
export function SmokePanel(props: PanelProps) {
  const stage = props.stage as SmokeStage;
  const { view, act, at, visit } = props;
  const { state } = view;
  const [adding, setAdding] = useState(false);
  const [ending, setEnding] = useState(false);
  const findings = state.rooms.smoke.searches.flatMap((s) => s.findings);
  const search = searchOf(state, visit.ordinal);
  const warm = warmAt(state, stage.minutes);
  const ready = Boolean(search?.without) || (warm !== null && at >= warm);
  if (ending)
    return <Ending {...props} sealed={findings.some((f) => f.sealed)} onBack={() => setEnding(false)} />;
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="grid content-start gap-3 lg:min-h-0 lg:flex-1 lg:overflow-auto">
        {!search?.without && <SmokeWarm view={view} at={at} act={act} />}
        {!ready && <Without act={act} />}
        <ol className="grid gap-2">
          {findings.map((f) => (
            <Finding key={f.id} {...props} finding={f} />
          ))}
        </ol>
        {adding ? (
          <Found {...props} onDone={() => setAdding(false)} />
        ) : (
          <Button className="min-h-16" disabled={!ready} onClick={() => setAdding(true)}>
            {ready ? 'Smoke comes out here' : 'Smoke comes out here: once it is warm'}
          </Button>
        )}
        <Gains {...props} />
      </div>
      <Button
        tone="act"
        data-primary
        className="min-h-20 w-full shrink-0 text-xl max-lg:sticky max-lg:bottom-0"
        onClick={() => setEnding(true)}
      >
        Looked everywhere: what now?
      </Button>
    </div>
  );
}
function Without({ act }: Pick<PanelProps, 'act'>) {
  const [open, setOpen] = useState(false);
  const [means, setMeans] = useState('');
  if (!open)
    return (
      <Button className="min-h-14" onClick={() => setOpen(true)}>
        No smoke machine here
      </Button>
    );
  return (
    <div className="grid gap-2 sm:grid-cols-[1fr_auto] sm:items-end">
      <Line value={means} onChange={setMeans} most={120} placeholder="smoke pencil, hand and lamp">
        With what do you look?
      </Line>
      <Button
        tone="act"
        className="min-h-14"
        disabled={!means.trim()}
        onClick={() => void act({ kind: 'smoke-without', means: means.trim() })}
      >
        Look with that
      </Button>
    </div>
  );
}
function Found({ act, onDone }: PanelProps & { onDone: () => void }) {
  const [place, setPlace] = useState<Place | ''>('');
  const [where, setWhere] = useState('');
  const [size, setSize] = useState<Size | ''>('');
  const [trouble, setTrouble] = useState('');
  const save = async () => {
    const answer = await act({
      kind: 'smoke-found',
      finding: uuid7(now()),
      spot: place as Place,
      where: where.trim(),
      ...(size ? { size } : {}),
    });
    if (answer.accepted) onDone();
    else setTrouble(answer.text);
  };
  return (
    <div className="grid gap-2 border border-seam bg-panel p-3">
      <div role="group" aria-label="What kind of place" className="grid grid-cols-2 gap-2 sm:grid-cols-4">
        {PLACE_KEYS.map((key) => (
          <Button
            key={key}
            className="min-h-14 px-1 text-base leading-tight"
            tone={key === place ? 'act' : 'plain'}
            aria-pressed={key === place}
            onClick={() => setPlace(key)}
          >
            {PLACES[key]}
          </Button>
        ))}
      </div>
      <Line value={where} onChange={setWhere} most={120} placeholder="hall, behind the wall bars">
        Where
      </Line>
      <div role="group" aria-label="How much" className="grid grid-cols-3 gap-2">
        {(Object.keys(SIZES) as Size[]).map((key) => (
          <Button
            key={key}
            className="min-h-12"
            tone={key === size ? 'act' : 'plain'}
            aria-pressed={key === size}
            onClick={() => setSize(key === size ? '' : key)}
          >
            {SIZES[key]}
          </Button>
        ))}
      </div>
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
      <div className="grid grid-cols-2 gap-3">
        <Button className="min-h-14" onClick={onDone}>
          Back
        </Button>
        <Button
          tone="act"
          className="min-h-14"
          disabled={!place || !where.trim()}
          onClick={() => void save()}
        >
          Keep it
        </Button>
      </div>
    </div>
  );
}
/** One place: its photo, and by whom and with what it was sealed. */
function Finding({ finding: f, ...props }: PanelProps & { finding: SmokeFinding }) {
  const { view, act } = props;
  const [open, setOpen] = useState(false);
  const [by, setBy] = useState('');
  const [means, setMeans] = useState('');
  const [flow, setFlow] = useState('');
  const [trouble, setTrouble] = useState('');
  const unit: Unit = view.state.rooms.fan.chosen?.range.least.unit ?? 'CFM';
  const save = async () => {
    try {
      const answer = await act({
        kind: 'smoke-sealed',
        finding: f.id,
        sealedBy: by.trim(),
        means: means.trim(),
        ...(flow.trim() ? { flow: parseFigure(flow, unit) } : {}),
      });
      if (answer.accepted) setOpen(false);
      else setTrouble(answer.text);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <li className="grid gap-2 border border-seam bg-panel p-3">
      <div className="flex items-center justify-between gap-3">
        <span className="text-lg">{findingWords(f)}</span>
        {!f.sealed && !open && (
          <Button className="min-h-14 shrink-0" onClick={() => setOpen(true)}>
            Sealed
          </Button>
        )}
      </div>
      {open && (
        <div className="grid gap-2 sm:grid-cols-3">
          <Line value={by} onChange={setBy} most={80}>
            Sealed by
          </Line>
          <Line value={means} onChange={setMeans} most={80} placeholder="mastic, tape, new boot">
            With
          </Line>
          <Line figure value={flow} onChange={setFlow} most={8}>
            {`Fan shows now, ${unitLabel(unit)} (if read)`}
          </Line>
          <p role="alert" className="text-rust empty:hidden sm:col-span-3">
            {trouble}
          </p>
          <Button className="min-h-14" onClick={() => setOpen(false)}>
            Back
          </Button>
          <Button
            tone="act"
            className="min-h-14 sm:col-span-2"
            disabled={!by.trim() || !means.trim()}
            onClick={() => void save()}
          >
            It is sealed
          </Button>
        </div>
      )}
      <QuickPhoto {...props} asks={`${PLACES[f.place]}, ${f.where}`} />
    </li>
  );
}
/** What each sealing gained, as bars from what was measured first. */
function Gains({ view }: PanelProps) {
  const steps = gainsOf(view.state);
  const unit: Unit = view.state.rooms.fan.chosen?.range.least.unit ?? 'CFM';
  if (steps.length < 2) return null;
  const most = Math.max(...steps.map((s) => s.flow));
  return (
    <table className="w-full text-sm">
      <caption className="text-left font-semibold">What each sealing gained</caption>
      <tbody>
        {steps.map((s, i) => (
          <tr key={i} className="border-t border-seam">
            <th scope="row" className="py-1 pr-2 text-left font-normal">
              {s.what}
            </th>
            <td className="w-2/5 py-1 max-sm:hidden" aria-hidden>
              <div className="h-4 bg-lake" style={{ width: `${(100 * s.flow) / most}%` }} />
            </td>
            <td className="figure-narrow py-1 pl-2 text-right whitespace-nowrap">
              {flowWords(s.flow, unit)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
function Ending({ act, sealed, onBack }: PanelProps & { sealed: boolean; onBack: () => void }) {
  const [installer, setInstaller] = useState<Present | ''>('');
  const [fee, setFee] = useState('');
  const [trouble, setTrouble] = useState('');
  const end = async (next: 'again' | 'later') => {
    const answer = await act({ kind: 'smoke-over', next, installer: installer as Present, fee: fee.trim() });
    if (!answer.accepted) setTrouble(answer.text);
  };
  return (
    <div className="grid content-start gap-3">
      <div role="group" aria-label="Whoever installed it" className="grid gap-2">
        <p className="text-lg font-semibold">Whoever installed it</p>
        {(Object.keys(PRESENT) as Present[]).map((key) => (
          <Button
            key={key}
            className="min-h-14"
            tone={key === installer ? 'act' : 'plain'}
            aria-pressed={key === installer}
            onClick={() => setInstaller(key)}
          >
            {PRESENT[key]}
          </Button>
        ))}
      </div>
      <Line value={fee} onChange={setFee} most={40}>
        Fee agreed for the retest, if any. It is printed; nothing is charged here
      </Line>
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
      <Button
        tone={sealed ? 'act' : 'plain'}
        className="min-h-16"
        disabled={!installer}
        onClick={() => void end('again')}
      >
        Sealed: measure again now
      </Button>
      <Button
        tone={sealed ? 'plain' : 'act'}
        className="min-h-16"
        disabled={!installer}
        onClick={() => void end('later')}
      >
        Leave it for another day: it stays Not tight
      </Button>
      <Button className="min-h-14" onClick={onBack}>
        Back to the smoke
      </Button>
    </div>
  );
}
