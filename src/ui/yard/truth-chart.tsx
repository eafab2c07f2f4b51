'use client';
import { LineKey } from '@/ui/charts/line-key';
import { truthGeometry, type TruthRequest } from '@/chart/truth';
import { Axes, Level, Upright } from '@/ui/charts/axes';
import { useReadout } from '@/ui/charts/use-readout';
import { useSize } from '@/ui/kit/use-size';
import { useMemo } from 'react';

/** What the gauge showed, with the truth laid over it. */
export function TruthChart({ unit, ...request }: Omit<TruthRequest, 'width' | 'height'> & { unit: string }) {
  const [setEl, { width }] = useSize();
  return (
    <div ref={setEl} className="min-h-[280px]">
      {width > 0 && <Drawn request={{ ...request, width, height: 280 }} unit={unit} />}
    </div>
  );
}
function Drawn({ request, unit }: { request: TruthRequest; unit: string }) {
  const g = useMemo(() => truthGeometry(request), [request]);
  const { at, listen } = useReadout(g.plot);
  const read = at === null ? null : g.read(at);
  const figure = (v: number) => `${v.toFixed(request.decimals).replace('-', '−')} ${unit}`;
  return (
    <figure className="m-0">
      <div className="relative">
        <svg
          width={request.width}
          height={request.height}
          aria-label={`What the gauge showed and what was true, in ${unit} against minutes. Arrow keys read values; a table follows.`}
          {...listen}
        >
          <Axes plot={g.plot} xTicks={g.xTicks} yTicks={g.yTicks} />
          <Level plot={g.plot} y={g.plot.bottom} stroke="var(--edge)" />
          <text x={2} y={12} fontSize={13} fill="var(--quiet)">
            {unit} against minutes
          </text>
          {g.stages.map((s) => (
            <g key={`${s.x}${s.title}`}>
              <Upright plot={g.plot} x={s.x} stroke="var(--seam)" />
              <title>{s.title}</title>
            </g>
          ))}
          <path d={g.shown} fill="none" stroke="var(--lake)" strokeWidth={2} />
          <path d={g.perfect} fill="none" stroke="var(--heather)" strokeWidth={2.5} strokeDasharray="7 4" />
          {g.marks.map((m) => (
            <g key={m.label}>
              <Upright plot={g.plot} x={m.x} stroke="var(--rust)" />
              <text
                x={m.x > g.plot.right - 160 ? m.x - 5 : m.x + 5}
                y={g.plot.top + 12}
                fontSize={13}
                textAnchor={m.x > g.plot.right - 160 ? 'end' : 'start'}
                fill="var(--rust)"
              >
                {m.label}
              </text>
            </g>
          ))}
          {read && <Upright plot={g.plot} x={read.x} stroke="var(--ink)" />}
        </svg>
        {read && (
          <p
            className="figure-narrow pointer-events-none absolute top-1 right-3 border border-ink bg-panel px-2 py-1 text-sm"
            aria-live="polite"
          >
            {read.minutes.toFixed(1)} min · gauge {figure(read.shown)} · true {figure(read.perfect)}
          </p>
        )}
      </div>
      <LineKey lines={LINES} />
      <Twin request={request} unit={unit} />
    </figure>
  );
}
const LINES = [
  { words: 'what the gauge showed', colour: 'var(--lake)', dash: '' },
  { words: 'what a perfect gauge would have shown', colour: 'var(--heather)', dash: '7 4' },
] as const;
/** The same for who does not see the lines: at each stage. */
function Twin({ request, unit }: { request: TruthRequest; unit: string }) {
  const from = request.points[0]?.at ?? 0;
  const nearest = (at: number) =>
    request.points.reduce(
      (best, p) => (Math.abs(p.at - at) < Math.abs(best.at - at) ? p : best),
      request.points[0]!,
    );
  return (
    <div className="sr-only">
      <table>
        <caption>What the gauge showed and what was true</caption>
        <thead>
          <tr>
            <th>minutes</th>
            <th>stage</th>
            <th>gauge, {unit}</th>
            <th>true, {unit}</th>
          </tr>
        </thead>
        <tbody>
          {request.points.length > 0 &&
            request.stages.map((s) => (
              <tr key={`${s.at}${s.title}`}>
                <td>{((s.at - from) / 60_000).toFixed(1)}</td>
                <td>{s.title}</td>
                <td>{nearest(s.at).shown.toFixed(request.decimals)}</td>
                <td>{nearest(s.at).perfect.toFixed(request.decimals)}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  );
}
