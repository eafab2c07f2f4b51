import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { TroubleError } from '@/server/trouble';
import { watchForLink } from '@/server/watches/watches';
import { WatchLinkView } from '@/ui/watch/link-view';

export const metadata: Metadata = {
  title: 'Watch',
  robots: { index: false, follow: false },
  referrer: 'no-referrer',
};
/** Readings of a watch by anyone with the link: no sign-in, and nothing that others wrote. */
export default async function WatchByLink({ params }: { params: Promise<{ token: string }> }) {
  await headers();
  const { token } = await params;
  const found = await watchForLink(token).catch((e: unknown) => {
    if (e instanceof TroubleError) return e.message;
    throw e;
  });
  if (typeof found === 'string')
    return (
      <main className="mx-auto max-w-xl p-6">
        <h1 className="text-2xl font-bold">This link has ended</h1>
        <p className="mt-2 text-lg">{found}</p>
      </main>
    );
  return <WatchLinkView {...found} token={token} />;
}
