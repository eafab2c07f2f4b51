import { GRID, type Outline } from '@/core/network/network';

interface Spot {
  readonly x: number;
  readonly y: number;
}
/** Room between the outermost outlets and the edge where nothing else says more. Grid units. */
const ROOM = 3;
/**
 * An edge laid through the outlets as they stand: the outermost ones in turn around their middle. @param outlets three or more
 * @throws RangeError on fewer
 */
export function edgeThrough(outlets: readonly Spot[]): Outline {
  if (outlets.length < 3) throw new RangeError('Place three outlets or more: an edge goes through them.');
  const hull = outermost(outlets);
  const [mx, my] = [mean(hull.map((p) => p.x)), mean(hull.map((p) => p.y))];
  const out = (v: number, m: number, most: number) =>
    Math.min(most, Math.max(0, Math.round(v + Math.sign(v - m) * ROOM)));
  const points = hull.map((p): readonly [number, number] => [
    out(p.x, mx, GRID.width),
    out(p.y, my, GRID.height),
  ]);
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { shape: 'sketched', x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y, points };
}
const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;
/** The corners of the tightest band around all of them, in turn. Three in a row are given as they are. Source: monotone chain */
function outermost(spots: readonly Spot[]): readonly Spot[] {
  const sorted = [...spots].sort((a, b) => a.x - b.x || a.y - b.y);
  const turn = (o: Spot, a: Spot, b: Spot) => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);
  const half = (list: readonly Spot[]) => {
    const kept: Spot[] = [];
    for (const p of list) {
      while (kept.length > 1 && turn(kept[kept.length - 2]!, kept[kept.length - 1]!, p) <= 0) kept.pop();
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  const hull = [...half(sorted), ...half([...sorted].reverse())];
  return hull.length < 3 ? sorted.slice(0, 3) : hull;
}
