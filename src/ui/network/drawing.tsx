import { outlinePath } from '@/chart/outline';
import { partWord, ruleOfPart } from '@/core/network/catalogue';
import { insideOf, positionOf, type Positions, type Reach } from '@/core/network/flood';
import {
  type Join,
  type Joined,
  type Outline,
  type Part,
  partName,
  partOf,
  type Position,
  textOf,
} from '@/core/network/network';
import type { KeyboardEvent, ReactNode } from 'react';
import { Sign } from './sign';

/** Pixels of one grid unit in the drawing's own scale. */
export const UNIT = 10;
const at = (p: Part) => ({ x: p.x * UNIT, y: p.y * UNIT });

/** A part's name with its position, as it stands beside the sign and is read out. */
export const words = (network: Joined, part: Part, positions: Positions): string => {
  const position = positionOf(network, part, positions);
  const name = partName(part);
  return position ? `${name}, ${position}` : name;
};
/** Names in lines that do not run into each other. */
function lines(text: string, most: number): string[] {
  const out: string[] = [];
  for (const word of text.split(' ')) {
    const last = out[out.length - 1];
    if (last !== undefined && (last + ' ' + word).length <= most) out[out.length - 1] = `${last} ${word}`;
    else out.push(word);
  }
  return out.slice(0, 3).map((l, i) => (i === 2 && out.length > 3 ? `${l} …` : l));
}
/** The part of the sheet that is drawn on, with room for names, in pixels. */
export function extent(network: Joined) {
  const { outline } = network;
  const edges = outline ? [outline, { x: outline.x + outline.width, y: outline.y + outline.height }] : [];
  const xs = [...network.parts, ...edges].map((p) => p.x);
  const ys = [...network.parts, ...edges].map((p) => p.y);
  const [left, top] = [Math.min(...xs, 400) - 7, Math.min(...ys, 200) - 7];
  return {
    x: left * UNIT,
    y: top * UNIT,
    width: Math.max(44, Math.max(...xs, 0) - left + 8) * UNIT,
    height: Math.max(16, Math.max(...ys, 0) - top + 8) * UNIT,
  };
}

export interface Doing {
  readonly onPart?: (id: string) => void;
  readonly onLink?: (id: string) => void;
  /** Keys that move a part. */
  readonly onKey?: (part: Part, event: KeyboardEvent) => void;
}
interface Shown extends Doing {
  readonly network: Joined;
  readonly reach: Reach;
  readonly positions?: Positions;
  /** The part or link that is chosen. */
  readonly chosen?: string | null;
  /** Parts that something is asked of now, and the position they must have, where it is one. */
  readonly marked?: ReadonlyMap<string, Position | ''>;
  /** Joins that are known, or only usual, where no pipe is drawn: straight from end to end. */
  readonly joins?: readonly { readonly from: string; readonly to: string; readonly sure: boolean }[];
  /** What is said of a part now, under its name. */
  readonly notes?: ReadonlyMap<string, string>;
  /** How probable it is that a part leaks, 0 to 1: the fuller, the likelier. */
  readonly suspect?: ReadonlyMap<string, number>;
  /** A leak at a part: its number, and the size of its bubbles on the sheet, px. */
  readonly leaks?: ReadonlyMap<string, { readonly n: string; readonly r: number; readonly open: boolean }>;
  /** Signs alone: where the drawing is too small to read. */
  readonly bare?: boolean;
  /** What stands beside a link: its pipe, in few letters. */
  readonly beside?: (link: Join) => string;
}

/** What Enter and the space bar do on a button that is drawn. */
const pressed = (act: () => void) => (e: KeyboardEvent) => {
  if (e.key !== 'Enter' && e.key !== ' ') return;
  e.preventDefault();
  act();
};

