import { ranges, stacked } from '@/chart/shares';
import { GRAVITY, WORDS, type VerdictWord } from '@/core/verdict/words';
import { VERDICT_INK } from '@/ui/kit/words';

/** From the foot of a column upwards. */
export const ORDER = [...GRAVITY].reverse();
/** Signs beside the colours: what is grey on paper is still told apart. */
const HATCH: Partial<Record<VerdictWord, string>> = {
  'not-tight': 'M0 8 L8 0',
  void: 'M0 0 L8 8',
  inconclusive: 'M0 4 H8',
  refer: 'M4 0 V8',
};
export const fill = (word: VerdictWord): string => (HATCH[word] ? `url(#hatch-${word})` : VERDICT_INK[word]);

export const Hatches = () => (
  <svg width={0} height={0} className="absolute" aria-hidden focusable="false">
    <defs>
      {ORDER.map((w) => (
        <pattern key={w} id={`hatch-${w}`} width={8} height={8} patternUnits="userSpaceOnUse">
          <rect width={8} height={8} fill={VERDICT_INK[w]} />
          {HATCH[w] && <path d={HATCH[w]} stroke="var(--panel)" strokeWidth={1.5} />}
        </pattern>
      ))}
    </defs>
  </svg>
);
export function Legend({ words }: { words: readonly VerdictWord[] }) {
  return (
    <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-sm" aria-hidden>
      {words.map((w) => (
        <li key={w} className="flex items-center gap-2">
          <svg width={16} height={16} focusable="false">
            <rect width={16} height={16} fill={fill(w)} />
          </svg>
          {WORDS[w]}
        </li>
      ))}
    </ul>
  );
}

/** Drawn twice, in the size of its letters: for a desk, and for a phone. */
const SIZES = [
  { width: 900, narrow: false, className: 'max-w-4xl max-sm:hidden' },
  { width: 360, narrow: true, className: 'sm:hidden' },
] as const;

/** Columns of stacked counts, one for each month. */
export const Columns = ({
  columns,
  seen,
}: {
  columns: readonly { readonly name: string; readonly counts: ReadonlyMap<string, number> }[];
  seen: readonly VerdictWord[];
}) =>
  SIZES.map(({ width, narrow, className }) => {
    const height = 220;
    const g = stacked(columns, seen, width, height);
    const every = Math.ceil(columns.length / (narrow ? 6 : 12));
    return (
      <svg
        key={width}
        viewBox={`0 0 ${width} ${height}`}
        className={`mt-2 block w-full ${className}`}
        aria-hidden
        focusable="false"
      >
        {g.yTicks.map((y) => (
          <g key={y.label} fontSize={13} fill="var(--quiet)">
            <line x1={g.left} x2={g.right} y1={y.y} y2={y.y} stroke="var(--seam)" />
            <text x={g.left - 6} y={y.y + 4} textAnchor="end">
              {y.label}
            </text>
          </g>
        ))}
        {g.pieces.map((p) => (
          <rect
            key={`${p.column} ${p.key}`}
            x={p.x}
            y={p.y}
            width={p.width}
            height={p.height}
            fill={fill(p.key as VerdictWord)}
          />
        ))}
        {g.columns.map((c, i) =>
          i % every === 0 ? (
            <text key={c.name} x={c.x} y={height - 8} textAnchor="middle" fontSize={13} fill="var(--quiet)">
              {c.name}
            </text>
          ) : null,
        )}
      </svg>
    );
  });

export interface Range {
  readonly name: string;
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  readonly records: number;
}
/** Room at the right for the figure beside its bar. */
const FIGURE = 90;
/** Ranges under each other on one scale; on a phone each under its name. @param room for the names beside them, px of 900 */
export const RangeLines = ({
  lines,
  unit,
  room,
  show,
}: {
  lines: readonly Range[];
  unit: string;
  room: number;
  show: (value: number) => string;
}) =>
  SIZES.map(({ width, narrow, className }) => {
    const g = ranges(lines, narrow ? 8 : room, width - FIGURE, narrow ? 3 : 5);
    const row = narrow ? 46 : 26;
    const down = narrow ? 20 : 0;
    const height = lines.length * row + 26;
    return (
      <svg
        key={width}
        viewBox={`0 0 ${width} ${height}`}
        className={`mt-2 block w-full ${className}`}
        role="img"
        aria-label={lines.map((l) => `${l.name}: ${show(l.middle)} ${unit}`).join('; ')}
      >
        {g.ticks.map((x) => (
          <g key={x.label} fontSize={13} fill="var(--quiet)">
            <line x1={x.x} x2={x.x} y1={0} y2={height - 22} stroke="var(--seam)" />
            <text x={x.x} y={height - 6} textAnchor={narrow && x.x < 20 ? 'start' : 'middle'}>
              {x.label} {unit}
            </text>
          </g>
        ))}
        {lines.map((l, i) => {
          const { x, width: wide, middle } = g.lines[i]!;
          return (
            <g key={l.name + i} transform={`translate(0 ${i * row})`} fontSize={14} fill="var(--ink)">
              <text x={narrow ? 8 : room - 10} y={narrow ? 15 : 17} textAnchor={narrow ? 'start' : 'end'}>
                {l.name.length > 40 ? `${l.name.slice(0, 39)}…` : l.name}
              </text>
              <g transform={`translate(0 ${down})`}>
                <rect x={x} width={wide} y={6} height={14} fill="var(--block)" stroke="var(--edge)" />
                <line x1={middle} x2={middle} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2.5} />
                <text x={x + wide + 6} y={17} fontSize={13}>
                  {show(l.middle)}
                </text>
              </g>
            </g>
          );
        })}
      </svg>
    );
  });
