'use client';
import type { RunState } from '@/core/run/state';
import type { Plan } from '@/core/plan/plan';
import { linesDrawn, otherParts, withFound } from '@/core/trades/pool/ends';
import { looksNow, mapNow } from '@/core/kinds/map/fold';
import { NetworkDrawing } from '@/ui/network/drawing';
import { useMemo } from 'react';

/** The pool as it is drawn, with ends that were found since beside it, and the joins that are known. */
export function usePool(plan: Plan, state: RunState) {
  return useMemo(() => {
    const { found } = state.rooms.map;
    const drawn = plan.system.network ?? { parts: [], links: [] };
    // while one line is tested the ends of the others stand there too: a bubble at one of them counts
    const whole = { ...drawn, parts: [...drawn.parts, ...otherParts(plan.system)] };
    const network = withFound(whole, [...(plan.system.foundEnds ?? []), ...found]);
    const looks = looksNow(plan, state);
    const map = mapNow(plan, state);
    return { network, looks, map, ...linesDrawn(network, map) };
  }, [plan, state]);
}
/** Ends as they were marked for a look, on the pool's own outline; a tap goes on to the next answer. */
export function PoolDrawn({
  pool,
  notes,
  chosen,
  onEnd,
}: {
  pool: ReturnType<typeof usePool>;
  notes: ReadonlyMap<string, string>;
  chosen: string;
  onEnd: (id: string) => void;
}) {
  return (
    <div
      className="overflow-auto border border-seam bg-panel"
      role="region"
      aria-label="Pool drawn"
      tabIndex={0}
    >
      <NetworkDrawing
        network={pool.network}
        reach={pool.reach}
        joins={pool.joins}
        notes={notes}
        chosen={chosen}
        label="The pool with its ends; lines that are known are joined"
        least={0.5}
        onPart={(id) => {
          if (pool.map.ends.some((e) => e.id === id)) onEnd(id);
        }}
      />
    </div>
  );
}
