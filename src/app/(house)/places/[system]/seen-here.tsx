import { showExact } from '@/core/quantity/exact';
import type { readInventory } from '@/server/places/inventory';
import type { readWatches } from '@/server/watches/watches';
import { Moment } from '@/ui/frame/zone';
import { watchWords } from '@/ui/watch/words';
import Link from 'next/link';

export function WatchList({ watches }: { watches: Awaited<ReturnType<typeof readWatches>> }) {
  return (
    <section>
      <h2 className="text-lg font-semibold">Watches</h2>
      <ul className="mt-2 border-t border-seam">
        {watches.map((w) => (
          <li key={w.id} className="border-b border-seam">
            <Link prefetch={false} className="block min-h-11 py-2 hover:text-lake" href={`/watches/${w.id}`}>
              <span className={w.state.lost ? 'font-semibold text-rust' : ''}>
                {watchWords(w.state, w.facts.zone)}
              </span>
              <span className="block text-sm text-quiet">
                left at {showExact(w.facts.figure)}, <Moment at={w.facts.startedAt} />
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
/** Things that were looked at and written down here, and what changed since. */
export function WrittenDown({ inventory }: { inventory: Awaited<ReturnType<typeof readInventory>> }) {
  return (
    <section>
      <h2 className="text-lg font-semibold">Written down here</h2>
      <ul className="mt-2">
        {inventory.map((x) => (
          <li key={x.item.id} className="border-t border-seam py-2">
            <span className="font-semibold">{x.item.name}</span>
            {x.item.place && <span>, {x.item.place}</span>}
            <span className="block text-sm text-quiet">
              {[x.item.make, x.item.model, x.item.serial && `serial ${x.item.serial}`]
                .filter(Boolean)
                .join(', ') || 'no plate read'}
              ; <Moment at={x.at} />, {x.by}
            </span>
            {x.changes.map((c) => (
              <span key={c} className="block text-sm font-semibold text-ochre">
                Changed: {c}. Records made before do not cover it.
              </span>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
