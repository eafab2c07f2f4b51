'use client';
import { EVIDENCE, EVIDENCE_KEYS, type Evidence } from '@/core/kinds/listen/entries';
import { ASKED, placeNow, placeWords } from '@/core/kinds/listen/fold';
import type { RunState } from '@/core/run/state';
import { parseFigure, showExact, toNumber } from '@/core/quantity/exact';
import { convert, type Unit } from '@/core/quantity/unit';
import { CLARITY, type Clarity } from '@/core/trades/pool/listen';
import { useLastUnit } from '@/ui/frame/usage';
import { UnitLine } from '../unit-line';
import { Button } from '@/ui/kit/button';
import { Choice } from '@/ui/kit/choice';
import { useMemo, useState } from 'react';
import { Line } from '../line';
import { RunOnPhoto } from '../pool/run-on-photo';
import type { PanelProps } from '../shared';
import { WayOn } from '../way-on';

const CLEAR: Readonly<Record<Clarity, string>> = { clear: 'clear', fair: 'fair', murmur: 'a murmur' };
const SAYS = { agrees: 'Agrees', against: 'Speaks against it', unknown: 'Not known' } as const;

/** A run walked spot by spot, the place that follows with how wide it is, and what else speaks of it. */
export function ListenPanel(props: PanelProps) {
  const { view, act } = props;
  const { run, spots, evidence } = view.state.rooms.listen;
  const place = useMemo(() => placeNow(view.state), [view.state]);
  const open = ASKED.filter((e) => !evidence[e]);
  if (!run) return <Run {...props} />;
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3 lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <Course {...props} place={place} />
        <p aria-live="polite">
          {spots.length < 3
            ? `${run.name}: ${spots.length} of at least 3 spots heard.`
            : `${placeWords(view.state)}.`}{' '}
          {place && place.next !== null && (
            <strong>
              Listen next at {convert(place.next, 'm', run.length.unit).toFixed(1)} {run.length.unit}.
            </strong>
          )}
        </p>
        <Heard {...props} unit={run.length.unit} />
        <RunOnPhoto {...props} place={place} />
        {place && <EvidenceList {...props} />}
      </div>
      <WayOn open={spots.length >= 3 && (!place || !open.length)} act={act}>
        {spots.length < 3
          ? 'Three spots at least'
          : !place
            ? 'Nothing heard anywhere: end the walk'
            : open.length
              ? `Before anything is opened: ${open.length} still asked`
              : 'End the walk with this place'}
      </WayOn>
    </div>
  );
}
/** What a run is walked in. */
const RUN_UNITS = ['m', 'ft'] as const satisfies readonly Unit[];
const RUN_KEY = 'vast-run-unit';
function Run({ act, view }: PanelProps) {
  const pipes = view.plan.system.pipes;
  const whole = pipes.reduce((sum, p) => sum + convert(toNumber(p.length), p.length.unit, 'm'), 0);
  const [name, setName] = useState(pipes[0]?.name ?? '');
  const [unit, setUnit] = useLastUnit(RUN_KEY, RUN_UNITS);
  const [typed, setTyped] = useState<string | null>(null);
  const length = typed ?? (whole ? convert(whole, 'm', unit).toFixed(1) : '');
  const [compressor, setCompressor] = useState('');
  const [trouble, setTrouble] = useState('');
  return (
    <form
      className="grid content-start gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        try {
          void act({
            kind: 'listen-run',
            name: name.trim(),
            length: parseFigure(length, unit),
            compressor: compressor.trim(),
          }).then((a) => setTrouble(a.accepted ? '' : a.text));
        } catch (error) {
          setTrouble((error as Error).message);
        }
      }}
    >
      <Line value={name} onChange={setName} most={120}>
        Which run you walk
      </Line>
      <UnitLine
        label="How long it is along the pipe"
        spoken="Length of the run"
        value={length}
        unit={unit}
        units={RUN_UNITS}
        onValue={setTyped}
        onUnit={setUnit}
      />
      <Line value={compressor} onChange={setCompressor} most={200}>
        Where the compressor stands, and how far off
      </Line>
      <p role="alert" className="min-h-6 text-rust">
        {trouble}
      </p>
      <Button
        type="submit"
        tone="act"
        data-primary
        className="min-h-20 text-xl"
        disabled={!name.trim() || !length.trim() || !compressor.trim()}
      >
        Walk this run
      </Button>
    </form>
  );
}
/** The run from its beginning to its end: how loud at each spot, and how likely each place is. */
function Course({ view, place }: PanelProps & { place: ReturnType<typeof placeNow> }) {
  const { run, spots } = view.state.rooms.listen;
  const unit = run!.length.unit;
  const length = convert(toNumber(run!.length), unit, 'm');
  const x = (m: number) => 30 + (m / length) * 640;
  const top = 20;
  const floor = 120;
  const y = (loud: number) => floor - (loud / 10) * (floor - top);
  const curve = place?.course
    .map(
      ([m, share], i) => `${i ? 'L' : 'M'}${x(m).toFixed(1)},${(floor - share * (floor - top)).toFixed(1)}`,
    )
    .join(' ');
  const ticks = Array.from({ length: 5 }, (_, i) => (i * length) / 4);
  return (
    <svg
      viewBox="0 0 700 160"
      role="img"
      aria-label={`Loudness along ${run!.name}. ${placeWords(view.state)}`}
      className="w-full"
    >
      {place && (
        <rect
          x={x(place.from)}
          y={top - 8}
          width={Math.max(2, x(place.to) - x(place.from))}
          height={floor - top + 8}
          fill="var(--ochre)"
          fillOpacity={0.18}
        />
      )}
      {curve && (
        <path
          d={`${curve} L${x(length)},${floor} L${x(0)},${floor} Z`}
          fill="var(--lake)"
          fillOpacity={0.15}
          stroke="var(--lake)"
        />
      )}
      <path d={`M${x(0)},${floor} H${x(length)}`} stroke="var(--ink)" strokeWidth={4} />
      {spots.map((s, i) => {
        const at = convert(toNumber(s.along), s.along.unit, 'm');
        return (
          <g key={i}>
            <path
              d={`M${x(at)},${floor} V${y(s.loud)}`}
              stroke="var(--ink)"
              strokeWidth={s.clear === 'clear' ? 7 : s.clear === 'fair' ? 4 : 2}
            />
            <text x={x(at)} y={y(s.loud) - 5} textAnchor="middle" fontSize={13} fill="var(--ink)">
              {s.loud}
            </text>
          </g>
        );
      })}
      {place && place.next !== null && (
        <path
          d={`M${x(place.next) - 7},${floor + 14} L${x(place.next)},${floor + 3} L${x(place.next) + 7},${floor + 14} Z`}
          fill="var(--lake)"
        />
      )}
      {ticks.map((m) => (
        <text key={m} x={x(m)} y={floor + 30} textAnchor="middle" fontSize={13} fill="var(--quiet)">
          {convert(m, 'm', unit).toFixed(1)} {unit}
        </text>
      ))}
    </svg>
  );
}
function Heard({ act, unit }: PanelProps & { unit: Unit }) {
  const [along, setAlong] = useState('');
  const [loud, setLoud] = useState<number | null>(null);
  const [clear, setClear] = useState<Clarity>('fair');
  const [near, setNear] = useState('');
  const [trouble, setTrouble] = useState('');
  const enter = async () => {
    try {
      const answer = await act({
        kind: 'listen',
        along: parseFigure(along, unit),
        loud: loud!,
        clear,
        near: near.trim(),
      });
      setTrouble(answer.accepted ? '' : answer.text);
      if (answer.accepted) {
        setAlong('');
        setLoud(null);
        setNear('');
      }
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <section aria-label="A spot" className="grid gap-3">
      <div className="grid gap-3 sm:grid-cols-2">
        <Line value={along} onChange={setAlong} most={8} figure>
          So far along the run, {unit}
        </Line>
        <Line value={near} onChange={setNear} most={120}>
          Beside what (may stay empty)
        </Line>
      </div>
      <div role="group" aria-label="How loud, 0 to 10" className="grid grid-cols-6 gap-2 sm:grid-cols-11">
        {Array.from({ length: 11 }, (_, n) => (
          <Button
            key={n}
            className="figure min-h-14"
            tone={loud === n ? 'act' : 'plain'}
            aria-pressed={loud === n}
            onClick={() => setLoud(n)}
          >
            {n}
          </Button>
        ))}
      </div>
      <Choice label="How clear" options={CLEAR} value={clear} onChange={setClear} />
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
      <Button
        className="min-h-16"
        tone="act"
        disabled={!along.trim() || loud === null}
        onClick={() => void enter()}
      >
        {`Heard${loud === null ? '' : `: ${loud} of 10, ${CLARITY[clear].words}`}`}
      </Button>
    </section>
  );
}
/** Everything else that speaks of the place: asked before anything is broken open. */
function EvidenceList({ view, act }: PanelProps) {
  const { evidence } = view.state.rooms.listen;
  return (
    <section aria-label="What else is known" className="grid gap-2">
      <h2 className="font-semibold">Does the place agree with</h2>
      {EVIDENCE_KEYS.map((e) => (
        <Speaks key={e} what={e} now={evidence[e]} act={act} />
      ))}
      <p className="text-sm text-quiet">
        Heard: {view.state.rooms.listen.spots.map((s) => `${showExact(s.along)} ${s.loud}`).join('; ')}
      </p>
    </section>
  );
}
/** One thing that speaks of the place, with its finding in words: which means, what it showed. */
function Speaks({
  what,
  now,
  act,
}: {
  what: Evidence;
  now: RunState['rooms']['listen']['evidence'][Evidence];
  act: PanelProps['act'];
}) {
  const [text, setText] = useState(now?.text ?? '');
  const other = what === 'other';
  return (
    <div className="grid items-center gap-2 border-t border-seam pt-2 sm:grid-cols-[1fr_26rem]">
      <span>
        {EVIDENCE[what]}
        {other && <span className="text-quiet"> (if used)</span>}
        {now?.text && <span className="block text-sm">{now.text}</span>}
      </span>
      <Choice
        label={EVIDENCE[what]}
        options={SAYS}
        value={now?.says ?? ''}
        onChange={(says) => void act({ kind: 'listen-evidence', what, says, text: text.trim() })}
      />
      {(now || other) && (
        <form
          className="grid grid-cols-[1fr_auto] items-end gap-2 sm:col-span-2"
          onSubmit={(e) => {
            e.preventDefault();
            void act({ kind: 'listen-evidence', what, says: now?.says ?? 'unknown', text: text.trim() });
          }}
        >
          <Line value={text} onChange={setText} most={300}>
            {other ? 'Which means, and what it showed' : 'What it was, in words'}
          </Line>
          <Button type="submit" className="min-h-14" disabled={text.trim() === (now?.text ?? '')}>
            Keep the words
          </Button>
        </form>
      )}
    </div>
  );
}
