/** Flow against pressure, both on log scales, where a power law is a straight line: points, bounds, the law with its ends, the limit. */
import { scaleLog } from 'd3-scale';
import { line } from 'd3-shape';

export interface FlowPoint {
  readonly id: string;
  /** Pa */ readonly pressure: number;
  /** In the unit of the drawing; of a bound the most that it can be. */ readonly flow: number;
  readonly bound: boolean;
}
export interface FlowRequest {
  readonly width: number;
  readonly height: number;
  readonly unit: string;
  readonly points: readonly FlowPoint[];
  /** Pa */ readonly reference: number;
  /** In the unit of the drawing. */ readonly limit: number | null;
  /** The point that counts and the exponents through it: the one that counts, and its ends. */
  readonly law: {
    readonly from: { readonly pressure: number; readonly flow: number };
    readonly n: number;
    readonly low: number;
    readonly high: number;
  } | null;
}
export interface FlowGeometry {
  readonly plot: {
    readonly left: number;
    readonly right: number;
    readonly top: number;
    readonly bottom: number;
  };
  readonly xTicks: readonly { readonly x: number; readonly label: string }[];
  readonly yTicks: readonly { readonly y: number; readonly label: string }[];
  readonly points: readonly {
    readonly id: string;
    readonly x: number;
    readonly y: number;
    readonly bound: boolean;
  }[];
  /** The law across, and the room between its ends. */
  readonly law: string;
  readonly band: string;
  readonly referenceX: number;
  readonly limitY: number | null;
  /** What it comes to at the reference pressure. */
  readonly at: { readonly x: number; readonly y: number } | null;
}
const STEPS = [1, 2, 5];
/** Round figures of a log scale within its domain, no closer together than so many px. */
function ticks(scale: ReturnType<typeof scaleLog<number, number>>, apart: number): number[] {
  const [low, high] = scale.domain() as [number, number];
  const out: number[] = [];
  for (let e = Math.floor(Math.log10(low)); e <= Math.ceil(Math.log10(high)); e += 1)
    for (const m of STEPS) {
      const v = m * 10 ** e;
      const last = out[out.length - 1];
      if (v >= low && v <= high && (last === undefined || Math.abs(scale(v) - scale(last)) >= apart))
        out.push(v);
    }
  return out;
}
const round = (v: number): string => (v >= 1 ? v.toFixed(0) : String(Number(v.toPrecision(1))));

export function flowGeometry(request: FlowRequest): FlowGeometry {
  const { width, height, points, reference, limit, law } = request;
  const plot = { left: 50, right: width - 12, top: 22, bottom: height - 34 };
  const pressures = [...points.map((p) => p.pressure), reference];
  const carried = (p: number, n: number) => law!.from.flow * (p / law!.from.pressure) ** n;
  // what the ends of the law come to where it is judged stands inside too
  const judged = law ? [law.low, law.n, law.high].map((n) => carried(reference, n)) : [];
  const flows = [...points.map((p) => p.flow), ...judged, ...(limit ? [limit] : [])].filter((v) => v > 0);
  const x = scaleLog()
    .domain([Math.min(...pressures) / 1.6, Math.max(...pressures) * 1.6])
    .range([plot.left, plot.right]);
  const y = scaleLog()
    .domain(flows.length ? [Math.min(...flows) / 1.6, Math.max(...flows) * 1.6] : [1, 10])
    .range([plot.bottom, plot.top]);
  const ends = x.domain() as [number, number];
  const inside = (flow: number) => y(Math.max(y.domain()[0]!, Math.min(y.domain()[1]!, flow)));
  const along = Array.from({ length: 25 }, (_, i) => ends[0] * (ends[1] / ends[0]) ** (i / 24));
  const path = (n: number, to = along) =>
    line<number>()
      .x((p) => x(p))
      .y((p) => inside(carried(p, n)))(to) ?? '';
  const flowHere = law && carried(reference, law.n);
  return {
    plot,
    xTicks: ticks(x, 44).map((v, i) => ({ x: x(v), label: i ? round(v) : `${round(v)} Pa` })),
    yTicks: ticks(y, 26).map((v) => ({ y: y(v), label: round(v) })),
    points: points.map((p) => ({ id: p.id, x: x(p.pressure), y: y(p.flow), bound: p.bound })),
    law: law ? path(law.n) : '',
    band: law ? `${path(law.low)}${path(law.high, [...along].reverse()).replace('M', 'L')}Z` : '',
    referenceX: x(reference),
    limitY: limit ? y(limit) : null,
    at: flowHere ? { x: x(reference), y: inside(flowHere) } : null,
  };
}
