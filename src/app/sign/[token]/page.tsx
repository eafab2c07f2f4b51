import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { readSignatureLink } from '@/server/runs/signature-links';
import { TroubleError } from '@/server/trouble';
import { SignView } from '@/ui/sign/sign-view';

export const metadata: Metadata = {
  title: 'Sign',
  robots: { index: false, follow: false },
  referrer: 'no-referrer',
};
/** A customer or witness signs on a device of their own: no sign-in, and only what they sign for. */
export default async function Sign({ params }: { params: Promise<{ token: string }> }) {
  await headers();
  const { token } = await params;
  const found = await readSignatureLink(token).catch((e: unknown) => {
    if (e instanceof TroubleError) return e.message;
    throw e;
  });
  return (
    <main className="mx-auto max-w-xl p-5">
      {typeof found === 'string' ? (
        <>
          <h1 className="text-2xl font-bold">This link has ended</h1>
          <p className="mt-2 text-lg">{found}</p>
        </>
      ) : (
        <SignView token={token} {...found} />
      )}
    </main>
  );
}
