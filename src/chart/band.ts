/** The time band of a visit: a row for each test and one for everything else, blocks of hands and waits. */
import { scaleLinear } from 'd3-scale';
import { bandHeight, ROW, TOP } from './band-height';
import type { Slot, VisitTask } from '@/core/visit/types';

export interface BandBlock {
  readonly task: string;
  readonly kind: 'hands' | 'wait' | 'close';
  readonly x: number;
  readonly width: number;
}
export interface BandRow {
  readonly key: string;
  readonly y: number;
  readonly blocks: readonly BandBlock[];
}
export interface BandGeometry {
  readonly rows: readonly BandRow[];
  readonly height: number;
  readonly ticks: readonly { readonly x: number; readonly minutes: number }[];
  readonly x: (minutes: number) => number;
  readonly minutes: (x: number) => number;
}
export /** @param rows keys of the rows in order; each task belongs to its test's row, or to '' */
function bandGeometry(
  tasks: readonly VisitTask[],
  slots: readonly Slot[],
  rows: readonly string[],
  width: number,
  length: number,
): BandGeometry {
  const x = scaleLinear()
    .domain([0, Math.max(30, length)])
    .range([0, width]);
  const of = new Map(slots.map((s) => [s.task, s]));
  const px = (from: number, to: number) => ({ x: x(from), width: Math.max(2, x(to) - x(from)) });
  const step =
    [5, 10, 15, 30, 60, 120, 240, 480, 1440].find((s) => (width / Math.max(30, length)) * s >= 58) ?? 2880;
  return {
    rows: rows.map((key, i) => ({
      key,
      y: TOP + i * ROW,
      blocks: tasks
        .filter((t) => (t.test ?? '') === key)
        .flatMap((t): BandBlock[] => {
          const s = of.get(t.id);
          if (!s) return [];
          return [
            { task: t.id, kind: 'hands', ...px(s.start, s.handsEnd) },
            ...(s.closeStart > s.handsEnd + 1e-9 && (t.wait > 0 || t.close > 0)
              ? [{ task: t.id, kind: 'wait' as const, ...px(s.handsEnd, s.closeStart) }]
              : []),
            ...(s.end > s.closeStart + 1e-9
              ? [{ task: t.id, kind: 'close' as const, ...px(s.closeStart, s.end) }]
              : []),
          ];
        }),
    })),
    height: bandHeight(rows.length),
    ticks: Array.from({ length: Math.floor(Math.max(30, length) / step) + 1 }, (_, i) => ({
      x: x(i * step),
      minutes: i * step,
    })),
    x: (m) => x(m),
    minutes: (at) => x.invert(at),
  };
}