function LinkLine({ link, shown }: { link: Join; shown: Shown }) {
  const { network, reach, chosen, onLink, beside } = shown;
  const [a, b] = [link.from, link.to].map((id) => partOf(network, id));
  if (!a || !b) return null;
  const inside = reach.links.has(link.id) && (reach.parts.has(a.id) || reach.parts.has(b.id));
  const [p, q] = [at(a), at(b)];
  // pipes run square: along, then down
  const d = `M${p.x},${p.y} H${q.x} V${q.y}`;
  const text = (!shown.bare && beside?.(link)) || '';
  const flat = Math.abs(q.x - p.x) >= Math.abs(q.y - p.y);
  const own = chosen === link.id;
  return (
    <g
      {...(onLink
        ? {
            role: 'button',
            tabIndex: 0,
            'aria-pressed': own,
            'aria-label': `${text ? `Pipe ${text}` : 'Join'} from ${partName(a)} to ${partName(b)}`,
            className: 'cursor-pointer',
            'data-link': link.id,
            onClick: () => onLink(link.id),
            onKeyDown: pressed(() => onLink(link.id)),
          }
        : {})}
    >
      <path
        d={d}
        fill="none"
        stroke={inside ? 'var(--lake)' : 'var(--edge)'}
        strokeWidth={inside ? 5 : 2}
        strokeDasharray={inside ? undefined : '7 6'}
      />
      {own && <path d={d} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="2 5" />}
      {onLink && <path d={d} fill="none" stroke="transparent" strokeWidth={22} />}
      {text && (
        <text
          x={flat ? (p.x + q.x) / 2 : q.x + 8}
          y={flat ? p.y + 14 : (p.y + q.y) / 2}
          textAnchor={flat ? 'middle' : 'start'}
          dominantBaseline="central"
          fontSize={11}
          fill="var(--quiet)"
        >
          {text}
        </text>
      )}
    </g>
  );
}
/** Whether the one thing that a part is joined to stands above it. */
function hangsFrom(network: Joined, part: Part): boolean {
  const own = network.links.filter((l) => l.from === part.id || l.to === part.id);
  const other = own.length === 1 && partOf(network, own[0]!.from === part.id ? own[0]!.to : own[0]!.from);
  return other ? other.y < part.y : false;
}
/** The names of a part: under what is tall, above what stands in the line, beside a valve on a branch. */
function Name({
  asked,
  note,
  above,
  hangs,
  text,
  part,
  bold,
  faint,
}: {
  asked: Position | '';
  note: string;
  /** It stands above its sign: on the upper edge of a pool, where its pipe comes from below. */
  above: boolean;
  /** What it is joined to stands above it. */
  hangs: boolean;
  text: string;
  part: Part;
  /** It bounds the section: whose it is stands with it. */
  bold: boolean;
  faint: boolean;
}) {
  if (ruleOfPart(part.kind).nameless) return null;
  const rows = lines(text, 15);
  const owner = bold ? textOf(part, 'owner') : '';
  const tall = [
    'appliance',
    'meter',
    'tank',
    'loop',
    'opening',
    'tested',
    'regulator',
    'valve',
    'tap',
    'vent',
    'pump',
    ...(above ? [] : ['outlet']),
    'connection',
    'equipment',
    'handler',
    ...(hangs ? ['register', 'intake'] : []),
  ].includes(part.kind);
  const side = part.kind === 'valve' && part.y > 18;
  if (owner) rows.push(`owner: ${owner}`);
  if (asked) rows.push(`must be ${asked}`);
  if (note) rows.push(note);
  return rows.map((row, i) => (
    <text
      key={i}
      x={side ? 19 : 0}
      y={side ? (i - (rows.length - 1) / 2) * 14 : tall ? 28 + i * 14 : -20 - (rows.length - 1 - i) * 14}
      textAnchor={side ? 'start' : 'middle'}
      dominantBaseline="central"
      fontSize={12.5}
      fontWeight={bold ? 700 : 400}
      // a pipe that runs under a name leaves it readable
      paintOrder="stroke"
      stroke="var(--panel)"
      strokeWidth={4}
      strokeLinejoin="round"
      fill={faint ? 'var(--quiet)' : 'var(--ink)'}
    >
      {row}
    </text>
  ));
}
/** The edge of a pool, under everything. */
function Edge({ outline }: { outline: Outline }) {
  return (
    <path
      d={outlinePath(outline)}
      transform={`scale(${UNIT})`}
      fill="var(--lake)"
      fillOpacity={0.07}
      stroke="var(--edge)"
      strokeWidth={0.3}
    />
  );
}
/** A join without a pipe, along and then down like one: full where it is known, dotted where it is only usual. */
function JoinLine({ join, network }: { join: NonNullable<Shown['joins']>[number]; network: Joined }) {
  const [a, b] = [join.from, join.to].map((id) => partOf(network, id));
  if (!a || !b) return null;
  const [p, q] = [at(a), at(b)];
  return (
    <path
      d={`M${p.x},${p.y} H${q.x} V${q.y}`}
      fill="none"
      stroke={join.sure ? 'var(--lake)' : 'var(--edge)'}
      strokeWidth={join.sure ? 3 : 1.5}
      strokeDasharray={join.sure ? undefined : '1 7'}
      strokeLinecap="round"
    />
  );
}
/** A leak as leak fluid showed it: the larger its bubbles, the larger the mark; one that is mended is hollow. */
const LeakMark = ({ n, r, open }: { n: string; r: number; open: boolean }) => (
  <g transform="translate(20,-20)">
    <circle r={r} fill={open ? 'var(--rust)' : 'var(--panel)'} stroke="var(--rust)" strokeWidth={2} />
    <text
      textAnchor="middle"
      dominantBaseline="central"
      fontSize={12}
      fontWeight={700}
      fill={open ? 'var(--panel)' : 'var(--rust)'}
    >
      {n}
    </text>
  </g>
);
function PartSign({ part, shown }: { part: Part; shown: Shown }) {
  const { network, reach, positions = {}, chosen, marked, onPart, onKey } = shown;
  const { x, y } = at(part);
  const inside = reach.parts.has(part.id);
  const bound = reach.boundaries.some((b) => b.id === part.id);
  const text = words(network, part, positions);
  const suspect = shown.suspect?.get(part.id) ?? 0;
  // a valve has its name beside it: the frame leaves it room
  const half = part.kind === 'valve' ? 17 : 25;
  const frame = { x: -half, y: -19, width: 2 * half, height: 38 };
  return (
    <g
      transform={`translate(${x},${y})`}
      {...(onPart
        ? {
            role: 'button',
            tabIndex: 0,
            'aria-pressed': chosen === part.id,
            'aria-label': `${partWord(part.kind)} ${text}${inside ? ', inside' : bound ? ', boundary' : ', outside'}`,
            className: 'cursor-pointer',
            'data-part': part.id,
            onClick: () => onPart(part.id),
            onKeyDown: (e: KeyboardEvent) => {
              pressed(() => onPart(part.id))(e);
              onKey?.(part, e);
            },
          }
        : {})}
    >
      {marked?.has(part.id) && (
        <rect {...frame} fill="var(--lichen)" fillOpacity={0.35} stroke="var(--ink)" strokeWidth={2} />
      )}
      {suspect > 0 && (
        <rect {...frame} fill="var(--ochre)" fillOpacity={0.12 + 0.6 * suspect} stroke="var(--ochre)" />
      )}
      {!shown.suspect && shown.notes?.has(part.id) && (
        <rect {...frame} fill="var(--lake)" fillOpacity={0.2} stroke="var(--lake)" />
      )}
      {chosen === part.id && (
        <rect {...frame} fill="none" stroke="var(--lake)" strokeWidth={2} strokeDasharray="4 3" />
      )}
      {onPart && <rect x={-24} y={-22} width={48} height={44} fill="transparent" />}
      <Sign kind={part.kind} closed={positionOf(network, part, positions) === 'closed'} reached={inside} />
      {shown.leaks?.has(part.id) && <LeakMark {...shown.leaks.get(part.id)!} />}
      {!shown.bare && (
        <Name
          text={text}
          part={part}
          bold={bound}
          faint={!inside && !bound}
          asked={marked?.get(part.id) ?? ''}
          note={shown.notes?.get(part.id) ?? ''}
          hangs={hangsFrom(network, part)}
          above={!!network.outline && part.y <= network.outline.y + 2}
        />
      )}
    </g>
  );
}
/** Everything on the sheet, in its own scale: what the test reaches is thick and full, what it does not is broken. */
export function Sheet(shown: Shown) {
  return (
    <>
      {shown.network.outline && <Edge outline={shown.network.outline} />}
      {shown.joins?.map((j) => (
        <JoinLine key={`${j.from}\n${j.to}`} join={j} network={shown.network} />
      ))}
      {shown.network.links.map((l) => (
        <LinkLine key={l.id} link={l} shown={shown} />
      ))}
      {shown.network.parts.map((p) => (
        <PartSign key={p.id} part={p} shown={shown} />
      ))}
    </>
  );
}

