'use client';
import { watchDrawing } from '@/chart/watch';
import { showExact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import type { WatchFacts, WatchState } from '@/core/watch/watch';
import { useSize } from '@/ui/kit/use-size';
import { tickWords } from './words';

/** Readings of a watch over the days, with what it was left at and the line below which it is lost. A table follows. */
export function WatchChart({
  facts,
  state,
  until,
  zone,
}: {
  facts: WatchFacts;
  state: WatchState;
  until: number;
  zone: string;
}) {
  const [setEl, { width }] = useSize();
  const height = 240;
  const d = width > 0 ? watchDrawing(facts, state, width, height, until) : null;
  return (
    <figure className="m-0">
      <div ref={setEl} className="h-[240px]">
        {d && (
          <svg
            width={width}
            height={height}
            role="img"
            aria-label={`${facts.title}: pressure in ${unitLabel(facts.figure.unit)} over the days; the table below says the same.`}
          >
            {d.lostSpan && (
              <rect
                x={d.lostSpan.x}
                width={Math.max(2, d.lostSpan.width)}
                y={d.plot.top}
                height={d.plot.bottom - d.plot.top}
                fill="var(--rust)"
                opacity={0.16}
              />
            )}
            {d.yTicks.map((t) => (
              <g key={t.label}>
                <line x1={d.plot.left} x2={d.plot.right} y1={t.y} y2={t.y} stroke="var(--seam)" />
                <text
                  x={d.plot.left - 8}
                  y={t.y + 4}
                  textAnchor="end"
                  className="figure-narrow"
                  fontSize={12}
                  fill="var(--ink)"
                >
                  {t.label}
                </text>
              </g>
            ))}
            {d.xTicks.map((t) => (
              <text
                key={t.t}
                x={t.x}
                y={d.plot.bottom + 20}
                textAnchor="middle"
                fontSize={12}
                fill="var(--ink)"
              >
                {tickWords(t.t, zone)}
              </text>
            ))}
            <line
              x1={d.plot.left}
              x2={d.plot.right}
              y1={d.left}
              y2={d.left}
              stroke="var(--moss)"
              strokeDasharray="5 4"
            />
            <text x={d.plot.right} y={d.left - 5} textAnchor="end" fontSize={12} fill="var(--moss)">
              left at {showExact(facts.figure)}
            </text>
            <line
              x1={d.plot.left}
              x2={d.plot.right}
              y1={d.limit}
              y2={d.limit}
              stroke="var(--rust)"
              strokeDasharray="2 4"
            />
            <text x={d.plot.right} y={d.limit + 15} textAnchor="end" fontSize={12} fill="var(--rust)">
              a fall of {showExact(facts.fall)} counts
            </text>
            <path d={d.path} fill="none" stroke="var(--lake)" strokeWidth={2} />
            {d.points.map((p) => (
              <rect
                key={`${p.t}-${p.p}`}
                x={p.x - 4}
                y={p.y - 4}
                width={8}
                height={8}
                fill={p.lost ? 'var(--rust)' : 'var(--lake)'}
              />
            ))}
          </svg>
        )}
      </div>
    </figure>
  );
}
