import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { notFound } from 'next/navigation';
import { houseUsage } from '@/server/people/usage';
import { publicFace, publicRecord, recordOf } from '@/server/records/records';
import { checkSeal } from '@/server/sealing/seal';
import { TroubleError } from '@/server/trouble';
import { ReadersLens } from '@/ui/frame/lens';
import { UsageProvider } from '@/ui/frame/usage';
import { buttonClass } from '@/ui/kit/button-class';
import { PublicCertificate } from '@/ui/ledger/public-certificate';

export const metadata: Metadata = { title: 'Check a record', robots: { index: false, follow: false } };
/** What the certificate shows and whether it is untouched; nothing more, and no sign-in. */
export default async function Verify({ params }: { params: Promise<{ token: string }> }) {
  await headers();
  const { token } = await params;
  const found = await publicRecord(token).catch((e: unknown) => {
    if (e instanceof TroubleError) notFound();
    throw e;
  });
  const [record, check, usage] = await Promise.all([
    recordOf(found, found.run),
    checkSeal(found, found.run),
    houseUsage(found),
  ]);
  return (
    <UsageProvider usage={usage}>
      <main className="mx-auto max-w-4xl px-4 py-8">
        <p className="mb-4 text-sm text-quiet">Public check of a Vast Stone record</p>
        <PublicCertificate face={publicFace(record)} check={check} />
        <a className={buttonClass('act', 'mt-6')} href={`/verify/${token}/pdf`}>
          PDF
        </a>
        <ReadersLens />
      </main>
    </UsageProvider>
  );
}
