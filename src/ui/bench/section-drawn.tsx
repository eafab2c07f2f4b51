'use client';
import { mapNow } from '@/core/kinds/map/fold';
import { networkOf } from '@/core/network/enter';
import { tradeOf } from '@/core/trades';
import { linesDrawn } from '@/core/trades/pool/ends';
import { listId } from '@/core/network/installation';
import { type Network, type Part, type Position, positionKey } from '@/core/network/network';
import { standing } from '@/core/run/isolations';
import { checkLines, currentVisit, stageOf } from '@/core/run/read';
import type { BenchView } from '@/device/bench';
import { Button } from '@/ui/kit/button';
import { NetworkDrawing, ReachWords } from '@/ui/network/drawing';
import { pipeLabels } from '@/ui/network/pipe-words';
import { PlacePhotos, usePartPhotos } from '@/ui/network/place-photos';
import { Maximize2, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useMemo } from 'react';

/** Asked for when the drawing is opened large; without a signal there are none. */
const PhotosHere = (of: { system: string; network: Network }) => (
  <PlacePhotos {...of} kept={usePartPhotos(of.system)} />
);

const MOST_NAMED = 4;
/** The section as it stands in this stage: positions as they were ticked, and the parts that this stage asks about marked. */
export default function SectionDrawn({ view }: { view: Pick<BenchView, 'plan' | 'state'> }) {
  const { plan, state } = view;
  const network = useMemo(() => networkOf(plan.system), [plan.system]);
  const { positions, reach: stands } = useMemo(() => standing(network, state), [network, state]);
  const lines = useMemo(
    () =>
      tradeOf(plan.system).parted === 'lines' && !plan.system.section
        ? linesDrawn(network, mapNow(plan, state))
        : null,
    [plan, state, network],
  );
  const reach = lines?.reach ?? stands;
  const joins = lines ? { joins: lines.joins } : {};
  const visit = currentVisit(state);
  const stage = visit && stageOf(plan, visit);
  const marked = useMemo(() => {
    const lines = stage?.kind === 'checks' ? checkLines(plan, stage) : [];
    const asked = new Map<string, Position | ''>(
      lines.flatMap((l) => (l.subject ? [[l.subject.id, l.item.position ?? ''] as const] : [])),
    );
    const named = (p: Part) => (p.kind === 'valve' ? positionKey(network, p) : listId(p));
    return new Map(
      network.parts.flatMap((p) => {
        const position = asked.get(named(p));
        return position === undefined ? [] : [[p.id, position] as const];
      }),
    );
  }, [plan, stage, network]);
  const names = reach.boundaries.map((p) => p.name);
  // many ends are counted; large they stand by name
  const bounds = names.length > MOST_NAMED ? `${names.length} ends` : names.join(', ') || 'nothing';
  const label = lines
    ? 'The pool, with the lines that are known'
    : `The section in this stage: bounded by ${bounds}`;
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <button
          type="button"
          className="block w-full border border-seam bg-panel p-1 text-left hover:border-ink"
          aria-label={`${label}. Open it large`}
        >
          <NetworkDrawing
            network={network}
            reach={reach}
            positions={positions}
            marked={marked}
            label={label}
            {...joins}
            least={0}
            bare
          />
          <span className="flex items-center gap-2 px-1 text-sm text-quiet">
            <Maximize2 size={14} aria-hidden /> {lines ? 'lines that are known' : `bounded by ${bounds}`}
          </span>
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ground opacity-80" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-2 z-50 flex flex-col gap-3 overflow-auto border border-ink bg-panel p-4 sm:inset-6"
        >
          <div className="flex items-center justify-between gap-3">
            <Dialog.Title className="text-lg font-semibold">The section in this stage</Dialog.Title>
            <Dialog.Close asChild>
              <Button aria-label="Close the drawing">
                <X size={18} aria-hidden />
              </Button>
            </Dialog.Close>
          </div>
          {marked.size > 0 && <p>Marked: what this stage asks about.</p>}
          <div className="overflow-auto" role="region" aria-label="Section drawn large" tabIndex={0}>
            <NetworkDrawing
              network={network}
              reach={reach}
              positions={positions}
              marked={marked}
              beside={pipeLabels}
              {...joins}
              label={label}
            />
          </div>
          <ReachWords network={network} reach={reach} positions={positions} />
          <PhotosHere system={plan.system.id} network={network} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
