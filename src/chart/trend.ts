import { extent } from 'd3-array';
import { scaleLinear, scaleUtc } from 'd3-scale';
import { line } from 'd3-shape';

const DAY = 86_400_000;
/** A moment as finely as the span calls for: year, month or day. */
const dayLabel = (t: Date, span: number): string =>
  span > 3 * 365 * DAY
    ? String(t.getUTCFullYear())
    : t.toLocaleDateString('en-GB', {
        ...(span > 150 * DAY ? { year: '2-digit' } : { day: 'numeric' }),
        month: 'short',
        timeZone: 'UTC',
      });

/** Geometry of a figure over the years. @param points oldest first; at: ms UTC */
export function trendGeometry(
  points: readonly { readonly at: number; readonly value: number }[],
  width: number,
  height: number,
) {
  const margin = { left: 58, right: 14, top: 10, bottom: 24 };
  const [from = 0, to = 1] = extent(points, (p) => p.at);
  const [low = 0, high = 1] = extent(points, (p) => p.value);
  // zero belongs to it where nothing is below it: a small rate must not look like a cliff
  const y = scaleLinear()
    .domain([Math.min(0, low), high > Math.min(0, low) ? high : high + 1])
    .nice(4)
    .range([height - margin.bottom, margin.top]);
  const pad = Math.max((to - from) * 0.04, DAY);
  const x = scaleUtc()
    .domain([from - pad, to + pad])
    .range([margin.left, width - margin.right]);
  const placed = points.map((p) => ({ x: x(p.at), y: y(p.value) }));
  return {
    left: margin.left,
    right: width - margin.right,
    points: placed,
    path:
      line<{ x: number; y: number }>(
        (p) => p.x,
        (p) => p.y,
      )(placed) ?? '',
    yTicks: y.ticks(4).map((v) => ({ y: y(v), label: y.tickFormat(4)(v) })),
    xTicks: x
      .ticks(5)
      .map((t) => ({ x: x(t), label: dayLabel(t, to - from) }))
      .filter((t, k, all) => all.findIndex((u) => u.label === t.label) === k),
  };
}
