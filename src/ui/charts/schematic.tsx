import {
  GRID,
  NODE_KINDS,
  reachOf,
  type Reach,
  type Schematic,
  type SchematicNode,
} from '@/core/installation/schematic';

/** Pixels of one grid unit in the drawing's own scale. */
export const UNIT = 10;
const at = (n: SchematicNode) => ({ x: n.x * UNIT, y: n.y * UNIT });

/** The sign of a part, drawn around the origin. A closed valve is filled, an open one is not; words stand beside both. */
function Sign({ node, reached }: { node: SchematicNode; reached: boolean }) {
  const ink = 'var(--ink)';
  const fill = reached ? 'var(--panel)' : 'var(--ground)';
  switch (node.kind) {
    case 'valve':
      return (
        <path
          d="M-11,-9 L11,9 L11,-9 L-11,9 Z"
          fill={node.position === 'closed' ? ink : fill}
          stroke={ink}
          strokeWidth={1.5}
        />
      );
    case 'meter':
      return <rect x={-15} y={-12} width={30} height={24} fill={fill} stroke={ink} strokeWidth={1.5} />;
    case 'regulator':
      return <path d="M-13,10 L0,-12 L13,10 Z" fill={fill} stroke={ink} strokeWidth={1.5} />;
    case 'appliance':
      return <rect x={-20} y={-14} width={40} height={28} fill={fill} stroke={ink} strokeWidth={2.5} />;
    case 'point':
      return (
        <g stroke={ink} strokeWidth={1.5} fill="var(--lake)">
          <rect x={-7} y={-7} width={14} height={14} transform="rotate(45)" />
        </g>
      );
    case 'cap':
      return <path d="M-3,-11 L3,-11 L3,11 L-3,11 Z" fill={ink} stroke={ink} />;
    case 'source':
      return <path d="M-14,-10 L6,-10 L14,0 L6,10 L-14,10 Z" fill={fill} stroke={ink} strokeWidth={1.5} />;
    case 'tee':
      return <rect x={-3} y={-3} width={6} height={6} fill={ink} />;
  }
}
const words = (n: SchematicNode): string =>
  n.kind === 'valve' ? `${n.name}, ${n.position ?? 'open'}` : n.name;
/** Names in lines that do not run into each other. */
function lines(text: string, most: number): string[] {
  const out: string[] = [];
  for (const word of text.split(' ')) {
    const last = out[out.length - 1];
    if (last !== undefined && (last + ' ' + word).length <= most) out[out.length - 1] = `${last} ${word}`;
    else out.push(word);
  }
  return out.slice(0, 3);
}

