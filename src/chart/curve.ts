/** Leak seen against minutes, both on log scales: paths and ticks for the screen. */
import { bisector } from 'd3-array';
import { scaleLog } from 'd3-scale';
import { line } from 'd3-shape';

export interface CurveLine {
  readonly key: string;
  readonly name: string;
  /** minutes and l/h, ascending minutes */ readonly points: readonly (readonly [number, number])[];
}
export interface CurveRequest {
  readonly width: number;
  readonly height: number;
  readonly lines: readonly CurveLine[];
  /** l/h */ readonly matters: number;
}
export interface CurveGeometry {
  readonly plot: {
    readonly left: number;
    readonly right: number;
    readonly top: number;
    readonly bottom: number;
  };
  readonly paths: readonly {
    readonly key: string;
    readonly name: string;
    readonly d: string;
    readonly end: { x: number; y: number };
  }[];
  readonly xTicks: readonly { readonly x: number; readonly label: string }[];
  readonly yTicks: readonly { readonly y: number; readonly label: string }[];
  readonly mattersY: number;
  readonly x: (minutes: number) => number;
  readonly y: (leak: number) => number;
  /** what each line shows at a place across */
  readonly read: (x: number) => {
    readonly minutes: number;
    readonly leaks: readonly { readonly key: string; readonly leak: number }[];
  };
}
const MARKS = [0.5, 1, 2, 5, 10, 20, 30, 60, 120, 240, 480, 1440];
/** Ticks closer than this would run into each other, px. */
const APART = 40;
const minutesLabel = (m: number, first: boolean) =>
  m >= 60 ? `${m / 60} h` : first ? `${m} min` : String(m);
const round = (v: number): string =>
  v >= 10 ? v.toFixed(0) : v >= 1 ? v.toFixed(1).replace(/\.0$/, '') : String(Number(v.toPrecision(1)));

function xTicks(x: ReturnType<typeof scaleLog<number, number>>): { x: number; label: string }[] {
  const [low, high] = x.domain() as [number, number];
  const out: { x: number; label: string }[] = [];
  for (const m of MARKS) {
    const last = out[out.length - 1];
    if (m >= low && m <= high && (!last || x(m) - last.x >= APART))
      out.push({ x: x(m), label: minutesLabel(m, out.length === 0) });
  }
  return out;
}

/** @returns the drawing of the curves; empty lines give an empty drawing */
export function curveGeometry(request: CurveRequest): CurveGeometry {
  const { width, height, lines, matters } = request;
  const plot = { left: 62, right: width - 12, top: 12, bottom: height - 34 };
  const points = lines.flatMap((l) => l.points);
  const minutes = points.map((p) => p[0]);
  const leaks = [...points.map((p) => p[1]), matters].filter((v) => v > 0);
  const x = scaleLog()
    .domain([Math.min(0.5, ...minutes), Math.max(2, ...minutes)])
    .range([plot.left, plot.right]);
  const y = scaleLog()
    .domain([Math.min(...leaks) / 1.4, Math.max(...leaks) * 1.4])
    .range([plot.bottom, plot.top]);
  const draw = line<readonly [number, number]>()
    .x((p) => x(p[0]))
    .y((p) => y(p[1]));
  const along = bisector((p: readonly [number, number]) => p[0]);
  const [low, high] = y.domain() as [number, number];
  const decades: number[] = [];
  for (let e = Math.floor(Math.log10(low)); e <= Math.ceil(Math.log10(high)); e++)
    for (const m of high / low > 300 ? [1] : high / low > 30 ? [1, 3] : [1, 2, 5]) {
      const v = m * 10 ** e;
      if (v >= low && v <= high) decades.push(v);
    }
  return {
    plot,
    paths: lines.map((l) => {
      const last = l.points[l.points.length - 1];
      return {
        key: l.key,
        name: l.name,
        d: draw(l.points) ?? '',
        end: last ? { x: x(last[0]), y: y(last[1]) } : { x: 0, y: 0 },
      };
    }),
    xTicks: xTicks(x),
    yTicks: decades.map((v) => ({ y: y(v), label: round(v) })),
    mattersY: y(matters),
    x: (m) => x(m),
    y: (v) => y(v),
    read: (at) => {
      const m = x.invert(Math.max(plot.left, Math.min(plot.right, at)));
      return {
        minutes: m,
        leaks: lines.flatMap((l) => {
          const p = l.points[along.center(l.points, m)];
          return p ? [{ key: l.key, leak: p[1] }] : [];
        }),
      };
    },
  };
}
