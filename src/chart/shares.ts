/** Geometry of shares, ranges and drifts: rectangles and ticks from figures; nothing here draws. */
import { extent, max } from 'd3-array';
import { scaleBand, scaleLinear, scaleUtc } from 'd3-scale';
import { stack } from 'd3-shape';

const MARGIN = { left: 44, right: 8, top: 8, bottom: 26 };
export interface Placed {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
/** Columns of stacked counts. @param columns in order, each with a count for some of the keys  @param keys from the foot upwards */
export function stacked(
  columns: readonly { readonly name: string; readonly counts: ReadonlyMap<string, number> }[],
  keys: readonly string[],
  width: number,
  height: number,
) {
  const x = scaleBand()
    .domain(columns.map((c) => c.name))
    .range([MARGIN.left, width - MARGIN.right])
    .padding(0.2);
  const sum = (c: (typeof columns)[number]) => keys.reduce((n, k) => n + (c.counts.get(k) ?? 0), 0);
  const y = scaleLinear()
    .domain([0, Math.max(1, max(columns, sum) ?? 0)])
    .nice(4)
    .range([height - MARGIN.bottom, MARGIN.top]);
  const series = stack<(typeof columns)[number]>()
    .keys(keys)
    .value((c, key) => c.counts.get(key) ?? 0)([...columns]);
  return {
    left: MARGIN.left,
    right: width - MARGIN.right,
    foot: height - MARGIN.bottom,
    pieces: series.flatMap((s) =>
      s.flatMap((d, i): (Placed & { key: string; column: string })[] => {
        const [low, high] = d;
        return high > low
          ? [
              {
                key: s.key,
                column: columns[i]!.name,
                x: x(columns[i]!.name)!,
                width: x.bandwidth(),
                y: y(high),
                height: y(low) - y(high),
              },
            ]
          : [];
      }),
    ),
    columns: columns.map((c) => ({ name: c.name, x: x(c.name)! + x.bandwidth() / 2 })),
    // counts are whole
    yTicks: y
      .ticks(4)
      .filter((v) => Number.isInteger(v))
      .map((v) => ({ y: y(v), label: String(v) })),
  };
}
/** Ranges beside each other along one scale that begins at nothing: the middle half of each, and its middle. @param marks on the scale, about */
export function ranges(
  lines: readonly { readonly low: number; readonly middle: number; readonly high: number }[],
  from: number,
  to: number,
  marks = 5,
) {
  const x = scaleLinear()
    .domain([0, max(lines, (l) => l.high) || 1])
    .nice(marks)
    .range([from, to]);
  return {
    lines: lines.map((l) => ({ x: x(l.low), width: Math.max(2, x(l.high) - x(l.low)), middle: x(l.middle) })),
    ticks: x.ticks(marks).map((v) => ({ x: x(v), label: x.tickFormat(marks)(v) })),
  };
}
/** Points over time around nothing: both sides of zero are always seen. @param step the least that can be told apart */
export function around(
  points: readonly { readonly at: number; readonly value: number }[],
  step: number,
  width: number,
  height: number,
) {
  const [from = 0, to = 1] = extent(points, (p) => p.at);
  const most = Math.max(step, max(points, (p) => Math.abs(p.value)) ?? 0);
  const y = scaleLinear()
    .domain([-most, most])
    .range([height - 6, 6]);
  const x = scaleUtc()
    .domain([from, to > from ? to : from + 1])
    .range([4, width - 4]);
  return { zero: y(0), points: points.map((p) => ({ x: x(p.at), y: y(p.value) })) };
}
