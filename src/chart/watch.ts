import { extent } from 'd3-array';
import { scaleLinear, scaleUtc } from 'd3-scale';
import { line } from 'd3-shape';
import { toNumber } from '@/core/quantity/exact';
import type { WatchFacts, WatchState } from '@/core/watch/watch';

export interface WatchDrawing {
  readonly path: string;
  readonly points: readonly {
    readonly x: number;
    readonly y: number;
    readonly t: number;
    readonly p: number;
    readonly lost: boolean;
  }[];
  readonly limit: number;
  readonly left: number;
  readonly lostSpan: { readonly x: number; readonly width: number } | null;
  readonly xTicks: readonly { readonly x: number; readonly t: number }[];
  readonly yTicks: readonly { readonly y: number; readonly label: string }[];
  readonly plot: {
    readonly left: number;
    readonly top: number;
    readonly right: number;
    readonly bottom: number;
  };
}
const MARGIN = { left: 56, right: 20, top: 16, bottom: 30 };

/** Geometry of a watch: readings over days, what it was left at, and the line below which it is lost. */
export function watchDrawing(
  facts: WatchFacts,
  state: WatchState,
  width: number,
  height: number,
  until: number,
): WatchDrawing {
  const start = toNumber(facts.figure);
  const limit = start - toNumber(facts.fall);
  const points = [
    { t: facts.startedAt, p: start, lost: false },
    ...state.readings.map((r) => ({ t: r.at, p: toNumber(r.figure), lost: r.lost })),
  ];
  const [low = limit, high = start] = extent([...points.map((p) => p.p), limit, start * 1.05]);
  const plot = {
    left: MARGIN.left,
    top: MARGIN.top,
    right: width - MARGIN.right,
    bottom: height - MARGIN.bottom,
  };
  const x = scaleUtc(
    [facts.startedAt, Math.max(until, facts.startedAt + 3_600_000)],
    [plot.left, plot.right],
  );
  const y = scaleLinear([Math.max(0, low - (high - low) * 0.1), high], [plot.bottom, plot.top]).nice(4);
  return {
    path:
      line<(typeof points)[number]>(
        (p) => x(p.t),
        (p) => y(p.p),
      )(points) ?? '',
    points: points.map((p) => ({ ...p, x: x(p.t), y: y(p.p) })),
    limit: y(limit),
    left: y(start),
    lostSpan: state.lost ? { x: x(state.lost.from), width: x(state.lost.to) - x(state.lost.from) } : null,
    xTicks: x.ticks(Math.max(2, Math.floor(width / 160))).map((t) => ({ x: x(t), t: t.getTime() })),
    yTicks: y.ticks(4).map((v) => ({ y: y(v), label: String(v).replace('-', '−') })),
    plot,
  };
}
