import type { Metadata } from 'next';
import { requireSession } from '@/server/session/session';
import { ScanPage } from '@/ui/codes/scan-page';

export const metadata: Metadata = { title: 'Scan a code' };
export default async function Scan() {
  await requireSession();
  return (
    <>
      <h1 className="text-2xl font-bold">Scan a code</h1>
      <p className="mt-1 max-w-xl text-quiet">
        A label of a gauge or a place, a record, a watch; or the serial number on a plate, which is looked for
        among what was written down.
      </p>
      <div className="mt-4 max-w-xl">
        <ScanPage />
      </div>
    </>
  );
}
