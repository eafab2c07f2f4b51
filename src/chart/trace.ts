import { bisector, extent, nice, ticks as roundTicks } from 'd3-array';
import { area, curveLinear, curveStepAfter, line } from 'd3-shape';

export interface TracePoint {
  /** ms */ readonly t: number;
  /** in the gauge's unit */ readonly p: number;
}
export interface TraceMark extends TracePoint {
  readonly kind: 'start' | 'end' | 'reading' | 'late' | 'top-up' | 'disturbance';
  readonly label: string;
}
export interface Model {
  readonly curve: readonly (TracePoint & { readonly low: number; readonly high: number })[];
  readonly expected: readonly TracePoint[];
  readonly corrected: readonly TracePoint[];
}
const LABEL = { wide: 40, high: 24 };
export const MARGIN = { left: 58, right: 26, top: 22, bottom: 26 };
export interface TraceRequest {
  readonly width: number;
  readonly height: number;
  readonly points: readonly TracePoint[];
  readonly marks: readonly TraceMark[];
  readonly from: number;
  readonly to: number;
  /** Permitted span of pressure during the hold, if one is judged. */
  readonly permitted?: readonly [number, number];
  readonly band?: readonly [number, number];
  /** Times in which nobody and nothing read it. */
  readonly unread?: readonly { readonly from: number; readonly to: number }[];
  /** What the analysis makes of it: its curve with the 95 % band, and what the temperatures do and leave. */
  readonly model?: Model;
  readonly decimals: number;
  /** A stream holds each value until the next; readings by hand are only joined. */
  readonly streamed: boolean;
  /** Room for axes; print needs less than a screen read at arm's length. */
  readonly margin?: typeof MARGIN;
  /** Room that a label of an axis needs. */
  readonly label?: typeof LABEL;
}
export interface Trace {
  readonly path: string;
  readonly marks: readonly (TraceMark & { readonly x: number; readonly y: number })[];
  readonly permitted: { readonly y: number; readonly height: number } | null;
  readonly unread: readonly { readonly x: number; readonly width: number; readonly label: string }[];
  readonly model: {
    readonly line: string;
    readonly band: string;
    readonly expected: string;
    readonly corrected: string;
  } | null;
  /** What time is counted in along it. */
  readonly time: 'minutes' | 'hours';
  readonly xTicks: readonly { readonly x: number; readonly label: string }[];
  readonly yTicks: readonly { readonly y: number; readonly label: string }[];
  readonly plot: {
    readonly left: number;
    readonly top: number;
    readonly right: number;
    readonly bottom: number;
  };
  /** The point nearest to a place, for the pointer and the arrow keys. */
  readonly nearest: (x: number) => (TracePoint & { x: number; y: number }) | null;
}

const HOUR = 3_600_000;
const clock = (ms: number): string => {
  const s = Math.round(ms / 1000);
  return `${s < 0 ? '−' : ''}${Math.floor(Math.abs(s) / 60)}:${String(Math.abs(s) % 60).padStart(2, '0')}`;
};

