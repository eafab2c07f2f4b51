import type { System } from '@/core/installation/section';
import { networkOf } from '@/core/network/enter';
import { insideOf, reachOf } from '@/core/network/flood';
import { NetworkDrawing } from './drawing';
import { pipeLabels } from './pipe-words';

/** The section as a test would find it, to look at: the same drawing on place, plan and record. */
export function SectionFigure({ section, className = '' }: { section: System; className?: string }) {
  const network = networkOf(section);
  const reach = reachOf(network);
  const names = (list: readonly { readonly name: string }[]) =>
    list.map((p) => p.name).join(', ') || 'nothing';
  return (
    <div
      className={`overflow-x-auto border border-seam bg-panel ${className}`}
      role="region"
      aria-label="Section drawn"
      tabIndex={0}
    >
      <NetworkDrawing
        network={network}
        reach={reach}
        beside={pipeLabels}
        label={`Section of ${section.name} drawn: inside ${names(insideOf(network, reach))}; bounded by ${names(reach.boundaries)}`}
      />
    </div>
  );
}
