'use client';
import { traceGeometry, type TraceRequest } from '@/chart/trace';
import { useMemo } from 'react';
import { Axes, Level, Upright } from './axes';
import { useReadout } from './use-readout';

const clock = (ms: number) =>
  `${Math.floor(Math.max(0, ms) / 60000)}:${String(Math.floor((Math.max(0, ms) % 60000) / 1000)).padStart(2, '0')}`;

/** Pressure against time, with the permitted band and the events; pointer and arrow keys read it, a table is its twin. */
export function TraceChart({ request, unit, title }: { request: TraceRequest; unit: string; title: string }) {
  const geometry = useMemo(() => traceGeometry(request), [request]);
  const { plot } = geometry;
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
          {geometry.projection && (
            <g aria-hidden data-projection>
              <path d={geometry.projection.band} fill="var(--lake)" opacity={0.16} />
              <path
                d={geometry.projection.line}
                fill="none"
                stroke="var(--lake)"
                strokeWidth={2}
                strokeDasharray="3 5"
              />
            </g>
          )}
          <Axes plot={plot} xTicks={geometry.xTicks} yTicks={geometry.yTicks} />
          <Level plot={plot} y={plot.bottom} stroke="var(--edge)" />
          <text x={2} y={12} fontSize={13} fill="var(--quiet)">
            {unit} against minutes from the start
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
      <Twin {...{ request, unit, title }} />
    </figure>
  );
}

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
        </tbody>
      </table>
    </div>
  );
}
