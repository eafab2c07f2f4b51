import { type Course, courseHeight, type GlyphCourse, plumbShift } from '@/chart/courses';
import type { ReactNode } from 'react';

const FILL: Record<Course['state'], string> = {
  waiting: 'none',
  running: 'var(--panel)',
  set: 'var(--block)',
  split: 'var(--block)',
  skipped: 'none',
};

/** The words of a course, for a screen reader and for the text beside the block. */
export function courseWords(c: Course): string {
  const parts = [c.state === 'set' && c.out ? 'out of plumb' : c.word];
  if (c.topUps) parts.push(`${c.topUps} re-adjusted`);
  if (c.repeated) parts.push('repeated');
  return parts.join(', ');
}

interface WallProps {
  readonly courses: readonly Course[];
  readonly props: readonly string[];
  readonly openJoint: boolean;
  readonly stamp?: { readonly word: string; readonly colour: string } | null;
  readonly width: number;
  readonly scale: number;
  readonly labels?: boolean;
  readonly reach: number;
}
/** One course of the wall, where it stands. */
function Block({
  c,
  x,
  y,
  h,
  block,
  labels,
}: {
  c: Course;
  x: number;
  y: number;
  h: number;
  block: number;
  labels: boolean;
}) {
  const dashed = c.state === 'waiting';
  return (
    <g>
      {c.state === 'running' && (
        <rect
          x={x}
          y={y + h - h * c.filled}
          width={block}
          height={h * c.filled}
          fill="var(--lake)"
          opacity={0.28}
        />
      )}
      <rect
        x={x}
        y={y}
        width={block}
        height={h}
        fill={c.state === 'running' ? 'none' : FILL[c.state]}
        stroke={c.out ? 'var(--rust)' : c.state === 'running' ? 'var(--lake)' : 'var(--edge)'}
        strokeWidth={c.state === 'running' || c.out ? 2 : 1}
        strokeDasharray={dashed ? '1.5 3' : undefined}
      />
      {c.repeated && c.state !== 'waiting' && (
        <rect x={x + 3} y={y + 3} width={block - 6} height={h - 6} fill="none" stroke="var(--edge)" />
      )}
      {Array.from({ length: Math.min(c.topUps, 4) }, (_, n) => (
        <line
          key={n}
          x1={x}
          x2={x + block}
          y1={y + h - 4 - n * 3}
          y2={y + h - 4 - n * 3}
          stroke="var(--ink)"
          strokeWidth={1}
        />
      ))}
      {c.state === 'split' && (
        <path
          d={`M ${x + block * 0.62} ${y - 1} l -5 ${h * 0.35} l 7 ${h * 0.25} l -6 ${h * 0.4 + 2}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
      {labels && (
        <text
          x={x + 6}
          y={y + h / 2}
          dominantBaseline="central"
          fontSize={12.5}
          fill={dashed ? 'var(--quiet)' : 'var(--ink)'}
          fontWeight={c.state === 'running' ? 700 : 400}
        >
          {fit(c.title, block - 10)}
        </text>
      )}
    </g>
  );
}

/**
 * The wall of courses: each block stands off plumb by movement over limit, dashed lines mark the limit, every
 * put-back debt leans a prop on it, an open joint at the base tells of scope left out.
 */
export function Wall({ courses, props, openJoint, stamp, width, scale, labels = true, reach }: WallProps) {
  const propRoom = Math.min(3, props.length) * 7;
  const block = width - 2 * Math.ceil(reach * 1.5) - propRoom - 4;
  const left = Math.ceil(reach * 1.5) + 2;
  const gap = 3;
  const heights = courses.map((c) => Math.round(courseHeight(c.minutes) * scale));
  const stampHeight = stamp ? 34 : 0;
  const total = heights.reduce((a, b) => a + b + gap, 0) + stampHeight + 12;
  let y = total - 10;
  const blocks: ReactNode[] = [];
  courses.forEach((c, i) => {
    const h = heights[i]!;
    y -= h + gap;
    blocks.push(<Block key={c.key} {...{ c, x: left + plumbShift(c.plumb, reach), y, h, block, labels }} />);
  });
  const label = `Wall of ${courses.length} courses, from the base: ${courses.map((c) => `${c.title} ${courseWords(c)}`).join('; ')}.${props.length ? ` Props: ${props.join(', ')}.` : ''}`;
  return (
    <svg
      width={width}
      height={total}
      viewBox={`0 0 ${width} ${total}`}
      role="img"
      aria-label={label}
      style={{ display: 'block', fontFamily: 'var(--font-sans)' }}
    >
      <line
        x1={left - reach}
        x2={left - reach}
        y1={stampHeight + 2}
        y2={total - 12}
        stroke="var(--edge)"
        strokeDasharray="3 4"
      />
      <line
        x1={left + block + reach}
        x2={left + block + reach}
        y1={stampHeight + 2}
        y2={total - 12}
        stroke="var(--edge)"
        strokeDasharray="3 4"
      />
      {blocks}
      {stamp && (
        <g>
          <rect
            x={left - 2}
            y={y - stampHeight - gap}
            width={block + 4}
            height={stampHeight}
            fill="var(--panel)"
            stroke={stamp.colour}
            strokeWidth={2}
          />
          <text
            x={left + block / 2}
            y={y - stampHeight / 2 - gap}
            textAnchor="middle"
            dominantBaseline="central"
            fontSize={stamp.word.length > 12 ? 11.5 : 15}
            fontWeight={700}
            fill={stamp.colour}
          >
            {stamp.word}
          </text>
        </g>
      )}
      {props.slice(0, 3).map((p, i) => (
        <line
          key={p}
          x1={width - 3 - i * 7}
          y1={total - 10}
          x2={left + block + 1}
          y2={total - 44 - i * 26}
          stroke="var(--ochre)"
          strokeWidth={3}
        />
      ))}
      <line x1={0} x2={width} y1={total - 9} y2={total - 9} stroke="var(--ink)" strokeWidth={2} />
      {openJoint && (
        <rect
          x={left + block * 0.4}
          y={total - 12}
          width={block * 0.22}
          height={7}
          fill="var(--ground)"
          stroke="var(--edge)"
          strokeDasharray="2 2"
        />
      )}
    </svg>
  );
}
/** Shortens a title to a width in px, by about 6.6 px a letter. */
const fit = (text: string, width: number): string =>
  text.length * 6.6 <= width ? text : `${text.slice(0, Math.max(3, Math.floor(width / 6.6) - 1))}…`;

/** The narrow strip of the phone bench: blocks only, words are in the header. */
export function WallStrip({ courses }: { courses: readonly Course[] }) {
  return (
    <ol
      className="flex h-full w-7 flex-col-reverse gap-[3px] border-r border-seam px-1 py-2"
      aria-label="Courses laid"
    >
      {courses.map((c) => (
        <li
          key={c.key}
          className={`relative w-full border ${c.state === 'running' ? 'border-2 border-lake' : c.out ? 'border-2 border-rust' : 'border-edge'} ${c.state === 'waiting' ? 'border-dotted' : c.state === 'set' || c.state === 'split' ? 'bg-block' : ''}`}
          style={{
            height: Math.round(courseHeight(c.minutes) * 1.4),
            transform: `translateX(${plumbShift(c.plumb, 3)}px)`,
          }}
        >
          {c.state === 'running' && (
            <span
              aria-hidden
              className="absolute bottom-0 left-0 w-full bg-lake/40"
              style={{ height: `${c.filled * 100}%` }}
            />
          )}
          {c.state === 'split' && (
            <span
              aria-hidden
              className="absolute top-[-1px] left-1/2 h-[calc(100%+2px)] w-[2px] rotate-[24deg] bg-ink"
            />
          )}
          <span className="sr-only">{`${c.title}: ${courseWords(c)}`}</span>
        </li>
      ))}
    </ol>
  );
}

/** The wall as a 24 px glyph for lists: equal courses; only set, running, out of plumb and split are told apart. */
export function WallGlyph({ courses, label }: { courses: readonly GlyphCourse[]; label: string }) {
  const n = Math.max(courses.length, 1);
  const h = Math.min(5, Math.floor((23 - (n - 1)) / n));
  return (
    <svg width={24} height={24} viewBox="0 0 24 24" role="img" aria-label={label} className="shrink-0">
      {courses.map((c, i) => {
        const y = 23 - (i + 1) * (h + 1) + 1;
        const x = 4 + (c.p / 150) * 3.5;
        const stroke = c.s === 'out' ? 'var(--rust)' : c.s === 'running' ? 'var(--lake)' : 'var(--ink)';
        return (
          <g key={i}>
            <rect
              x={x}
              y={y}
              width={16}
              height={h}
              fill={c.s === 'set' || c.s === 'out' || c.s === 'split' ? stroke : 'none'}
              stroke={stroke}
              strokeDasharray={c.s === 'waiting' ? '1 2' : undefined}
            />
            {c.s === 'split' && (
              <path d={`M ${x + 10} ${y - 1} l -4 ${h + 2}`} stroke="var(--ground)" strokeWidth={2} />
            )}
          </g>
        );
      })}
      <line x1={1} x2={23} y1={23.5} y2={23.5} stroke="var(--ink)" />
    </svg>
  );
}
