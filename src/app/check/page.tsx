import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { CheckFile } from '@/ui/ledger/check-file';

export const metadata: Metadata = { title: 'Check a file' };
/** For anyone who was given a record: the file is checked in the browser and goes nowhere. */
export default async function Check() {
  await headers();
  return (
    <main className="mx-auto max-w-3xl px-4 py-8">
      <CheckFile />
    </main>
  );
}
