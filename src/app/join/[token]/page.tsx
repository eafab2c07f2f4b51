import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { readInvitation } from '@/server/people/people';
import { TroubleError } from '@/server/trouble';
import { JoinForm } from '@/ui/people/join-form';

export const metadata: Metadata = { title: 'Join', robots: { index: false, follow: false } };
export default async function Join({ params }: { params: Promise<{ token: string }> }) {
  await headers();
  const { token } = await params;
  const invitation = await readInvitation(token).catch((e: unknown) => {
    if (e instanceof TroubleError) return e.message;
    throw e;
  });
  return (
    <main className="mx-auto max-w-md px-5 py-10">
      {typeof invitation === 'string' ? (
        <>
          <h1 className="text-2xl font-bold">No open invitation</h1>
          <p className="mt-2">{invitation}</p>
        </>
      ) : (
        <JoinForm token={token} invitation={invitation} />
      )}
    </main>
  );
}
