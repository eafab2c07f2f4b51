import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { DeskFrame } from '@/ui/desk/frame';
import { TraceDesk } from '@/ui/desk/trace-desk';

export const metadata: Metadata = { title: 'A trace explained' };
/** For everyone, signed in or not: what is pasted stays on the device. */
export default async function TracePage() {
  await headers();
  return (
    <DeskFrame>
      <TraceDesk />
    </DeskFrame>
  );
}
