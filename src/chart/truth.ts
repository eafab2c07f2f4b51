/** Truth against what the gauge showed, over the whole of a practice run: paths, ticks and stages for the screen. */
import { bisector, extent } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';

export interface TruthSample {
  /** ms */ readonly at: number;
  readonly perfect: number;
  readonly shown: number;
}
export interface TruthRequest {
  readonly width: number;
  readonly height: number;
  readonly points: readonly TruthSample[];
  readonly stages: readonly { readonly at: number; readonly title: string }[];
  /** Moments that are marked, with their words. */
  readonly marks: readonly { readonly at: number; readonly label: string }[];
  readonly decimals: number;
}
/** Stages that follow each other closer than this have no room for a line of their own, px. */
const APART = 26;
export function truthGeometry({ width, height, points, stages, marks, decimals }: TruthRequest) {
  const plot = { left: 56, right: width - 8, top: 22, bottom: height - 30 };
  const [from, until] = [points[0]?.at ?? 0, points.at(-1)?.at ?? 1];
  const [low, high] = extent(points.flatMap((p) => [p.perfect, p.shown])) as [number, number];
  const pad = Math.max((high - low) * 0.06, 10 ** -decimals);
  const x = scaleLinear([from, until], [plot.left, plot.right]);
  const y = scaleLinear([low - pad, high + pad], [plot.bottom, plot.top]);
  const path = (of: (p: TruthSample) => number) =>
    line<TruthSample>(
      (p) => x(p.at),
      (p) => y(of(p)),
    )(points) ?? '';
  const near = bisector((p: TruthSample) => p.at);
  const minutes = (ms: number) => (ms - from) / 60_000;
  const whole = minutes(until);
  const step = [1, 2, 5, 10, 20, 30, 60, 120, 240, 720, 1440].find((s) => whole / s <= 8) ?? 2880;
  let last = -Infinity;
  return {
    plot,
    perfect: path((p) => p.perfect),
    shown: path((p) => p.shown),
    xTicks: Array.from({ length: Math.floor(whole / step) + 1 }, (_, i) => ({
      x: x(from + i * step * 60_000),
      label: i === 0 ? '0 min' : String(i * step),
    })),
    yTicks: y.ticks(5).map((v) => ({ y: y(v), label: y.tickFormat(5)(v).replace('-', '−') })),
    stages: stages.flatMap((s) => {
      const at = x(s.at);
      if (at - last < APART) return [];
      last = at;
      return [{ x: at, title: s.title }];
    }),
    marks: marks.map((m) => ({ ...m, x: x(m.at) })),
    read: (px: number) => {
      const p = points[near.center(points as TruthSample[], x.invert(px))]!;
      return { ...p, x: x(p.at), minutes: minutes(p.at) };
    },
  };
}
