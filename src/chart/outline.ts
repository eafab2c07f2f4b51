/** The edge of a pool as a path, in the units its drawing is kept in. */
import type { Outline, OutlineShape } from '@/core/network/network';

const pathOf: Readonly<Record<OutlineShape, (o: Outline) => string>> = {
  rectangle: ({ x, y, width: w, height: h }) => `M${x},${y} h${w} v${h} h${-w} Z`,
  round: ({ x, y, width: w, height: h }) =>
    `M${x},${y + h / 2} a${w / 2},${h / 2} 0 1 1 ${w},0 a${w / 2},${h / 2} 0 1 1 ${-w},0 Z`,
  kidney: ({ x, y, width: w, height: h }) =>
    `M${x},${y + h * 0.55} C${x},${y - h * 0.2} ${x + w * 0.4},${y} ${x + w * 0.5},${y + h * 0.15} C${x + w * 0.6},${y + h * 0.3} ${x + w},${y - h * 0.25} ${x + w},${y + h * 0.5} C${x + w},${y + h * 1.2} ${x},${y + h * 1.2} ${x},${y + h * 0.55} Z`,
  'l-shape': ({ x, y, width: w, height: h }) =>
    `M${x},${y} h${w} v${h} h${-w * 0.45} v${-h * 0.45} h${-w * 0.55} Z`,
  sketched: ({ points = [] }) => points.map(([x, y], i) => `${i ? 'L' : 'M'}${x},${y}`).join(' ') + ' Z',
};
export const outlinePath = (outline: Outline): string => pathOf[outline.shape](outline);
