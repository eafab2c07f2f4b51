'use client';
import { curveGeometry, type CurveRequest } from '@/chart/curve';
import { significantText } from '@/core/quantity/figure';
import { minutesWords } from '@/ui/kit/words';
import { useMemo } from 'react';
import { Axes, Level, Upright } from './axes';
import { useReadout } from './use-readout';

const DASH = ['', '9 5', '3 4', '12 4 3 4', '2 7'];

/** Leak seen against minutes; the chosen gauge full and thick, others broken. Pointer and arrow keys read it. */
export function CurveChart({
  request,
  chosen,
  marks,
}: {
  request: CurveRequest;
  chosen: string;
  marks: readonly { readonly minutes: number; readonly name: string }[];
}) {
  const g = useMemo(() => curveGeometry(request), [request]);
  const { plot } = g;
  const { at, listen } = useReadout(plot);
  const read = at === null ? null : g.read(at);
  const order = request.lines.filter((l) => l.key !== chosen).map((l) => l.key);
  const style = (key: string) =>
    key === chosen
      ? { stroke: 'var(--lake)', strokeWidth: 4 }
      : { stroke: 'var(--edge)', strokeWidth: 2, strokeDasharray: DASH[(order.indexOf(key) % 4) + 1] };
  return (
    <figure className="m-0">
      <svg
        width={request.width}
        height={request.height}
        viewBox={`0 0 ${request.width} ${request.height}`}
        aria-label="Smallest leak seen, in litres per hour, against the length of the hold. Arrow keys read values; a table follows."
        {...listen}
      >
        <rect
          x={plot.left}
          y={g.mattersY}
          width={plot.right - plot.left}
          height={Math.max(0, plot.bottom - g.mattersY)}
          fill="var(--moss)"
          opacity={0.13}
        />
        <Axes plot={plot} xTicks={g.xTicks} yTicks={g.yTicks} under={18} />
        <text x={4} y={plot.top + 2} fontSize={12.5} fill="var(--quiet)" dominantBaseline="hanging">
          l/h
        </text>
        <Level plot={plot} y={g.mattersY} stroke="var(--moss)" strokeWidth={2} strokeDasharray="6 4" />
        <text x={plot.left + 6} y={g.mattersY + 14} fontSize={13} fill="var(--ink)">
          seen: the leak that matters and more
        </text>
        {marks.map((m, i) => (
          <g key={m.name}>
            <Upright plot={plot} x={g.x(m.minutes)} stroke="var(--ink)" strokeDasharray="2 3" />
            <text
              x={g.x(m.minutes) + (g.x(m.minutes) > plot.right - 110 ? -5 : 5)}
              y={plot.top + 8 + i * 16}
              textAnchor={g.x(m.minutes) > plot.right - 110 ? 'end' : 'start'}
              fontSize={13}
              fill="var(--ink)"
            >
              {m.name}
            </text>
          </g>
        ))}
        {g.paths.map((p) => (
          <path key={p.key} d={p.d} fill="none" {...style(p.key)} />
        ))}
        {read && <Upright plot={plot} x={g.x(read.minutes)} stroke="var(--lake)" />}
      </svg>
      <figcaption className="mt-1 grid gap-1 text-sm" aria-live="polite">
        {read ? (
          <span>
            {minutesWords(Number(read.minutes.toPrecision(2)))}:{' '}
            {read.leaks
              .map(
                (l) =>
                  `${request.lines.find((x) => x.key === l.key)!.name} ${significantText(l.leak, 2)} l/h`,
              )
              .join('; ')}
          </span>
        ) : (
          <span className="flex flex-wrap gap-x-5">
            {request.lines.map((l) => (
              <span key={l.key} className="inline-flex items-center gap-2">
                <svg width={34} height={8} aria-hidden>
                  <line x1={0} x2={34} y1={4} y2={4} {...style(l.key)} />
                </svg>
                {l.name}
              </span>
            ))}
          </span>
        )}
      </figcaption>
      <Twin lines={request.lines} />
    </figure>
  );
}

/** The same for who does not see the curves. */
function Twin({ lines }: { lines: CurveRequest['lines'] }) {
  return (
    <div className="sr-only">
      <table>
        <caption>Smallest leak seen by length of the hold</caption>
        <tbody>
          {lines.map((l) => (
            <tr key={l.key}>
              <th scope="row">{l.name}</th>
              {l.points
                .filter((_, i) => i % 10 === 0)
                .map((p) => (
                  <td key={p[0]}>{`${p[0].toPrecision(2)} min: ${significantText(p[1], 2)} l/h`}</td>
                ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
