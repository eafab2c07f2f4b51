'use client';
import { plainGeometry, type PlainPoint } from '@/chart/plain';
import { significantText } from '@/core/quantity/figure';
import { balance, halving, sensitivity, warmed } from '@/core/yard/shown';
import { Axes, Level, Upright } from '@/ui/charts/axes';
import { LineKey } from '@/ui/charts/line-key';
import { useSize } from '@/ui/kit/use-size';
import Link from 'next/link';
import { type ReactNode, useId, useState } from 'react';

const two = (v: number) => significantText(v, 2);
/** One size that is slid; its figure stands beside it. */
function Slide({
  name,
  unit,
  value,
  from,
  to,
  step,
  onChange,
}: {
  name: string;
  unit: string;
  value: number;
  from: number;
  to: number;
  step: number;
  onChange: (v: number) => void;
}) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="flex justify-between gap-2 text-sm">
        <span>{name}</span>
        <span className="figure-narrow font-semibold">
          {value} {unit}
        </span>
      </label>
      <input
        id={id}
        type="range"
        className="block min-h-12 w-full accent-(--heather)"
        min={from}
        max={to}
        step={step}
        value={value}
        aria-valuetext={`${value} ${unit}`}
        onChange={(e) => onChange(Number(e.target.value))}
      />
    </div>
  );
}
interface Marked {
  readonly at: number;
  readonly words: string;
}
function Plain({
  title,
  corner,
  lines,
  dashes = ['', '7 4'],
  marks = [],
  decimals,
  y,
}: {
  title: string;
  corner: string;
  lines: readonly (readonly PlainPoint[])[];
  dashes?: readonly string[];
  marks?: readonly Marked[];
  decimals: { x: number; y: number };
  y?: readonly [number, number];
}) {
  const [setEl, { width }] = useSize();
  const g = width > 0 ? plainGeometry({ width, height: 240, lines, decimals, ...(y ? { y } : {}) }) : null;
  return (
    <div ref={setEl} className="min-h-[240px]">
      {g && (
        <svg width={width} height={240} role="img" aria-label={title}>
          <Axes plot={g.plot} xTicks={g.xTicks} yTicks={g.yTicks} under={18} />
          <text x={2} y={13} fontSize={13} fill="var(--quiet)">
            {corner}
          </text>
          {g.zero !== null && <Level plot={g.plot} y={g.zero} stroke="var(--ink)" />}
          {g.paths.map((d, i) => (
            <path
              key={dashes[i] ?? ''}
              d={d}
              fill="none"
              stroke={i ? 'var(--lake)' : 'var(--heather)'}
              strokeWidth={2.5}
              strokeDasharray={dashes[i]}
            />
          ))}
          {marks.map((m, i) => (
            <g key={m.words}>
              <Upright plot={g.plot} x={g.x(m.at)} stroke="var(--ink)" strokeDasharray="2 3" />
              <text
                x={g.x(m.at) > g.plot.right - 150 ? g.x(m.at) - 5 : g.x(m.at) + 5}
                y={g.plot.top + 12 + 17 * i}
                textAnchor={g.x(m.at) > g.plot.right - 150 ? 'end' : 'start'}
                fontSize={13}
                fill="var(--ink)"
              >
                {m.words}
              </text>
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}
function Shown({
  id,
  title,
  desk,
  children,
  chart,
  says,
}: {
  id: string;
  title: string;
  /** The line of the Desk that reckons it. */ desk: string;
  children: ReactNode;
  chart: ReactNode;
  says: ReactNode;
}) {
  return (
    <section aria-labelledby={id} className="border-t border-seam py-5" data-shown={id}>
      <h2 id={id} className="text-xl font-semibold">
        {title}
      </h2>
      <div className="mt-2 grid gap-5 lg:grid-cols-[320px_1fr]">
        <div className="grid content-start gap-3">
          {children}
          <div aria-live="polite" className="grid gap-1">
            {says}
          </div>
          <Link prefetch={false} href={`/desk#${desk}`} className="text-sm underline">
            The formula, with its source and your own figures
          </Link>
        </div>
        <div className="min-w-0">{chart}</div>
      </div>
    </section>
  );
}
const SUPPLY = 21;
const LET_BY_AT = 10;
const TEST_AT = 20;
/** A minute’s let-by, and what it saves. */
function Balance() {
  const [letBy, setLetBy] = useState(8);
  const [leak, setLeak] = useState(0.4);
  const [volume, setVolume] = useState(20);
  const b = balance(letBy, leak, SUPPLY, volume);
  const at = (p: number) => b.slope(p);
  const signed = (v: number) => `${v > 0 ? '+' : ''}${v.toFixed(2).replace('-', '−')} mbar`;
  const hides = leak > 0.1 && Math.abs(at(TEST_AT) * 2) < 0.25;
  return (
    <Shown
      id="balance"
      title="A minute’s let-by saves a false Tight"
      desk="balance-pressure"
      says={
        <>
          <p>
            Held 2 min at {TEST_AT} mbar: <strong>{signed(at(TEST_AT) * 2)}</strong>, while{' '}
            {two(b.leaves(TEST_AT))} l/h go out.
          </p>
          <p>
            Held 1 min at {LET_BY_AT} mbar: <strong>{signed(at(LET_BY_AT))}</strong>.
          </p>
          <p className="text-quiet">
            {hides && at(LET_BY_AT) >= 0.25
              ? 'The tightness test alone would have called this tight. The minute before it tells that the valve passes.'
              : hides
                ? 'Both look good at these pressures: only two holds further apart tell them apart.'
                : leak <= 0.1
                  ? 'Nothing that matters leaks. The valve alone lifts the gauge.'
                  : 'The fall shows: the valve does not bring enough to hide it.'}
          </p>
        </>
      }
      chart={
        <>
          <Plain
            title={`Movement of the gauge in mbar a minute against pressure: it stands still at ${b.stands.toFixed(1)} mbar`}
            corner="mbar a minute against mbar"
            lines={[b.curve]}
            decimals={{ x: 0, y: 1 }}
            marks={[
              { at: LET_BY_AT, words: 'let-by' },
              { at: b.stands, words: `stands still at ${b.stands.toFixed(1)}` },
            ]}
          />
          <LineKey
            lines={[
              { words: 'what the gauge does: above the line it rises', colour: 'var(--heather)', dash: '' },
            ]}
          />
        </>
      }
    >
      <Slide
        name="The closed valve passes"
        unit="l/h"
        value={letBy}
        from={0}
        to={15}
        step={0.5}
        onChange={setLetBy}
      />
      <Slide name="The leak lets out" unit="l/h" value={leak} from={0} to={5} step={0.1} onChange={setLeak} />
      <Slide name="Volume" unit="l" value={volume} from={5} to={100} step={5} onChange={setVolume} />
    </Shown>
  );
}
const REFERENCE = 25;
function Halving() {
  const [cracks, setCracks] = useState(23);
  const h = halving(cracks / 100, REFERENCE);
  return (
    <Shown
      id="halving"
      title="Half the pressure says what the openings are"
      desk="duct-halving"
      says={
        <>
          <p>
            At half the pressure <strong>{(100 * h.ratio).toFixed(0)} %</strong> of the flow is left. That is
            an exponent of <strong>{h.exponent.toFixed(2)}</strong>.
          </p>
          <p className="text-quiet">
            Clean holes give 71 % and 0.50, hairline cracks 50 % and 1.00. Ducts and houses lie about 66 % and
            0.60. What lies outside 0.50 to 1.00 is no opening: look at the set-up.
          </p>
        </>
      }
      chart={
        <Plain
          title={`Flow in percent against pressure: ${(100 * h.ratio).toFixed(0)} percent at half`}
          corner={`% of the flow at ${REFERENCE} Pa, against Pa`}
          lines={[h.curve]}
          decimals={{ x: 0, y: 0 }}
          y={[0, 120]}
          marks={[
            { at: REFERENCE / 2, words: `half: ${(100 * h.ratio).toFixed(0)} %` },
            { at: REFERENCE, words: `${REFERENCE} Pa: 100 %` },
          ]}
        />
      }
    >
      <Slide
        name="Of the flow through cracks"
        unit="%"
        value={cracks}
        from={0}
        to={100}
        step={1}
        onChange={setCracks}
      />
    </Shown>
  );
}
const PRESSURE = 20;
const LONGEST = 60;
function Sensitivity() {
  const [volume, setVolume] = useState(20);
  const [step, setStep] = useState(0.5);
  const [minutes, setMinutes] = useState(2);
  const now = sensitivity(volume, step, PRESSURE, LONGEST);
  const fine = sensitivity(volume, 0.01, PRESSURE, LONGEST);
  return (
    <Shown
      id="sensitivity"
      title="What a test can see: time, volume, gauge"
      desk="smallest-leak-gas"
      says={
        <>
          <p>
            {minutes} min with steps of {step} mbar: leaks from <strong>{two(now.at(minutes))} l/h</strong>{' '}
            show.
          </p>
          <p className="text-quiet">
            Twice the volume hides twice the leak; twice the time shows nearly half of it, until warmth nobody
            reads takes over. “Nothing moved” says no more than this.
          </p>
        </>
      }
      chart={
        <>
          <Plain
            title={`Smallest leak in litres an hour against minutes: ${two(now.at(minutes))} at ${minutes} minutes`}
            corner="smallest leak, l/h, against min"
            lines={[now.curve, fine.curve]}
            decimals={{ x: 0, y: 1 }}
            y={[0, now.at(1)]}
            marks={[{ at: minutes, words: `${two(now.at(minutes))} l/h` }]}
          />
          <LineKey
            lines={[
              { words: 'this gauge', colour: 'var(--heather)', dash: '' },
              { words: 'one with steps of 0.01 mbar', colour: 'var(--lake)', dash: '7 4' },
            ]}
          />
        </>
      }
    >
      <Slide name="Volume" unit="l" value={volume} from={5} to={200} step={5} onChange={setVolume} />
      <Slide
        name="Steps of the gauge"
        unit="mbar"
        value={step}
        from={0.1}
        to={2}
        step={0.1}
        onChange={setStep}
      />
      <Slide name="Held" unit="min" value={minutes} from={1} to={LONGEST} step={1} onChange={setMinutes} />
    </Shown>
  );
}
const pressureWords = (pa: number) =>
  Math.abs(pa) < 10_000 ? `${(pa / 100).toFixed(2)} mbar` : `${(pa / 100_000).toFixed(2)} bar`;
function Kelvin() {
  const [kelvin, setKelvin] = useState(1);
  const list = warmed(kelvin);
  const most = Math.max(...warmed(5).map((w) => Math.log10(1 + Math.abs(w.change))));
  return (
    <Shown
      id="kelvin"
      title="What one degree does"
      desk="gas-temperature"
      says={
        <p className="text-quiet">
          The pressure of a closed gas goes with its absolute temperature, P/T: the atmosphere in it counts
          too, so even 20 mbar move by a three-hundredth of 1033. Water squeezes hardly at all: a full pipe
          moves a thousand times as far.
        </p>
      }
      chart={
        <table className="w-full">
          <caption className="text-left text-sm text-quiet">
            Change of pressure by {kelvin.toFixed(1)} K; the bars stand on a logarithmic scale
          </caption>
          <tbody>
            {list.map((w) => (
              <tr key={w.name} className="border-b border-seam">
                <th scope="row" className="py-2 pr-3 text-left font-normal">
                  {w.name}
                  <span className="block text-sm text-quiet">at {pressureWords(w.at)}</span>
                </th>
                <td className="w-1/2 max-sm:hidden">
                  <span
                    className="block h-4 bg-(--heather)"
                    style={{ width: `${(100 * Math.log10(1 + Math.abs(w.change))) / most}%` }}
                  />
                </td>
                <td className="figure-narrow pl-3 text-right whitespace-nowrap">{pressureWords(w.change)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      }
    >
      <Slide name="Warmer by" unit="K" value={kelvin} from={0} to={5} step={0.1} onChange={setKelvin} />
    </Shown>
  );
}
/** Things that are believed sooner when one has slid them. */
export const ShownAll = () => (
  <div>
    <Balance />
    <Halving />
    <Sensitivity />
    <Kelvin />
  </div>
);
