'use client';
import { type BandBlock, bandGeometry } from '@/chart/band';
import { ROW } from '@/chart/band-height';
import type { VisitPlan, VisitTask } from '@/core/visit/types';
import { type PointerEvent as ReactPointerEvent, useMemo, useRef } from 'react';
import { clockOf } from './times';

interface Props {
  readonly tasks: readonly VisitTask[];
  readonly plan: VisitPlan;
  readonly rows: readonly { readonly key: string; readonly title: string }[];
  readonly width: number;
  /** ms of minute 0, and the visit's zone */ readonly begin: number;
  readonly zone: string;
  readonly selected: string | null;
  readonly now: number | null;
  readonly may: boolean;
  readonly onSelect: (task: string) => void;
  /** while a block is moved: the minute it is wished to begin; `done` when it is let go */
  readonly onWish: (task: string, minute: number, done: boolean) => void;
}

/** The visit in time. Hands are full blocks, waits are outlined; a block is dragged, or moved with the arrow keys. */
export function TimeBand({
  tasks,
  plan,
  rows,
  width,
  begin,
  zone,
  selected,
  now,
  may,
  onSelect,
  onWish,
}: Props) {
  // while a block is held the scale stays, so that it does not run from under the finger
  const held = useRef<number | null>(null);
  const length = held.current ?? plan.length;
  const g = useMemo(
    () =>
      bandGeometry(
        tasks,
        plan.slots,
        rows.map((r) => r.key),
        width,
        length,
      ),
    [tasks, plan.slots, rows, width, length],
  );
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const slotOf = (id: string) => plan.slots.find((s) => s.task === id)!;
  return (
    <svg
      width={width}
      height={g.height}
      viewBox={`0 0 ${width} ${g.height}`}
      role="group"
      aria-label="Time band of the visit"
      className="block touch-pan-y select-none"
      data-band
    >
      {g.ticks.map((t) => (
        <g key={t.minutes}>
          <line x1={t.x} x2={t.x} y1={20} y2={g.height} stroke="var(--seam)" />
          <text
            x={t.x + (t.x < 20 ? 1 : 0)}
            y={11}
            textAnchor={t.x < 20 ? 'start' : t.x > width - 24 ? 'end' : 'middle'}
            fontSize={13}
            fill="var(--ink)"
            className="figure-narrow"
          >
            {clockOf(begin, t.minutes, zone)}
          </text>
        </g>
      ))}
      {g.rows.map((r, i) => (
        <g key={r.key} data-row={r.key}>
          <line x1={0} x2={width} y1={r.y + ROW - 0.5} y2={r.y + ROW - 0.5} stroke="var(--edge)" />
          <text x={0} y={r.y + 12} fontSize={13} fill="var(--ink)" fontWeight={600}>
            {rows[i]!.title}
          </text>
          {[...new Set(r.blocks.map((b) => b.task))].map((id) => {
            const task = byId.get(id)!;
            const slot = slotOf(id);
            const blocks = r.blocks.filter((b) => b.task === id);
            return (
              <TaskBlocks
                key={id}
                {...{ task, slot, blocks, y: r.y, begin, zone, may }}
                chosen={selected === id}
                perPixel={g.minutes(1) - g.minutes(0)}
                onSelect={() => onSelect(id)}
                onHold={(on) => (held.current = on ? plan.length : null)}
                onMove={(minute, done) => onWish(id, Math.max(0, Math.round(minute)), done)}
              />
            );
          })}
        </g>
      ))}
      {now !== null && now >= 0 && now <= length && (
        <g aria-hidden>
          <line x1={g.x(now)} x2={g.x(now)} y1={18} y2={g.height} stroke="var(--rust)" strokeWidth={2} />
          <text x={g.x(now) + 4} y={g.height - 6} fontSize={12} fill="var(--rust)">
            now
          </text>
        </g>
      )}
    </svg>
  );
}

/** One task on the band: its hands and its wait. A finger drags it, arrow keys move it. */
function TaskBlocks({
  task,
  slot,
  blocks,
  y,
  begin,
  zone,
  may,
  chosen,
  perPixel,
  onSelect,
  onHold,
  onMove,
}: Pick<Props, 'begin' | 'zone' | 'may'> & {
  task: VisitTask;
  slot: VisitPlan['slots'][number];
  blocks: readonly BandBlock[];
  y: number;
  chosen: boolean;
  /** minutes */ perPixel: number;
  onSelect: () => void;
  /** The scale stays while it is held. */
  onHold: (on: boolean) => void;
  onMove: (minute: number, done: boolean) => void;
}) {
  const drag = (e: ReactPointerEvent<SVGGElement>) => {
    onSelect();
    if (!may || e.button !== 0) return;
    const target = e.currentTarget;
    const from = e.clientX;
    const { start } = slot;
    let wish = start;
    let moved = false;
    onHold(true);
    target.setPointerCapture(e.pointerId);
    const move = (m: PointerEvent) => {
      if (Math.abs(m.clientX - from) < 5 && !moved) return;
      moved = true;
      wish = start + (m.clientX - from) * perPixel;
      onMove(wish, false);
    };
    const end = () => {
      target.removeEventListener('pointermove', move);
      onHold(false);
      if (moved) onMove(wish, true);
    };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', end, { once: true });
    target.addEventListener('pointercancel', end, { once: true });
  };
  return (
    <g
      role="button"
      tabIndex={0}
      data-task={task.id}
      aria-pressed={chosen}
      aria-label={`${task.title}, ${clockOf(begin, slot.start, zone)} to ${clockOf(begin, slot.end, zone)}${may ? '; arrow keys move it' : ''}`}
      className={may ? 'cursor-grab' : 'cursor-pointer'}
      style={{ touchAction: may ? 'none' : undefined }}
      onFocus={onSelect}
      onKeyDown={(e) => {
        if (!may || (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight')) return;
        e.preventDefault();
        onMove(slot.start + (e.key === 'ArrowRight' ? 1 : -1) * (e.shiftKey ? 10 : 1), true);
      }}
      onPointerDown={drag}
    >
      {blocks.map((b) => (
        <rect
          key={b.kind}
          x={b.x}
          y={b.kind === 'wait' ? y + 27 : y + 21}
          width={b.width}
          height={b.kind === 'wait' ? 22 : 34}
          fill={b.kind === 'wait' ? 'transparent' : task.kind === 'test' ? 'var(--lake)' : 'var(--block)'}
          stroke={task.kind === 'test' ? 'var(--lake)' : 'var(--edge)'}
          strokeWidth={chosen ? 2.5 : 1}
          strokeDasharray={b.kind === 'wait' ? '4 4' : undefined}
        />
      ))}
      {blocks
        .filter((b) => b.kind === 'wait' && b.width > 90)
        .map((b) => (
          <text
            key="w"
            x={b.x + b.width / 2}
            y={y + 38}
            textAnchor="middle"
            dominantBaseline="central"
            fontSize={12.5}
            fill="var(--ink)"
          >
            {`${task.waits ?? 'waits'}, ${Math.round(slot.closeStart - slot.handsEnd)} min`}
          </text>
        ))}
      {chosen && (
        <rect
          x={blocks[0]!.x - 3}
          y={y + 17}
          width={blocks[blocks.length - 1]!.x + blocks[blocks.length - 1]!.width - blocks[0]!.x + 6}
          height={42}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
    </g>
  );
}