/** The drawn section, to look at; with `onPart`, its parts can be touched. It scrolls where it is wider than its place. */
export function NetworkDrawing({
  label,
  least = 0.85,
  ...shown
}: Shown & {
  label: string;
  /** How small it may become before it scrolls, as a part of its own scale. */
  least?: number;
}) {
  const { x, y, width, height } = extent(shown.network);
  return (
    <svg
      viewBox={`${x} ${y} ${width} ${height}`}
      role={shown.onPart ? 'group' : 'img'}
      aria-label={label}
      className="block w-full touch-pan-x touch-pan-y select-none"
      style={{ minWidth: width * least, maxWidth: width * 1.3 }}
    >
      <Sheet {...shown} />
    </svg>
  );
}

const row = 'grid gap-x-4 border-t border-seam py-2 sm:grid-cols-[10rem_1fr]';
const Row = ({ title, children }: { title: string; children: ReactNode }) => (
  <div className={row}>
    <dt className="text-quiet">{title}</dt>
    <dd>{children}</dd>
  </div>
);
/** What is in, what bounds it, what is out: the same as the drawing, in words. */
export function ReachWords({
  network,
  reach,
  positions = {},
  asked = [],
}: {
  network: Joined;
  reach: Reach;
  positions?: Positions;
  /** What nobody has answered yet. */
  asked?: readonly string[];
}) {
  return (
    <dl>
      <Row title="Inside the test">
        {insideOf(network, reach)
          .map((p) => p.name)
          .join('; ') || 'nothing'}
      </Row>
      <Row title="Bounded by">
        {reach.boundaries.map((b) => words(network, b, positions)).join('; ') || 'nothing'}: each a suspect
        until proved
      </Row>
      <Row title="Outside">{reach.outside.map((p) => p.name).join('; ') || 'nothing'}</Row>
      {[...reach.warnings, ...asked].map((w) => (
        <div key={w} className="border-t border-seam py-2">
          <p className="border-l-4 border-ochre pl-3">{w}</p>
        </div>
      ))}
    </dl>
  );
}
