'use client';
import { flowGeometry, type FlowRequest } from '@/chart/flow';
import { useMemo } from 'react';
import { Axes, Level, Upright } from './axes';

/** Flow against pressure on log axes: what was read, what is only known to be less, the law through it, and the limit. */
export function FlowPlot({ request, label }: { request: FlowRequest; label: string }) {
  const g = useMemo(() => flowGeometry(request), [request]);
  const { plot } = g;
  return (
    <svg
      width={request.width}
      height={request.height}
      viewBox={`0 0 ${request.width} ${request.height}`}
      role="img"
      aria-label={label}
    >
      {g.band && <path d={g.band} fill="var(--lake)" opacity={0.14} />}
      <Axes plot={plot} xTicks={g.xTicks} yTicks={g.yTicks} under={18} />
      <text x={4} y={2} fontSize={12.5} fill="var(--quiet)" dominantBaseline="hanging">
        {request.unit}
      </text>
      <Upright plot={plot} x={g.referenceX} stroke="var(--quiet)" strokeDasharray="2 3" />
      <text x={g.referenceX} y={plot.bottom - 6} textAnchor="end" dx={-5} fontSize={13} fill="var(--ink)">
        judged here
      </text>
      {g.limitY !== null && (
        <>
          <Level plot={plot} y={g.limitY} stroke="var(--moss)" strokeWidth={2} strokeDasharray="6 4" />
          <text x={plot.right} y={g.limitY - 6} textAnchor="end" fontSize={13} fill="var(--ink)">
            limit
          </text>
        </>
      )}
      {g.law && <path d={g.law} fill="none" stroke="var(--lake)" strokeWidth={2.5} />}
      {g.at && <circle cx={g.at.x} cy={g.at.y} r={7} fill="none" stroke="var(--lake)" strokeWidth={2.5} />}
      {g.points.map((p) =>
        p.bound ? (
          <path
            key={p.id}
            d={`M${p.x - 7} ${p.y}h14M${p.x} ${p.y}v20m-5 -7l5 7l5 -7`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={2}
          />
        ) : (
          <circle key={p.id} cx={p.x} cy={p.y} r={4.5} fill="var(--ink)" />
        ),
      )}
    </svg>
  );
}
