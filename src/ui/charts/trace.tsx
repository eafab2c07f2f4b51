'use client';
import { traceGeometry, type TraceRequest } from '@/chart/trace';
import { useId, useMemo } from 'react';
import { Axes, Level, Upright } from './axes';
import { useReadout } from './use-readout';
import { LineKey } from './line-key';

const clock = (ms: number) =>
  `${Math.floor(Math.max(0, ms) / 60000)}:${String(Math.floor((Math.max(0, ms) % 60000) / 1000)).padStart(2, '0')}`;

/** Pressure against time, with the permitted band and the events; pointer and arrow keys read it, a table is its twin. */
export function TraceChart({ request, unit, title }: { request: TraceRequest; unit: string; title: string }) {
  const geometry = useMemo(() => traceGeometry(request), [request]);
  const { plot } = geometry;
  const clip = useId();
  const { at, listen } = useReadout(plot);
  const read = at === null ? null : geometry.nearest(at);
  return (
    <figure className="m-0">
      <div className="relative">
        <svg
          width={request.width}
          height={request.height}
          viewBox={`0 0 ${request.width} ${request.height}`}
          aria-label={`${title}: pressure in ${unit} against time. Arrow keys read values; a table follows.`}
          {...listen}
        >
          {geometry.permitted && (
            <rect
              x={plot.left}
              width={plot.right - plot.left}
              y={geometry.permitted.y}
              height={geometry.permitted.height}
              fill="var(--moss)"
              opacity={0.14}
            />
          )}
          {geometry.permitted &&
            [geometry.permitted.y, geometry.permitted.y + geometry.permitted.height].map((y) => (
              <Level key={y} plot={plot} y={y} stroke="var(--moss)" strokeDasharray="5 4" />
            ))}
          {geometry.unread.map((u) => (
            <rect
              key={u.x}
              x={u.x}
              width={u.width}
              y={plot.top}
              height={plot.bottom - plot.top}
              fill={`url(#${clip}-unread)`}
              data-unread
            >
              <title>{u.label}</title>
            </rect>
          ))}
          {geometry.unread.length > 0 && (
            <pattern
              id={`${clip}-unread`}
              width="8"
              height="8"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <path d="M0,0V8" stroke="var(--edge)" strokeWidth={1.5} opacity={0.6} />
            </pattern>
          )}
          {geometry.model && (
            <g aria-hidden data-model clipPath={`url(#${clip})`}>
              <clipPath id={clip}>
                <rect
                  x={plot.left}
                  y={plot.top}
                  width={plot.right - plot.left}
                  height={plot.bottom - plot.top}
                />
              </clipPath>
              <path d={geometry.model.band} fill="var(--ochre)" opacity={0.18} />
              {LINES.map(({ of, colour, dash }) => (
                <path
                  key={of}
                  d={geometry.model![of]}
                  fill="none"
                  stroke={colour}
                  strokeWidth={2}
                  strokeDasharray={dash}
                  strokeLinecap="round"
                />
              ))}
            </g>
          )}
          <Axes plot={plot} xTicks={geometry.xTicks} yTicks={geometry.yTicks} />
          <Level plot={plot} y={plot.bottom} stroke="var(--edge)" />
          <text x={2} y={12} fontSize={13} fill="var(--quiet)">
            {unit} against {geometry.time} from the start
          </text>
          <path d={geometry.path} fill="none" stroke="var(--lake)" strokeWidth={2} />
          {geometry.marks.map((m) => (
            <g key={`${m.kind}${m.t}`}>
              {m.kind === 'top-up' || m.kind === 'disturbance' ? (
                <Upright plot={plot} x={m.x} stroke="var(--ochre)" strokeDasharray="2 3" />
              ) : null}
              <rect
                x={m.x - 4}
                y={m.y - 4}
                width={8}
                height={8}
                fill={m.kind === 'late' ? 'none' : 'var(--ink)'}
                stroke="var(--ink)"
                strokeWidth={1.5}
              >
                <title>{m.label}</title>
              </rect>
            </g>
          ))}
          {read && <Upright plot={plot} x={read.x} stroke="var(--ink)" />}
        </svg>
        {read && (
          <p
            className="figure-narrow pointer-events-none absolute top-1 right-3 border border-ink bg-panel px-2 py-1 text-sm"
            aria-live="polite"
          >
            {clock(read.t - request.from)} · {read.p.toFixed(request.decimals).replace('-', '−')} {unit}
          </p>
        )}
      </div>
      {request.model && <Legend model={request.model} />}
      <Twin {...{ request, unit, title }} />
    </figure>
  );
}

/** The lines of a model, as they are drawn and told apart. */
const LINES = [
  { of: 'line', words: 'model, with its 95 % band', colour: 'var(--ochre)', dash: '7 4' },
  { of: 'expected', words: 'by the temperatures alone', colour: 'var(--rust)', dash: '1 5' },
  { of: 'corrected', words: 'without what the temperatures do', colour: 'var(--ink)', dash: '2 4' },
] as const;
const READINGS = { words: 'readings', colour: 'var(--lake)', dash: '' };
/** Which line is which. */
const Legend = ({ model }: { model: NonNullable<TraceRequest['model']> }) => (
  <LineKey lines={[READINGS, ...LINES.slice(0, model.expected.length ? 3 : 1)]} />
);
/** The same for who does not see the line. */
function Twin({ request, unit, title }: { request: TraceRequest; unit: string; title: string }) {
  return (
    <div className="sr-only">
      <table>
        <caption>{title}, readings</caption>
        <thead>
          <tr>
            <th>time from start</th>
            <th>pressure, {unit}</th>
            <th>what</th>
          </tr>
        </thead>
        <tbody>
          {request.marks.map((m) => (
            <tr key={`${m.kind}${m.t}`}>
              <td>{clock(m.t - request.from)}</td>
              <td>{m.p.toFixed(request.decimals)}</td>
              <td>{m.label}</td>
            </tr>
          ))}
          {request.unread?.map((u) => (
            <tr key={u.from}>
              <td>{clock(u.from - request.from)}</td>
              <td />
              <td>read by nobody until {clock(u.to - request.from)}</td>
            </tr>
          ))}
          {modelRow(request)}
        </tbody>
      </table>
    </div>
  );
}
function modelRow({ model, from, decimals }: TraceRequest) {
  const last = model?.curve[model.curve.length - 1];
  return (
    last && (
      <tr>
        <td>{clock(last.t - from)}</td>
        <td>{last.p.toFixed(decimals)}</td>
        <td>
          by the model, 95 % between {last.low.toFixed(decimals)} and {last.high.toFixed(decimals)}
        </td>
      </tr>
    )
  );
}
