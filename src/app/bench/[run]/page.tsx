import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { currentSession } from '@/server/session/session';
import { Bench } from '@/ui/bench/bench';
import { ReadersLens } from '@/ui/frame/lens';
import { Remember } from '@/ui/frame/remember';

export const metadata: Metadata = { title: 'Bench' };
/**
 * The shell of the bench: the run itself comes from the device's store or the route handlers. What the service worker
 * keeps of it (x-vast-keep) names nobody.
 */
export default async function BenchPage({ params }: { params: Promise<{ run: string }> }) {
  const asked = await headers();
  const { run } = await params;
  const session = await currentSession().catch(() => undefined); // the database may be away: the bench opens all the same
  if (session === null) redirect(`/sign-in?next=${encodeURIComponent(`/bench/${run}`)}`);
  return (
    <>
      {session && !asked.has('x-vast-keep') && (
        <Remember
          who={{
            org: session.org,
            person: session.person,
            name: session.name,
            role: session.role,
            organisation: session.organisation,
            ...(session.usage ? { usage: session.usage } : {}),
          }}
        />
      )}
      <Bench run={run} />
      <ReadersLens />
    </>
  );
}