/** The drawn section: what the test reaches is thick and full, what it does not is broken; words say both. */
export function SchematicDrawing({
  schematic,
  reach = reachOf(schematic),
  selected = null,
  label,
  onNode,
  onMove,
}: {
  schematic: Schematic;
  reach?: Reach;
  selected?: string | null;
  label: string;
  onNode?: (id: string) => void;
  onMove?: (id: string, x: number, y: number) => void;
}) {
  const byId = new Map(schematic.nodes.map((n) => [n.id, n]));
  const right = Math.max(40, ...schematic.nodes.map((n) => n.x)) + 12;
  const down = Math.max(24, ...schematic.nodes.map((n) => n.y)) + 8;
  const size = {
    width: Math.min(GRID.width + 8, right) * UNIT,
    height: Math.min(GRID.height + 6, down) * UNIT,
  };
  return (
    <svg
      viewBox={`0 0 ${size.width} ${size.height}`}
      role={onNode ? 'group' : 'img'}
      aria-label={label}
      className="block w-full touch-pan-y select-none"
      style={{ minWidth: 620 }}
    >
      {schematic.links.map((l) => {
        const a = byId.get(l.from);
        const b = byId.get(l.to);
        if (!a || !b) return null;
        const inside = reach.links.has(l.id) && (reach.nodes.has(a.id) || reach.nodes.has(b.id));
        const [p, q] = [at(a), at(b)];
        // pipes run square: along, then down
        return (
          <path
            key={l.id}
            d={`M${p.x},${p.y} H${q.x} V${q.y}`}
            fill="none"
            stroke={inside ? 'var(--lake)' : 'var(--edge)'}
            strokeWidth={inside ? 5 : 2}
            strokeDasharray={inside ? undefined : '7 6'}
          />
        );
      })}
      {schematic.nodes.map((n) => {
        const { x, y } = at(n);
        const inside = reach.nodes.has(n.id);
        const bound = reach.boundaries.some((b) => b.id === n.id);
        const below = n.kind === 'valve' || n.kind === 'appliance' || n.kind === 'meter';
        const text = lines(words(n), n.kind === 'source' ? 9 : 16);
        const body = (
          <>
            {selected === n.id && (
              <rect
                x={-26}
                y={-22}
                width={52}
                height={44}
                fill="none"
                stroke="var(--lake)"
                strokeWidth={2}
                strokeDasharray="4 3"
              />
            )}
            <rect x={-24} y={-22} width={48} height={44} fill="transparent" />
            <Sign node={n} reached={inside} />
            {n.kind !== 'tee' &&
              text.map((t, i) => (
                <text
                  key={i}
                  x={n.kind === 'valve' && y > 200 ? 20 : 0}
                  y={
                    n.kind === 'valve' && y > 200
                      ? (i - (text.length - 1) / 2) * 14
                      : below
                        ? 30 + i * 14
                        : -20 - (text.length - 1 - i) * 14
                  }
                  textAnchor={n.kind === 'valve' && y > 200 ? 'start' : 'middle'}
                  dominantBaseline="central"
                  fontSize={12.5}
                  fontWeight={bound ? 700 : 400}
                  fill={inside || bound ? 'var(--ink)' : 'var(--quiet)'}
                >
                  {t}
                </text>
              ))}
          </>
        );
        return onNode ? (
          <g
            key={n.id}
            transform={`translate(${x},${y})`}
            role="button"
            tabIndex={0}
            aria-pressed={selected === n.id}
            aria-label={`${NODE_KINDS[n.kind]} ${words(n)}${inside ? ', inside' : bound ? ', boundary' : ', outside'}`}
            className="cursor-pointer"
            onPointerDown={(e) => {
              onNode(n.id);
              if (!onMove) return;
              const svg = e.currentTarget.ownerSVGElement!;
              const scale = size.width / svg.getBoundingClientRect().width;
              const from = { x: e.clientX, y: e.clientY };
              e.currentTarget.setPointerCapture(e.pointerId);
              const move = (m: PointerEvent) =>
                onMove(
                  n.id,
                  Math.max(2, Math.min(GRID.width, Math.round(n.x + ((m.clientX - from.x) * scale) / UNIT))),
                  Math.max(2, Math.min(GRID.height, Math.round(n.y + ((m.clientY - from.y) * scale) / UNIT))),
                );
              const target = e.currentTarget;
              target.addEventListener('pointermove', move);
              target.addEventListener('pointerup', () => target.removeEventListener('pointermove', move), {
                once: true,
              });
            }}
            onFocus={() => onNode(n.id)}
            onKeyDown={(e) => {
              const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
                e.key
              ];
              if (!step || !onMove) return;
              e.preventDefault();
              onMove(
                n.id,
                Math.max(2, Math.min(GRID.width, n.x + step[0]!)),
                Math.max(2, Math.min(GRID.height, n.y + step[1]!)),
              );
            }}
          >
            {body}
          </g>
        ) : (
          <g key={n.id} transform={`translate(${x},${y})`}>
            {body}
          </g>
        );
      })}
    </svg>
  );
}

/** What is in, what bounds it, what is out: the same as the drawing, in words. */
export function ReachWords({ schematic, reach }: { schematic: Schematic; reach: Reach }) {
  const inside = schematic.nodes.filter((n) => n.kind !== 'tee' && reach.nodes.has(n.id));
  const row = 'grid gap-x-4 border-t border-seam py-2 sm:grid-cols-[10rem_1fr]';
  return (
    <dl>
      <div className={row}>
        <dt className="text-quiet">Inside the test</dt>
        <dd>{inside.map((n) => n.name).join('; ') || 'nothing'}</dd>
      </div>
      <div className={row}>
        <dt className="text-quiet">Bounded by</dt>
        <dd>{reach.boundaries.map(words).join('; ') || 'nothing'}: each a suspect until proved</dd>
      </div>
      <div className={row}>
        <dt className="text-quiet">Outside</dt>
        <dd>{reach.outside.map((n) => n.name).join('; ') || 'nothing'}</dd>
      </div>
      {reach.warnings.map((w) => (
        <div key={w} className="border-t border-seam py-2">
          <p className="border-l-4 border-ochre pl-3">{w}</p>
        </div>
      ))}
    </dl>
  );
}
