import type { System } from '@/core/installation/section';
import { networkOf } from '@/core/network/enter';
import { insideOf, reachOf } from '@/core/network/flood';
import { tradeOf } from '@/core/trades';
import { linesDrawn, poolMap } from '@/core/trades/pool/ends';
import { type LineRecord, lineWord, newestOf } from '@/ui/places/lines-of';
import { NetworkDrawing } from './drawing';
import { pipeLabels } from './pipe-words';

/** What is known of a pool's lines, on its drawing: joins, and what each line was found to be, at its first end. */
function knownLines(section: System, records: readonly LineRecord[]) {
  if (tradeOf(section).parted !== 'lines' || section.section) return null;
  const map = poolMap(section, section.looks ?? []);
  const found = map.lines.flatMap((l) => {
    const record = newestOf(l, records);
    return record ? [[l.ends[0]!, lineWord(record)] as const] : [];
  });
  return { ...linesDrawn(networkOf(section), map), notes: new Map(found) };
}
/** The section as a test would find it, to look at: the same drawing on place, plan and record. */
export function SectionFigure({
  section,
  records = [],
  className = '',
  least,
}: {
  section: System;
  records?: readonly LineRecord[];
  className?: string;
  /** How small it may become before it scrolls, as a part of its own scale. */
  least?: number;
}) {
  const network = networkOf(section);
  const lines = knownLines(section, records);
  const reach = lines?.reach ?? reachOf(network);
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
        label={
          lines
            ? `${section.name} drawn, with the lines that are known`
            : `Section of ${section.name} drawn: inside ${names(insideOf(network, reach))}; bounded by ${names(reach.boundaries)}`
        }
        {...(lines ? { joins: lines.joins, notes: lines.notes, least: 0.78 } : {})}
        {...(least === undefined ? {} : { least })}
      />
    </div>
  );
}