/** Pure geometry of a pressure trace: the bench and the certificate draw the same. Time runs from the hold's start. */
export function traceGeometry(r: TraceRequest): Trace {
  const margin = r.margin ?? MARGIN;
  const label = r.label ?? LABEL;
  const plot = {
    left: margin.left,
    top: margin.top,
    right: r.width - margin.right,
    bottom: r.height - margin.bottom,
  };
  const seen = [...r.points, ...r.marks].filter((p) => p.t >= r.from - 1 && p.t <= r.to + 1);
  const [low = 0, high = 1] = extent([
    ...seen.map((p) => p.p),
    ...(r.permitted ?? []),
    ...(r.band ?? []),
    ...modelled(r),
  ]) as [number, number];
  const step = 10 ** -r.decimals;
  const room = Math.max((high - low) * 0.12, step * 5);
  const [bottom, top] = nice(low - room, high + room, 4);
  const end = Math.max(r.to, r.from + 1000);
  const x = (t: number) => plot.left + ((t - r.from) / (end - r.from)) * (plot.right - plot.left);
  const timeAt = (px: number) => r.from + ((px - plot.left) / (plot.right - plot.left)) * (end - r.from);
  const y = (p: number) => plot.bottom - ((p - bottom) / (top - bottom)) * (plot.bottom - plot.top);
  const draw = line<TracePoint>(
    (p) => x(p.t),
    (p) => y(p.p),
  ).curve(r.streamed ? curveStepAfter : curveLinear);
  const inside = r.points.filter((p) => p.t >= r.from - 1 && p.t <= r.to + 1);
  const span = r.to - r.from;
  // as many as stand apart: labels beside each other, and one above the other
  const most = Math.max(2, Math.min(6, Math.floor((plot.right - plot.left) / label.wide)));
  const every =
    [5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600, 7200, 21_600, 43_200]
      .map((s) => s * 1000)
      .find((s) => span / s <= most) ?? 86_400_000;
  const long = span > 3 * HOUR;
  const ticks = Array.from({ length: Math.floor(span / every) + 1 }, (_, i) => r.from + i * every);
  const along = bisector((p: TracePoint) => p.t);
  const all = [...seen].sort((a, b) => a.t - b.t);
  return {
    path: draw(inside) ?? '',
    marks: r.marks.map((m) => ({ ...m, x: x(m.t), y: y(m.p) })),
    permitted: r.permitted
      ? { y: y(r.permitted[1]), height: Math.max(1, y(r.permitted[0]) - y(r.permitted[1])) }
      : null,
    unread: (r.unread ?? []).map((u) => ({
      x: x(u.from),
      width: Math.max(1, x(u.to) - x(u.from)),
      label: `read by nobody, ${clock(u.from - r.from)} to ${clock(u.to - r.from)}`,
    })),
    model: r.model ? modelPaths(r, x, y) : null,
    xTicks: ticks.map((t) => ({ x: x(t), label: long ? `${(t - r.from) / HOUR} h` : clock(t - r.from) })),
    time: long ? 'hours' : 'minutes',
    yTicks: roundTicks(
      bottom,
      top,
      Math.max(1, Math.min(4, Math.floor((plot.bottom - plot.top) / label.high))),
    ).map((v) => ({
      y: y(v),
      label: v.toFixed(Math.min(r.decimals, 2)).replace('-', '−'),
    })),
    plot,
    nearest: (px) => {
      const p = all[along.center(all, timeAt(px))];
      return p ? { ...p, x: x(p.t), y: y(p.p) } : null;
    },
  };
}

const within = <P extends TracePoint>(r: TraceRequest, list: readonly P[]): P[] =>
  list.filter((p) => p.t >= r.from - 1 && p.t <= r.to + 1);
/** A band far beyond what was read would press the readings flat: it is cut where it leaves three of their spans. */
function modelled(r: TraceRequest): number[] {
  if (!r.model) return [];
  const [low = 0, high = 0] = extent([...r.points.map((p) => p.p), ...(r.permitted ?? [])]) as [
    number,
    number,
  ];
  const room = 3 * Math.max(high - low, 10 ** -r.decimals * 5);
  return within(r, r.model.curve)
    .flatMap((p) => [p.low, p.high])
    .map((v) => Math.max(low - room, Math.min(high + room, v)));
}
function modelPaths(
  r: TraceRequest,
  x: (t: number) => number,
  y: (p: number) => number,
): NonNullable<Trace['model']> {
  const { curve, expected, corrected } = r.model!;
  const path = line<TracePoint>(
    (p) => x(p.t),
    (p) => y(p.p),
  );
  const shown = within(r, curve);
  return {
    line: path(shown) ?? '',
    band:
      area<(typeof curve)[number]>()
        .x((p) => x(p.t))
        .y0((p) => y(p.low))
        .y1((p) => y(p.high))(shown) ?? '',
    expected: path(within(r, expected)) ?? '',
    corrected: path(within(r, corrected)) ?? '',
  };
}
