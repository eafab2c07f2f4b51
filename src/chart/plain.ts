/** Pure geometry of one or two plain curves: a straight scale each way, zero drawn where it lies within. */
import { extent, ticks } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';

export interface PlainPoint {
  readonly x: number;
  readonly y: number;
}
export interface PlainRequest {
  readonly width: number;
  readonly height: number;
  readonly lines: readonly (readonly PlainPoint[])[];
  /** Least and most of y, where the curves alone would not show it. */
  readonly y?: readonly [number, number];
  readonly decimals: { readonly x: number; readonly y: number };
}
const MARGIN = { left: 58, right: 16, top: 24, bottom: 28 };
export function plainGeometry(r: PlainRequest) {
  const plot = {
    left: MARGIN.left,
    right: r.width - MARGIN.right,
    top: MARGIN.top,
    bottom: r.height - MARGIN.bottom,
  };
  const all = r.lines.flat();
  const [x0 = 0, x1 = 1] = extent(all, (p) => p.x);
  const [low = 0, high = 1] = r.y ?? extent(all, (p) => p.y);
  const x = scaleLinear([x0, x1], [plot.left, plot.right]);
  const y = scaleLinear([low, high === low ? low + 1 : high], [plot.bottom, plot.top]).nice(5);
  const path = line<PlainPoint>(
    (p) => x(p.x),
    (p) => y(p.y),
  );
  const label = (v: number, digits: number) => v.toFixed(digits).replace('-', '−');
  return {
    plot,
    x: (v: number) => x(v),
    y: (v: number) => y(v),
    paths: r.lines.map((l) => path([...l]) ?? ''),
    xTicks: ticks(x0, x1, 6).map((v) => ({ x: x(v), label: label(v, r.decimals.x) })),
    yTicks: y.ticks(5).map((v) => ({ y: y(v), label: label(v, r.decimals.y) })),
    zero: low < 0 && high > 0 ? y(0) : null,
  };
}
