import type { Metadata } from 'next';
import Link from 'next/link';
import { cache } from 'react';
import { found } from '@/app/(house)/found';
import { now } from '@/server/now';
import { requireSession } from '@/server/session/session';
import { readWatch } from '@/server/watches/watches';
import { buttonClass } from '@/ui/kit/button-class';
import { WatchView } from '@/ui/watch/watch-view';

/** Read once for the page and its title. */
const load = cache(async (id: string) => found(readWatch(await requireSession(), id)));
export const generateMetadata = async ({
  params,
}: {
  params: Promise<{ watch: string }>;
}): Promise<Metadata> => {
  const { watch } = await params;
  return { title: `Watch ${(await load(watch)).facts.place.system}` };
};
export default async function WatchPage({ params }: { params: Promise<{ watch: string }> }) {
  const session = await requireSession();
  const { watch: id } = await params;
  const watch = await load(id);
  const { facts, state, log, linked } = watch;
  return (
    <>
      <WatchView
        id={id}
        facts={facts}
        state={state}
        log={log}
        linked={linked}
        who={session.name}
        at={now()}
      />
      <nav className="mt-8 flex flex-wrap gap-3" aria-label="This watch">
        <Link prefetch={false} className={buttonClass('plain')} href={`/places/${watch.system}`}>
          The system
        </Link>
        {watch.run && (
          <Link prefetch={false} className={buttonClass('plain')} href={`/ledger/${watch.run}`}>
            The record it began with
          </Link>
        )}
      </nav>
    </>
  );
}
